package org.whinridge.core.form;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.form.edit.FormRename;
import org.whinridge.core.said.English;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.FormFixture;
import org.whinridge.core.visit.WalkFixture;

/** What a form's author is told and helped with: rules that never hold, new names, old messages. */
class FormAuthorTest {
  private static List<String> notes(FormFixture x) {
    var o = FormCompiler.compile(x.form(), FormFixture.SCHEMA);
    assertThat(o.problems()).isEmpty();
    return o.notes().stream().map(p -> p.question() + " " + English.of(p.part().said())).toList();
  }

  private static FormFixture ranged(String check) {
    return new FormFixture()
        .set("silt", "from", "0")
        .set("silt", "to", "100")
        .set("silt", "checks", "[{\"rule\":\"" + check + "\"}]");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "silt > 200",
        "silt < 0",
        "silt BETWEEN 101 AND 200",
        "silt = 150",
        "silt IN (200, 300)",
        "silt > 50 AND silt < 20",
        "NOT (silt <= 100)",
        "silt > 200 AND width > 3"
      })
  void aCheckThatNoAnswerCanMeetIsTold(String check) {
    assertThat(notes(ranged(check))).contains("silt check 1");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "silt > 99",
        "silt >= 100",
        "silt <= 0",
        "silt > 200 OR width > 3",
        "silt < width",
        "silt + 1 > 200",
        "width > 200",
        "silt > 200 OR kind = 'flap'",
        "silt NOT IN (1, 2)",
        "kind = 'mill' OR ok_never IS NULL"
      })
  void whatIsNotProvenIsNotTold(String check) {
    FormFixture x = ranged(check.contains("ok_never") ? "kind IS NULL" : check);
    assertThat(notes(x)).doesNotContain("silt check 1");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "kind = 'flap' AND kind = 'weir' | true",
        "kind IN ('flap') AND kind IN ('weir') | true",
        "kind IS NULL AND kind = 'flap' | true",
        "width > 3 AND NOT (width >= 2) | true",
        "FALSE | true",
        "kind <> 'flap' AND kind <> 'weir' | false",
        "kind = 'flap' AND note = 'x' | false",
        "width > 3 OR width < 2 | false"
      })
  void aQuestionThatIsNeverAskedIsTold(String rule, boolean told) {
    List<String> notes = notes(new FormFixture().set("silt", "askWhen", "\"" + rule + "\""));
    assertThat(notes.contains("silt ask when")).as(rule).isEqualTo(told);
  }

  @Test
  void whatDependsOnAQuestionThatIsNeverAskedIsNeverAskedEither() {
    assertThat(
            notes(
                new FormFixture()
                    .set("silt", "askWhen", "\"FALSE\"")
                    .set("width", "askWhen", "\"silt > 3\"")
                    .set("note", "askWhen", "\"silt IS NULL\"")))
        .contains("silt ask when", "width ask when")
        .doesNotContain("note ask when");
  }

  @Test
  void checksThatContradictEachOtherAreTold() {
    assertThat(
            notes(
                new FormFixture()
                    .set("silt", "checks", "[{\"rule\":\"silt > 10\"},{\"rule\":\"silt < 5\"}]")))
        .containsExactly("silt checks");
  }

  @Test
  void ruleTreesTooWideToUnfoldClaimNothing() {
    StringBuilder wide = new StringBuilder("silt > 200");
    for (int i = 0; i < 40; i++) wide.append(" AND (width = ").append(i).append(" OR note = 'a')");
    assertThat(notes(ranged(wide.toString()))).doesNotContain("silt checks");
  }

  @Test
  void codesThatQuestionAndFieldDoNotShareAreTold() {
    assertThat(
            notes(
                new FormFixture()
                    .set("kind", "codes", "[{\"code\":\"flap\"},{\"code\":\"mill\"}]")))
        .containsExactly("kind codes", "kind codes");
  }

  @Test
  void aMessageThatWasWrittenForAnEarlierRuleIsFlaggedUntilItIsWrittenAgain() {
    String before = "[{\"rule\":\"silt < 500\",\"message\":\"under half a metre\"}]";
    FormFixture x = new FormFixture().set("silt", "checks", before);
    assertThat(notes(x)).isEmpty();
    x.set("silt", "checks", before.replace("500", "300"));
    assertThat(notes(x)).containsExactly("silt check 1");
    x.set("silt", "checks", before);
    assertThat(notes(x)).as("back again").isEmpty();
    x.set("silt", "checks", before.replace("500", "300").replace("half a metre", "300 mm"));
    assertThat(notes(x)).isEmpty();
  }

  @Test
  void aNewNameIsWrittenIntoEveryRuleFilterAndMessage() {
    FormFixture x =
        new FormFixture()
            .set("width", "askWhen", "\"silt > 3 AND last.silt > before.silt\"")
            .set("note", "checks", "[{\"rule\":\"silt < 9\",\"message\":\"{silt} mm\"}]")
            .set(
                "beat",
                "prefill",
                "[{\"from\":\"place\",\"layer\":\"b\",\"field\":\"beat\",\"filter\":\"silt = answers.silt\"}]")
            .set(
                "kind",
                "codes",
                "[{\"code\":\"flap\",\"label\":\"Flap\",\"fitsWhen\":\"silt > 1\"},{\"code\":\"weir\"}]");
    Form form =
        FormEdit.apply(
            x.form(),
            Json.parse("{\"op\":\"rename\",\"question\":\"silt\",\"value\":\"depth\"}").asObject());
    String json = form.json().toString();
    assertThat(form.question("depth"))
        .get()
        .satisfies(q -> assertThat(q.writesTo()).isEqualTo("silt"));
    assertThat(json)
        .contains("depth > 3 AND last.depth > before.silt")
        .contains("depth < 9")
        .contains("{depth} mm")
        .contains("silt = answers.depth")
        .contains("\"fitsWhen\":\"depth > 1\"");
    assertThat(FormCompiler.compile(form, FormFixture.SCHEMA).problems()).isEmpty();
    for (String bad : List.of("kind", "no name", "", "place"))
      assertThatIllegalArgumentException()
          .isThrownBy(() -> FormRename.rename(x.form(), "silt", bad))
          .withMessageMatching(".+");
    for (String prefix : List.of("before", "last", "fix", "device", "visit", "answers")) {
      assertThat(FormRename.rename(x.form(), "silt", prefix).question(prefix)).isPresent();
      assertThatIllegalArgumentException()
          .isThrownBy(() -> FormRename.rename(Form.read(WalkFixture.FORM), "defects", prefix))
          .satisfies(English.says("a meaning of its own"));
    }
    assertThatIllegalArgumentException()
        .isThrownBy(() -> FormRename.rename(x.form(), "nope", "x"))
        .satisfies(English.says("nothing in this form is called ‘nope’"));
  }

  @Test
  void aListIsRenamedWithItsColumns() {
    Form form = FormRename.rename(Form.read(WalkFixture.FORM), "defects", "faults");
    form = FormRename.rename(form, "length_m", "metres");
    assertThat(form.json().toString())
        .contains("sum(faults.metres)", "max(faults.severity)", "count(faults)")
        .contains("100 * metres / sum(faults.metres)")
        .doesNotContain("defects.");
    form = FormRename.rename(form, "serious", "grave");
    assertThat(FormCompiler.compile(form, WalkFixture.SCHEMA).problems()).isEmpty();
    assertThat(form.question("report").orElseThrow().logic().askWhen()).isEqualTo("grave");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "[]",
        "{",
        "{\"sections\":3}",
        "{\"sections\":[{\"questions\":[{\"name\":7}]}]}",
        "{\"sections\":[{\"questions\":[{\"name\":\"a\",\"most\":1e99}]}]}",
        "{\"sections\":[{\"questions\":[{\"name\":\"a\",\"as\":\"wild\"}]}]}",
        "{\"sections\":[{\"questions\":[{\"name\":\"a\",\"prefill\":[{\"from\":\"nowhere\"}]}]}]}",
        "{\"sections\":[{\"questions\":[{\"name\":\"a\",\"prefill\":[{\"from\":\"place\",\"withinM\":1e9}]}]}]}",
        "{\"sections\":[{\"questions\":[{\"name\":\"a\",\"refresh\":\"often\"}]}]}",
        "{\"sections\":[{\"rows\":{\"most\":99999},\"questions\":[]}]}",
        "{\"sections\":[{\"rows\":{\"most\":1e20},\"questions\":[]}]}",
        "{\"lookUps\":{\"a\":3}}",
        "{\"rules\":{}}",
        "{\"allowed\":7}"
      })
  void aFileThatIsNoFormIsRefusedInWords(String json) {
    assertThatIllegalArgumentException()
        .isThrownBy(() -> Form.read(json))
        .withMessageMatching("(?s).{8,}");
  }

  @Test
  void hostileFormsAreBounded() {
    StringBuilder many = new StringBuilder("{\"sections\":[{\"questions\":[");
    for (int i = 0; i < 100_000; i++)
      many.append(i == 0 ? "" : ",").append("{\"name\":\"q").append(i).append("\"}");
    assertThatIllegalArgumentException()
        .isThrownBy(() -> Form.read(many.append("]}]}").toString()))
        .satisfies(English.says("at most 2,000 questions"));
    StringBuilder chain = new StringBuilder("{\"sections\":[{\"questions\":[");
    for (int i = 0; i < 2000; i++)
      chain
          .append(i == 0 ? "" : ",")
          .append("{\"name\":\"q")
          .append(i)
          .append("\",\"type\":\"whole\",\"workOut\":\"q")
          .append((i + 1) % 2000)
          .append(" + 1\"}");
    var o = FormCompiler.compile(Form.read(chain.append("]}]}").toString()), FormFixture.SCHEMA);
    assertThat(o.problems())
        .singleElement()
        .satisfies(p -> assertThat(English.of(p.message())).contains("circle"));
  }

  @Test
  void aLongChainOfFormulasIsSortedAndFilled() {
    StringBuilder chain = new StringBuilder("{\"sections\":[{\"questions\":[");
    for (int i = 0; i < 1999; i++)
      chain
          .append("{\"name\":\"q")
          .append(i)
          .append("\",\"type\":\"whole\",\"workOut\":\"q")
          .append(i + 1)
          .append(" + 1\"},");
    chain.append("{\"name\":\"q1999\",\"type\":\"whole\"}]}]}");
    ExecutableForm form =
        FormCompiler.compile(Form.read(chain.toString()), FormFixture.SCHEMA).form().orElseThrow();
    Filling f = Filling.open(form, FormFixture.start(java.util.Optional.empty()));
    f.set("q1999", org.whinridge.core.value.Value.of(1));
    assertThat(f.value("q0")).isEqualTo(org.whinridge.core.value.Value.of(2000));
  }

  @Test
  void theOldFormOfAFormFileIsStillRead() {
    JsonObject old =
        Json.parse(
                "{\"title\":\"T\",\"sections\":[{\"title\":\"S\",\"questions\":[{\"name\":\"beat\",\"label\":\"Beat\",\"type\":\"text\",\"checks\":[{\"rule\":\"beat <> 'x'\",\"message\":\"m\",\"weight\":\"soft\"}],\"prefill\":[{\"from\":\"place\",\"layer\":\"b\",\"layerName\":\"Beats\",\"field\":\"beat\"}]}]}]}")
            .asObject();
    assertThat(Form.read(old.toString()).json()).isEqualTo(old);
  }
}
