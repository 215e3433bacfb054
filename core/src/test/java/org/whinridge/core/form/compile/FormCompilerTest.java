package org.whinridge.core.form.compile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import com.eclipsesource.json.Json;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.Start;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.visit.FormFixture;

class FormCompilerTest {
  @Test
  void aFormFromALayerAsksEveryFieldThatTravelsAndPublishesAsItIs() {
    FormFixture x = new FormFixture();
    assertThat(x.form().questions())
        .extracting(Question::name)
        .containsExactly("tag", "kind", "silt", "width", "beat", "note", "photo");
    assertThat(x.problems()).isEmpty();
    assertThat(x.form().question("tag"))
        .get()
        .satisfies(
            q -> {
              assertThat(q.need()).isEqualTo(Question.Need.NEEDED);
              assertThat(q.hand().lockOnRevisit()).isTrue();
            });
  }

  @Test
  void circlesAreReportedWithTheirPath() {
    assertThat(
            new FormFixture()
                .set("silt", "workOut", "\"width + 1\"")
                .set("width", "askWhen", "\"silt > 3\"")
                .problems())
        .singleElement()
        .satisfies(
            p -> assertThat(English.of(p.message())).contains("silt, then width, then silt"));
    assertThat(new FormFixture().set("silt", "askWhen", "\"silt > 3\"").problems())
        .singleElement()
        .satisfies(p -> assertThat(English.of(p.message())).contains("silt, then silt"));
  }

  @Test
  void everyPartIsNamedInItsProblem() {
    List<FormProblem> all =
        new FormFixture()
            .set("silt", "askWhen", "\"kind = 'flop'\"")
            .set("width", "checks", "[{\"rule\":\"widht > 1\"}]")
            .set("note", "workOut", "\"silt + 1\"")
            .set("beat", "prefill", "[{\"from\":\"place\",\"layer\":\"\",\"field\":\"\"}]")
            .problems();
    assertThat(all)
        .extracting(p -> p.question() + " · " + English.of(p.part().said()))
        .containsExactly(
            "silt · ask when", "width · check 1", "beat · place look-up", "note · work out");
    assertThat(all.get(1).rule()).get().satisfies(r -> assertThat(r.fix()).isEqualTo("width"));
  }

  @Test
  void whatTheFieldCannotHoldIsRefused() {
    assertThat(new FormFixture().set("silt", "type", "\"text\"").problems())
        .extracting(FormProblem::reason)
        .containsExactly(FormProblem.Reason.FIELD_OF_OTHER_TYPE);
    assertThat(new FormFixture().set("silt", "type", "\"decimal\"").problems())
        .extracting(FormProblem::reason)
        .containsExactly(FormProblem.Reason.FIELD_OF_OTHER_TYPE);
    assertThat(new FormFixture().set("note", "type", "\"long_text\"").problems()).isEmpty();
    assertThat(new FormFixture().set("note", "type", "\"choice\"").problems())
        .extracting(FormProblem::reason)
        .containsExactly(FormProblem.Reason.NO_CODES);
  }

  @Test
  void rulesOutdoorsMayNotNameWhatStaysInTheOffice() {
    FormFixture x =
        new FormFixture()
            .add("{\"name\":\"cost\",\"label\":\"Cost\",\"type\":\"text\",\"officeOnly\":true}")
            .set("silt", "askWhen", "\"cost = 'a'\"");
    assertThat(x.problems())
        .singleElement()
        .satisfies(p -> assertThat(English.of(p.message())).contains("office only"));
    assertThat(new FormFixture().set("silt", "askWhen", "\"before.cost = 'a'\"").problems())
        .singleElement()
        .satisfies(p -> assertThat(English.of(p.message())).contains("does not travel"));
    assertThat(
            new FormFixture()
                .set("kind", "officeOnly", "true")
                .set("kind", "need", "\"needed\"")
                .problems())
        .extracting(FormProblem::reason)
        .contains(FormProblem.Reason.OFFICE_ONLY_NEEDED);
  }

  @Test
  void formsComeBackFromTheirJson() {
    FormFixture x =
        new FormFixture()
            .set(
                "silt", "checks", "[{\"rule\":\"silt < 3\",\"message\":\"m\",\"weight\":\"soft\"}]")
            .set(
                "beat",
                "prefill",
                "[{\"from\":\"device\",\"item\":\"person\"},{\"from\":\"fixed\",\"value\":\"x\"},{\"from\":\"last visit\",\"mostDays\":30}]")
            .set("kind", "hint", "\"Look twice\"");
    assertThat(Form.read(x.form().json().toString())).isEqualTo(x.form());
  }

  @Test
  void editsThatMakeNoSenseChangeNothingAndSayWhy() {
    Form f = new FormFixture().form();
    for (String bad :
        List.of(
            "{}",
            "{\"op\":\"set\",\"question\":\"nope\",\"property\":\"label\",\"value\":\"x\"}",
            "{\"op\":\"set\",\"question\":\"silt\",\"property\":\"name\",\"value\":\"x\"}",
            "{\"op\":\"set\",\"question\":\"silt\",\"property\":\"label\",\"value\":\" \"}",
            "{\"op\":\"set\",\"question\":\"silt\",\"property\":\"type\",\"value\":\"ruler\"}",
            "{\"op\":\"set\",\"question\":\"silt\",\"property\":\"decimals\",\"value\":99}",
            "{\"op\":\"set\",\"question\":\"silt\",\"property\":\"checks\",\"value\":[1]}",
            "{\"op\":\"set\",\"question\":\"silt\",\"property\":\"label\"}",
            "{\"op\":\"add\",\"question\":{\"name\":\"silt\"}}",
            "{\"op\":\"add\",\"question\":{\"name\":\"no spaces\"}}",
            "{\"op\":\"add\"}",
            "{\"op\":\"move\",\"question\":\"nope\",\"by\":1}",
            "{\"op\":\"title\",\"value\":\"\"}"))
      assertThatIllegalArgumentException()
          .as(bad)
          .isThrownBy(() -> FormEdit.apply(f, Json.parse(bad).asObject()))
          .withMessageMatching(".+");
  }

  @Test
  void movingStopsAtTheEndsAndCrossesSections() {
    Form f = new FormFixture().form();
    Form up =
        FormEdit.apply(
            f, Json.parse("{\"op\":\"move\",\"question\":\"tag\",\"by\":-1}").asObject());
    assertThat(up).isEqualTo(f);
    Form crossed =
        FormEdit.apply(
            f, Json.parse("{\"op\":\"move\",\"question\":\"photo\",\"by\":-1}").asObject());
    assertThat(crossed.sections().get(0).questions())
        .last()
        .extracting(Question::name)
        .isEqualTo("photo");
  }

  /** A name in a message that nothing has is told; what is no name in brackets is text. */
  @Test
  void aMessageWithANameThatNothingHasIsWorthKnowing() {
    String form =
        "{\"sections\":[{\"title\":\"A\",\"questions\":[{\"name\":\"q\",\"label\":\"Q\",\"type\":\"whole\","
            + "\"checks\":[{\"rule\":\"q > 1\",\"message\":\"{q} of {w}, {last.q}, {before.w}, { } {1}\"}]}]}]}";
    Schema table = new Schema(GeometryKind.TABLE, List.of(), "", List.of());
    FormCompiler.Outcome o = FormCompiler.compile(Form.read(form), table);
    assertThat(o.form()).as("it keeps nothing back").isPresent();
    assertThat(o.notes())
        .extracting(n -> n.reason() + " " + n.arguments())
        .containsExactly("MESSAGE_NAME_UNKNOWN [w]", "MESSAGE_NAME_UNKNOWN [before.w]");
  }

  @Test
  void aFieldThatFillsItselfGivesAReadOnlyQuestion() {
    Field east =
        Field.of("east", "Easting", FieldType.DECIMAL)
            .readOnlyWith(new Start.Formula("easting(place)"));
    Schema schema = new Schema(GeometryKind.POINT, List.of(east), "", List.of());
    Form form = Form.fromLayer("T", "T", schema);
    assertThat(form.question("east").orElseThrow().hand().readOnly()).isTrue();
    assertThat(FormCompiler.compile(form, schema).notes()).isEmpty();
    Form byHand =
        Form.read(
            "{\"sections\":[{\"title\":\"A\",\"questions\":[{\"name\":\"e\",\"label\":\"E\",\"type\":\"decimal\",\"writesTo\":\"east\"}]}]}");
    assertThat(FormCompiler.compile(byHand, schema).notes())
        .extracting(x -> English.of(x.message()))
        .singleElement()
        .asString()
        .contains("fills itself", "make the question read only");
  }

  /** What a layer is called never stands for another argument. */
  @Test
  void argumentsAreSaidAsTheyAre() {
    FormProblem p =
        FormProblem.of(
            "q", FormPart.Kind.LOOK_UP, FormProblem.Reason.LOOK_UP_FIELD_UNKNOWN, "{1} {0}", "w");
    assertThat(English.of(p.message())).isEqualTo("{1} {0} has no field ‘w’");
  }
}
