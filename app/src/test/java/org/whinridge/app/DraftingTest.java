package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Role;

/** The history of a draft: own steps are taken back and done again, others' work is never lost. */
class DraftingTest extends SmallServerTest {
  private static int next;
  @Autowired SmallProject small;
  @Autowired Drafting drafting;
  @Autowired Forms forms;
  private SmallProject.Held held;
  private UUID form;
  private String asta;

  @BeforeEach
  void aFormOfItsOwn() throws Exception {
    int n = ++next;
    asta = "asta-" + n;
    held =
        small.make(
            "drafting-" + n,
            "Drafting " + n,
            Map.of(Role.COORDINATOR, asta, Role.INSPECTOR, "out-" + n));
    form = forms.fromLayer(held.project().id(), held.layer());
  }

  private FormDraft now() {
    return forms.get(held.project().id(), form);
  }

  private String draft() {
    return now().form().json().toString();
  }

  private FormDraft edit(long revision, String person, String edit) {
    return drafting.edit(
        held.project().id(),
        form,
        revision,
        Json.parse(edit.replace('\'', '"')).asObject(),
        person);
  }

  private static String hint(String question, String hint) {
    return "{'op':'set','question':'" + question + "','property':'hint','value':'" + hint + "'}";
  }

  @Test
  void fiftyStepsAreTakenBackAndDoneAgain() {
    String begin = draft();
    for (int i = 0; i < 50; i++)
      edit(
          now().revision(),
          asta,
          i % 2 == 0 ? hint("notes", "h" + i) : "{'op':'type','text':'New " + i + "','section':0}");
    String end = draft();
    for (int i = 0; i < 50; i++) drafting.undo(held.project().id(), form, asta);
    assertThat(draft()).isEqualTo(begin);
    assertThat(drafting.reach(form, asta).undo()).isEmpty();
    assertThatThrownBy(() -> drafting.undo(held.project().id(), form, asta))
        .isInstanceOf(Refusal.class);
    for (int i = 0; i < 50; i++) drafting.redo(held.project().id(), form, asta);
    assertThat(draft()).isEqualTo(end);
    assertThat(drafting.reach(form, asta).redo()).isEmpty();
  }

  @Test
  void whatIsDoneInsteadEndsWhatCouldBeDoneAgain() {
    edit(now().revision(), asta, hint("notes", "one"));
    drafting.undo(held.project().id(), form, asta);
    assertThat(drafting.reach(form, asta).redo().orElseThrow().key()).isEqualTo("formStep.set");
    edit(now().revision(), asta, hint("notes", "two"));
    assertThat(drafting.reach(form, asta).redo()).isEmpty();
  }

  @Test
  void twoPeopleInOneDraftOverwriteNothing() {
    long seen = now().revision();
    edit(seen, asta, hint("notes", "of asta"));
    FormDraft both = edit(seen, "beke", hint("condition", "of beke"));
    assertThat(both.form().question("notes").orElseThrow().hint()).isEqualTo("of asta");
    assertThat(both.form().question("condition").orElseThrow().hint()).isEqualTo("of beke");
    assertThatThrownBy(() -> edit(seen, "beke", hint("notes", "of beke")))
        .as("she has not seen what was changed there")
        .isInstanceOf(Refusal.class);
    drafting.undo(held.project().id(), form, asta);
    assertThat(now().form().question("condition").orElseThrow().hint()).isEqualTo("of beke");
    edit(now().revision(), "beke", hint("notes", "of beke"));
    assertThatThrownBy(() -> drafting.redo(held.project().id(), form, asta))
        .isInstanceOf(Refusal.class);
    assertThat(now().form().question("notes").orElseThrow().hint()).isEqualTo("of beke");
    assertThatThrownBy(() -> edit(now().revision() + 5, asta, hint("notes", "of the future")))
        .isInstanceOf(Refusal.class);
  }

  @Test
  void anEditThatChangesNothingIsNoStep() {
    long revision = edit(now().revision(), asta, hint("notes", "same")).revision();
    assertThat(edit(revision, asta, hint("notes", "same")).revision()).isEqualTo(revision);
  }
}
