package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/** What each kind of question takes, undo, the office part, languages, sources that follow. */
class FillingRulesTest {
  /** Type and limits, an answer, and the point it gets; "" for none. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "`\"type\":\"whole\",\"from\":0,\"to\":500,\"unit\":\"mm\"` | 501 | from 0 to 500 mm",
        "`\"type\":\"whole\",\"from\":0,\"to\":500` | 500 | ``",
        "`\"type\":\"decimal\",\"from\":0` | -0.1 | at least 0",
        "`\"type\":\"decimal\",\"to\":1` | 2 | at most 1",
        "`\"type\":\"decimal\",\"step\":0.25` | 0.3 | in steps of 0.25; this is 0.3",
        "`\"type\":\"decimal\",\"step\":0.1` | 0.7 | ``",
        "`\"type\":\"counter\"` | -1 | this can't be less than 0",
        "`\"type\":\"counter\"` | 1.5 | 1.5 is not a whole number",
        "`\"type\":\"duration\"` | 90 | ``",
        "`\"type\":\"text\",\"least\":3` | `\"ab\"` | at least 3 characters; this has 2",
        "`\"type\":\"text\",\"most\":3` | `\"abcd\"` | at most 3 characters; this has 4",
        "`\"type\":\"time\"` | `\"24:00\"` | ‘24:00’ is no time of day, such as 09:30",
        "`\"type\":\"time\"` | `\"09:30\"` | ``",
        "`\"type\":\"date\"` | `\"2026-02-30\"` | ‘2026-02-30’ is not a date",
        "`\"type\":\"choices\",\"least\":2,\"codes\":[{\"code\":\"a\"},{\"code\":\"b\"}]` | `[\"a\"]` | at least 2 answers",
        "`\"type\":\"ranked\",\"most\":1,\"codes\":[{\"code\":\"a\"},{\"code\":\"b\"}]` | `[\"b\",\"a\"]` | at most 1 answer",
        "`\"type\":\"grade\",\"codes\":[{\"code\":\"1\"},{\"code\":\"2\"}]` | `\"3\"` | ‘3’ is not in the list; choose one, or confirm that it stays",
        "`\"type\":\"choices\",\"codes\":[{\"code\":\"a\"},{\"code\":\"no\",\"label\":\"None\",\"alone\":true}]` | `[\"a\",\"no\"]` | ‘None’ can't be chosen together with others",
        "`\"type\":\"photo\",\"least\":1` | null | at least 1 photo",
        "`\"type\":\"sound\",\"most\":1` | `[\"x\",\"y\"]` | at most 1 sound note",
        "`\"type\":\"line\"` | `{\"type\":\"Point\",\"coordinates\":[1,2]}` | this needs a line",
        "`\"type\":\"point\"` | `{\"type\":\"Point\",\"coordinates\":[1,2]}` | ``",
        "`\"type\":\"area\"` | `{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,1],[1,0],[0,1],[0,0]]]}` | the drawing crosses itself; draw it again, or keep it",
        "`\"type\":\"yes_no\"` | `\"perhaps\"` | ‘perhaps’ is not yes or no"
      })
  void anAnswerIsHeldToItsQuestionsLimits(String type, String answer, String message) {
    FormFixture x = new FormFixture().add("{\"name\":\"q\",\"label\":\"Q\"," + type + "}");
    Filling f = x.open();
    ValueType t =
        f.view().isEmpty() ? null : x.form().question("q").orElseThrow().type().valueType();
    f.set("q", ValueJson.read(Json.parse(answer), t));
    List<String> messages =
        f.points().stream()
            .filter(p -> p.question().equals("q"))
            .map(p -> English.of(p.message()))
            .toList();
    if (message.isEmpty()) assertThat(messages).isEmpty();
    else assertThat(messages).containsExactly(message);
  }

  @Test
  void aCodeThatNoLongerFitsIsAProblemAndStays() {
    Filling f = Filling.open(WalkFixture.compiled(), WalkFixture.start());
    f.set("kind", Value.text("drain"));
    f.set("wet", Value.YES);
    f.set("lining", Value.many(List.of(Value.text("boards"))));
    assertThat(WalkFixture.open(f)).doesNotContain("lining firm");
    f.set("wet", Value.NO);
    assertThat(f.value("lining"))
        .as("nothing is dropped")
        .isEqualTo(Value.many(List.of(Value.text("boards"))));
    assertThat(f.points().stream().filter(p -> p.question().equals("lining")).findFirst())
        .get()
        .satisfies(
            p ->
                assertThat(English.of(p.message()))
                    .isEqualTo("‘Boards’ does not fit here: it is offered when wet is yes"));
    JsonObject bank = f.view().get("sections").asArray().get(0).asObject();
    assertThat(WalkFixture.named(bank.get("questions"), "name", "lining").get("codes").asArray())
        .extracting(c -> c.asObject().getString("code", ""))
        .as("shown since it stands")
        .containsExactly("brick", "clay", "boards", "none");
    f.set("lining", Value.EMPTY);
    bank = f.view().get("sections").asArray().get(0).asObject();
    assertThat(WalkFixture.named(bank.get("questions"), "name", "lining").get("codes").asArray())
        .hasSize(3);
  }

  @Test
  void everyStepCanBeTakenBack() {
    FormFixture x = new FormFixture().set("silt", "askWhen", "\"kind = 'flap'\"");
    Filling f = x.open();
    JsonObject first = f.saved();
    String sheet = f.viewText();
    f.set("silt", Value.of(7));
    f.set("kind", Value.text("weir"));
    f.confirm("note");
    f.confirmSection(0);
    f.moveTo(new Coordinate(1.2, 0.5));
    f.set("note", Value.EMPTY);
    for (int i = 0; i < 6; i++) assertThat(f.undo()).isTrue();
    assertThat(f.saved()).isEqualTo(first);
    assertThat(f.viewText()).isEqualTo(sheet);
    assertThat(f.undo()).isFalse();
  }

  @Test
  void theOfficePartIsAnsweredInASecondTurnOverTheSameVisit() {
    ExecutableForm form = WalkFixture.compiled();
    Filling outdoors = Filling.open(form, WalkFixture.start());
    assertThat(outdoors.isAsked("cost")).isFalse();
    assertThat(outdoors.forLayer()).doesNotContainKey("cost");
    JsonObject saved = WalkFixture.again(outdoors.saved());
    Filling desk = Filling.resume(form, WalkFixture.start().atTheDesk(), saved);
    assertThat(desk.isAsked("cost")).isTrue();
    assertThat(desk.value("cost")).as("prefilled from the asset").isEqualTo(Value.text("CC-1"));
    desk.set("cost", Value.text("CC-2"));
    assertThat(desk.forLayer()).containsEntry("cost", Value.text("CC-2"));
  }

  @Test
  void aFormIsReadInAnotherLanguageAndFallsBackToItsOwn() {
    Form form = Form.read(WalkFixture.FORM);
    assertThat(form.languages()).containsExactly("cy");
    Filling f = Filling.open(WalkFixture.compiled(form.in("cy")), WalkFixture.start());
    JsonObject view = f.view();
    assertThat(view.getString("title", "")).isEqualTo("Taith y clawdd");
    JsonObject kind =
        WalkFixture.named(
            view.get("sections").asArray().get(0).asObject().get("questions"), "name", "kind");
    assertThat(kind.getString("label", "")).isEqualTo("Math");
    assertThat(English.of(kind.get("shown"))).isEqualTo("Clawdd");
    assertThat(kind.get("codes").asArray().get(1).asObject().getString("label", ""))
        .as("not translated")
        .isEqualTo("Drain");
    assertThat(Form.read(form.json().toString())).isEqualTo(form);
  }

  @Test
  void aSourceThatFollowsIsOverruledByAPersonAndOffersTheNewOne() {
    FormFixture x =
        new FormFixture()
            .set("width", "prefill", "[{\"from\":\"worked out\",\"formula\":\"silt * 10\"}]")
            .set("width", "refresh", "\"follow\"");
    Filling f = x.open();
    assertThat(f.value("width")).isEqualTo(Value.of(1200));
    assertThat(English.of(f.provenance("width").said())).isEqualTo("worked out at the start");
    f.set("silt", Value.of(50));
    assertThat(f.value("width")).isEqualTo(Value.of(500));
    f.set("width", Value.of(444));
    f.set("silt", Value.of(60));
    assertThat(f.value("width")).as("a person's answer stays").isEqualTo(Value.of(444));
    JsonObject q =
        WalkFixture.named(
            f.view().get("sections").asArray().get(0).asObject().get("questions"), "name", "width");
    assertThat(English.of(q.get("offer").asObject().get("shown"))).isEqualTo("600 mm");
    assertThat(f.takeOffer("width", "")).isTrue();
    assertThat(f.value("width")).isEqualTo(Value.of(600));
    assertThat(f.takeOffer("width", "")).isFalse();
    f.set("silt", Value.of(1));
    assertThat(f.value("width")).as("follows again").isEqualTo(Value.of(10));
  }

  @Test
  void onceStaysAndAlwaysIsNeverChangedByHand() {
    String chain = "[{\"from\":\"worked out\",\"formula\":\"silt * 10\"}]";
    Filling once = new FormFixture().set("width", "prefill", chain).open();
    once.set("silt", Value.of(1));
    assertThat(once.value("width")).isEqualTo(Value.of(1200));
    Filling always =
        new FormFixture()
            .set("width", "prefill", chain)
            .set("width", "refresh", "\"always\"")
            .open();
    assertThat(always.set("width", Value.of(3))).isFalse();
    always.set("silt", Value.of(1));
    assertThat(always.value("width")).isEqualTo(Value.of(10));
  }

  @Test
  void aUniqueAnswerThatAnotherFeatureHasHoldsBack() {
    FormFixture x = new FormFixture().set("tag", "lockOnRevisit", "false");
    VisitStart start =
        FormFixture.start(Optional.of(FormFixture.feature()))
            .with((field, v, self) -> v.plain().equals("OS-2") && self.equals("f1"));
    Filling f = Filling.open(x.compiled(), start);
    assertThat(f.isComplete()).isTrue();
    f.set("tag", Value.text("OS-2"));
    assertThat(English.of(f.points().get(0).message()))
        .contains("another feature already has ‘OS-2’");
  }

  /**
   * Not only a division by zero: what leads beyond the calendar, or shapes that can't be judged.
   */
  @Test
  void aFormulaThatGivesNothingIsTold() {
    Filling f =
        new FormFixture()
            .add(
                "{\"name\":\"due\",\"label\":\"Due\",\"type\":\"date\",\"workOut\":\"add_days(DATE('9999-12-31'), silt)\"}")
            .open();
    assertThat(f.value("due")).isEqualTo(Value.EMPTY);
    assertThat(f.points())
        .filteredOn(p -> p.question().equals("due"))
        .extracting(x -> English.of(x.message()))
        .containsExactly("the formula gives nothing that can be kept, such as a division by zero");
  }

  @Test
  void thePositionMustLieInTheAllowedArea() {
    Form form =
        Form.read(
            new FormFixture()
                .form()
                .json()
                .set(
                    "allowed",
                    Json.parse("{\"layer\":\"beats\",\"layerName\":\"Beats\",\"weight\":\"soft\"}"))
                .toString());
    ExecutableForm compiled = FormCompiler.compile(form, FormFixture.SCHEMA).form().orElseThrow();
    Filling f = Filling.open(compiled, FormFixture.start(Optional.of(FormFixture.feature())));
    assertThat(f.isComplete()).isTrue();
    f.moveTo(new Coordinate(5, 5));
    OpenPoint p = f.points().get(f.points().size() - 1);
    assertThat(English.of(p.message())).isEqualTo("the place lies outside Beats");
    assertThat(f.confirmSoft(p.key())).isTrue();
    assertThat(f.isComplete()).isTrue();
    f.moveTo(new Coordinate(6, 6));
    assertThat(f.isComplete()).as("another place is asked about again").isFalse();
  }

  @Test
  void aDivisionByZeroIsASoftPointAndAnEmptyValue() {
    Filling f =
        new FormFixture()
            .add(
                "{\"name\":\"r\",\"label\":\"R\",\"type\":\"decimal\",\"workOut\":\"silt / width\"}")
            .open();
    assertThat(f.points()).as("no width is no fault").noneMatch(p -> p.question().equals("r"));
    f.set("width", Value.of(0));
    assertThat(f.value("r")).isEqualTo(Value.EMPTY);
    assertThat(f.points())
        .filteredOn(p -> p.question().equals("r"))
        .extracting(OpenPoint::kind)
        .containsExactly(OpenPoint.Kind.SOFT);
  }

  @Test
  void theVisitsPlaceMayBeDrawnAsALine() {
    Filling f = Filling.open(WalkFixture.compiled(), WalkFixture.start());
    f.reshape(
        GeometryJson.parse("{\"type\":\"LineString\",\"coordinates\":[[0,0],[0.01,0]]}")
            .orElseThrow());
    assertThat(f.result().get("geometry").asObject().getString("type", "")).isEqualTo("LineString");
    Filling again =
        Filling.resume(WalkFixture.compiled(), WalkFixture.start(), WalkFixture.again(f.saved()));
    assertThat(again.result().get("geometry")).isEqualTo(f.result().get("geometry"));
  }
}
