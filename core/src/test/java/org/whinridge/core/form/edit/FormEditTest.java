package org.whinridge.core.form.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.said.Unfit;

/** Edits of sections, blocks, several questions at once; and taking back whatever was done. */
class FormEditTest {
  private static final String TEXT =
      """
      # Structure
      Tag {tag}
      Kind {kind}: weir | sluice
      ## Water {water}
      Silt depth {silt} 0..500
      Level {level} 0.0..9.0
      ##
      Notes {notes}
      # Defects {defects} x..9
      What {what}: crack | leak
      # End
      Seen by {seen}: signature
      """;

  private static Form form() {
    return new Form("A visit", FormText.read(TEXT, List.of()).sections());
  }

  private static Form after(Form form, String... edits) {
    Form now = form;
    for (String e : edits) now = FormEdit.apply(now, Json.parse(e.replace('\'', '"')).asObject());
    return now;
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '\t',
      quoteCharacter = '~',
      value = {
        "{'op':'put','questions':['notes','tag'],'section':2,'before':'seen'}\tEnd: tag notes seen",
        "{'op':'put','questions':['tag'],'section':0,'before':'level'}\tStructure: kind silt tag level notes",
        "{'op':'put','questions':['silt'],'section':0,'before':''}\tStructure: tag kind level notes silt",
        "{'op':'remove','questions':['silt','what','tag']}\tStructure: kind level notes",
        "{'op':'type','text':'Width (m)','section':0,'after':'kind'}\tStructure: tag kind width silt level notes",
        "{'op':'type','text':'Width (m)\\nHeight (m)','section':2}\tEnd: seen width height",
        "{'op':'type','text':'# More\\nWidth (m)','section':0}\tMore: width",
        "{'op':'section.add','at':1,'title':'Access'}\tAccess:",
        "{'op':'section.of','questions':['silt','level'],'title':'Water'}\tWater: silt level",
        "{'op':'section.of','questions':['tag','notes'],'title':'Both'}\tBoth: tag notes",
        "{'op':'section.set','section':2,'property':'title','value':' Finish '}\tFinish: seen",
        "{'op':'section.move','section':2,'by':-1}\tEnd: seen",
        "{'op':'add','question':{'name':'gate','label':'Gate','type':'text'},'section':2,'after':''}\tEnd: seen gate",
        "{'op':'insert','questions':[{'name':'seen','label':'Again','type':'text'}],'section':2,'after':'seen'}\tEnd: seen seen_2",
      })
  void questionsStandWhereTheyWerePut(String edit, String section) {
    Form now = after(form(), edit);
    assertThat(
            now.sections().stream()
                .map(
                    s ->
                        (s.title()
                                + ": "
                                + String.join(
                                    " ", s.questions().stream().map(Question::name).toList()))
                            .strip()))
        .contains(section);
  }

  @Test
  void aDissolvedSectionLeavesItsQuestionsToTheOneBefore() {
    Form f =
        after(
            form(), "{'op':'section.remove','section':1}", "{'op':'section.dissolve','section':1}");
    assertThat(f.sections()).hasSize(1);
    assertThat(f.sections().get(0).questions().stream().map(Question::name))
        .endsWith("notes", "seen");
    Form first =
        after(
            f,
            "{'op':'section.add','at':1,'title':'Next'}",
            "{'op':'section.dissolve','section':0}");
    assertThat(first.sections().get(0).title()).isEqualTo("Next");
    assertThat(first.questions()).hasSize(6);
    assertThat(after(f, "{'op':'section.dissolve','section':0}").sections().get(0).title())
        .isEmpty();
  }

  @Test
  void aQuestionTypedInABlockStandsInIt() {
    Form now = after(form(), "{'op':'type','text':'Flow (l/s)','section':0,'after':'silt'}");
    assertThat(now.question("flow").orElseThrow().layout().block()).isEqualTo("water");
    Form out = after(now, "{'op':'block.dissolve','section':0,'block':'water'}");
    assertThat(out.question("flow").orElseThrow().layout().block()).isEmpty();
    assertThat(out.sections().get(0).blocks()).isEmpty();
    Form again = after(out, "{'op':'block.of','questions':['notes','flow'],'title':'Wet'}");
    assertThat(again.question("notes").orElseThrow().layout().block()).isEqualTo("wet");
    assertThat(again.sections().get(0).questions().stream().map(Question::name))
        .containsExactly("tag", "kind", "silt", "flow", "notes", "level");
  }

  @Test
  void aSectionThatBeginsToRepeatGetsAName() {
    Form now =
        after(form(), "{'op':'section.set','section':2,'property':'rows','value':{'most':5}}");
    assertThat(now.sections().get(2).name()).isEqualTo("end");
    assertThat(now.sections().get(2).rows().orElseThrow().most()).isEqualTo(5);
    Form back = after(now, "{'op':'section.set','section':2,'property':'rows','value':null}");
    assertThat(back.sections().get(2)).isEqualTo(form().sections().get(2));
  }

  @Test
  void copiesAskForEachOther() {
    String silt =
        "{'name':'silt','label':'Silt','type':'whole'},{'name':'deep','label':'Deep','type':'text','askWhen':'silt > 3'}";
    Form now = after(form(), "{'op':'insert','questions':[" + silt + "],'section':2,'after':''}");
    assertThat(now.question("deep").orElseThrow().logic().askWhen()).isEqualTo("silt_2 > 3");
    assertThat(now.question("silt").orElseThrow().label()).isEqualTo("Silt depth");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '\t',
      quoteCharacter = '~',
      value = {
        "{'op':'put','questions':['nobody'],'section':0}\tform.noSuchQuestion",
        "{'op':'put','questions':[],'section':0}\tform.noneChosen",
        "{'op':'put','questions':['tag'],'section':9}\tform.noSuchSection",
        "{'op':'put','questions':['tag'],'section':2,'before':'kind'}\tform.notInSection",
        "{'op':'put','questions':['tag'],'section':0,'before':'tag'}\tform.beforeItself",
        "{'op':'section.of','questions':['tag','seen'],'title':'X'}\tform.severalSections",
        "{'op':'section.of','questions':['what'],'title':'X'}\tform.notInAList",
        "{'op':'section.dissolve','section':1}\tform.listDissolved",
        "{'op':'section.dissolve','section':2}\tform.listDissolved",
        "{'op':'section.set','section':0,'property':'name','value':'x'}\tform.noProperty",
        "{'op':'block.of','questions':['tag'],'title':' '}\tform.blockNoTitle",
        "{'op':'block.set','section':0,'block':'nothing','property':'title','value':'x'}\tform.noSuchBlock",
        "{'op':'type','text':'Lining: bricks','section':0}\tline.cantBeRead",
        "{'op':'type','text':'  ','section':0}\tline.nothing",
        "{'op':'several','edits':[{'op':'title','value':'x'},{'op':'several','edits':[]}]}\tform.noSuchEdit",
        "{'op':'section.shuffle'}\tform.noSuchEdit",
        "{'op':'put','questions':'tag'}\tform.wrongMember",
        "{'op':'section.set','section':0,'property':'startsPage','value':'yes'}\tform.wrongMember",
      })
  void whatCantBeDoneIsSaid(String edit, String key) {
    assertThatThrownBy(() -> after(form(), edit))
        .isInstanceOfSatisfying(
            IllegalArgumentException.class, e -> assertThat(Unfit.said(e).key()).isEqualTo(key));
  }

  /** Seeded: random edits, then all taken back, give the same draft byte by byte; and forth. */
  @Test
  void whateverWasDoneIsTakenBackAndDoneAgain() {
    Random r = new Random(20261130);
    for (int n = 0; n < 60; n++) {
      Form begin = form();
      Form now = begin;
      List<FormDelta> done = new ArrayList<>();
      List<String> states = new ArrayList<>();
      for (int i = 0; i < 50; i++) {
        Form next;
        try {
          next = FormEdit.apply(now, any(r, now));
        } catch (IllegalArgumentException refused) {
          assertThat(Unfit.said(refused).key()).contains(".");
          continue;
        }
        done.add(FormDelta.read(FormDelta.between(now, next).text()));
        states.add(now.json().toString());
        now = next;
      }
      String end = now.json().toString();
      for (int i = done.size() - 1; i >= 0; i--) {
        now = done.get(i).undo(now);
        assertThat(now.json().toString()).isEqualTo(states.get(i));
      }
      assertThat(now.json().toString()).isEqualTo(begin.json().toString());
      for (FormDelta d : done) now = d.redo(now);
      assertThat(now.json().toString()).isEqualTo(end);
    }
  }

  private static String some(Random r, Form f) {
    List<Question> all = f.questions();
    return all.isEmpty() ? "nobody" : all.get(r.nextInt(all.size())).name();
  }

  private static JsonObject any(Random r, Form f) {
    JsonArray names = new JsonArray();
    for (int i = r.nextInt(3); i >= 0; i--) names.add(some(r, f));
    int section = r.nextInt(Math.max(1, f.sections().size()));
    JsonObject o = new JsonObject().add("section", section).add("questions", names);
    switch (r.nextInt(17)) {
      case 0:
        return o.add("op", "put").add("before", r.nextBoolean() ? "" : some(r, f));
      case 1:
        return o.add("op", "remove");
      case 2:
        return o.add("op", "type").add("text", "New " + r.nextInt(99) + ": a | b\nOther");
      case 3:
        return o.add("op", "type").add("text", "# Part\n## Block\nIn it 0..5\n--- page\nOn");
      case 4:
        return o.add("op", "section.of").add("title", "Part " + r.nextInt(5));
      case 5:
        return o.add("op", "section.dissolve");
      case 6:
        return o.add("op", "section.move").add("by", r.nextInt(3) - 1);
      case 7:
        return o.add("op", "block.of").add("title", "Block " + r.nextInt(5));
      case 8:
        return o.add("op", "set").add("property", "hint").add("value", "h" + r.nextInt(9));
      case 9:
        return o.add("op", "rename").add("question", some(r, f)).add("value", "n" + r.nextInt(50));
      case 10:
        return o.add("op", "section.set")
            .add("property", "rows")
            .add("value", Json.parse("{\"most\":3}"));
      case 11:
        return o.add("op", "title").add("value", "T" + r.nextInt(9));
      case 12:
        return new JsonObject()
            .add("op", "text")
            .add("text", FormText.of(f).replace("0..5", "1..4"));
      case 13:
        return new JsonObject()
            .add("op", "settings")
            .add("setting", "plannedMinutes")
            .add("value", r.nextInt(30));
      case 14:
        return new JsonObject()
            .add("op", "guidance")
            .add("value", Json.parse("[{\"title\":\"G\",\"text\":\"" + r.nextInt(9) + "\"}]"));
      case 15:
        return new JsonObject()
            .add("op", "translate")
            .add("language", "cy")
            .add(
                "texts",
                new JsonObject().add("question/" + some(r, f) + "/label", "L" + r.nextInt(9)));
      default:
        return o.add("op", "move").add("question", some(r, f)).add("by", r.nextInt(3) - 1);
    }
  }

  /** A step is taken back whatever others did elsewhere, and refused where they did. */
  @Test
  void whatOthersChangedSinceIsNotOverwritten() {
    Form begin = form();
    Form mine = after(begin, "{'op':'set','question':'silt','property':'hint','value':'mine'}");
    FormDelta step = FormDelta.between(begin, mine);
    Form theirs = after(mine, "{'op':'set','question':'notes','property':'hint','value':'theirs'}");
    Form undone = step.undo(theirs);
    assertThat(undone.question("silt").orElseThrow().hint()).isEmpty();
    assertThat(undone.question("notes").orElseThrow().hint()).isEqualTo("theirs");
    Form same = after(mine, "{'op':'set','question':'silt','property':'label','value':'Mud'}");
    assertThatThrownBy(() -> step.undo(same))
        .isInstanceOfSatisfying(
            IllegalArgumentException.class,
            e -> assertThat(Unfit.said(e).key()).isEqualTo("form.changedSince"));
    assertThat(FormDelta.between(begin, begin).isEmpty()).isTrue();
  }
}
