package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class FillingTest {
  private static final String LOOKUP =
      "[{\"from\":\"place\",\"layer\":\"beats\",\"layerName\":\"Beats\",\"field\":\"beat\"},{\"from\":\"asset\"}]";

  @Test
  void theFirstSourceThatGivesAValueWinsAndIsRemembered() {
    Filling f =
        new FormFixture()
            .set(
                "width",
                "prefill",
                "[{\"from\":\"asset\"},{\"from\":\"last visit\",\"mostDays\":0}]")
            .set("beat", "prefill", LOOKUP)
            .open();
    assertThat(f.value("silt")).isEqualTo(Value.of(120));
    assertThat(English.of(f.provenance("silt").said())).isEqualTo("from the asset");
    assertThat(f.value("width")).isEqualTo(Value.of(900));
    assertThat(English.of(f.provenance("width").said())).isEqualTo("from the visit of 2025-09-01");
    assertThat(f.value("beat")).isEqualTo(Value.text("West"));
    assertThat(f.provenance("beat"))
        .satisfies(
            p -> {
              assertThat(English.of(p.said())).isEqualTo("looked up in Beats");
              assertThat(p.featureId()).isEqualTo("b1");
              assertThat(p.confirmed()).isFalse();
            });
  }

  /** A tap on the prefilled answer emptied it, and the review said "flap becomes empty". */
  @Test
  void aTapNeverEmptiesAChoice() {
    Filling f = new FormFixture().open();
    assertThat(f.value("kind")).isEqualTo(Value.text("flap"));
    assertThat(f.provenance("kind").confirmed()).isFalse();
    assertThat(f.tap("kind", "", "flap")).isTrue();
    assertThat(f.provenance("kind").confirmed()).isTrue();
    assertThat(English.of(f.provenance("kind").said())).isEqualTo("from the asset");
    assertThat(f.tap("kind", "", "flap")).as("chosen already").isFalse();
    assertThat(f.value("kind")).isEqualTo(Value.text("flap"));
    assertThat(f.undo()).isTrue();
    assertThat(f.provenance("kind").confirmed()).isFalse();
    f.tap("kind", "", "weir");
    assertThat(f.value("kind")).isEqualTo(Value.text("weir"));
    assertThat(f.set("kind", Value.EMPTY)).as("taken away by an act of its own").isTrue();
    assertThat(f.value("kind").isEmpty()).isTrue();
    f.undo();
    assertThat(f.value("kind")).as("put back").isEqualTo(Value.text("weir"));
  }

  @Test
  void aLookUpFollowsThePinUntilAPersonOverrulesIt() {
    Filling f = new FormFixture().set("beat", "prefill", LOOKUP).open();
    f.moveTo(new Coordinate(1.5, 0.5));
    assertThat(f.value("beat")).isEqualTo(Value.text("East"));
    f.set("beat", Value.text("Middle"));
    f.moveTo(new Coordinate(0.5, 0.5));
    assertThat(f.value("beat")).isEqualTo(Value.text("Middle"));
  }

  @Test
  void everyOutcomeOfALookUpIsSaidInWords() {
    FormFixture x = new FormFixture().set("beat", "prefill", LOOKUP);
    Filling f = x.open();
    f.moveTo(new Coordinate(9, 9));
    assertThat(English.of(question(f, "beat").get("note")))
        .isEqualTo("no feature of Beats holds this place");
    Filling missing =
        new FormFixture().set("beat", "prefill", LOOKUP.replace("\"beats\"", "\"gone\"")).open();
    assertThat(English.of(question(missing, "beat").get("note"))).contains("did not travel");
  }

  @Test
  void aQuestionThatIsNotAskedIsEmptyForOtherRulesAndItsAnswerComesBack() {
    Filling f =
        new FormFixture()
            .set("silt", "askWhen", "\"kind = 'flap'\"")
            .add(
                "{\"name\":\"double\",\"label\":\"Double\",\"type\":\"whole\",\"workOut\":\"silt * 2\"}")
            .open();
    assertThat(f.value("double")).isEqualTo(Value.of(240));
    f.set("kind", Value.text("weir"));
    assertThat(f.isAsked("silt")).isFalse();
    assertThat(f.value("silt")).isEqualTo(Value.EMPTY);
    assertThat(f.value("double")).isEqualTo(Value.EMPTY);
    assertThat(f.forLayer()).containsOnlyKeys("kind"); // the layer's silt is left
    f.set("kind", Value.text("flap"));
    assertThat(f.value("silt")).isEqualTo(Value.of(120));
  }

  @Test
  void emptiedWhenNotAskedEmptiesTheLayersValue() {
    Filling f =
        new FormFixture()
            .set("silt", "askWhen", "\"kind = 'flap'\"")
            .set("silt", "notAsked", "\"emptied\"")
            .open();
    f.set("kind", Value.text("weir"));
    assertThat(f.forLayer()).containsEntry("silt", Value.EMPTY);
  }

  @Test
  void aQuestionThatNobodyTouchedNeverEmptiesTheLayer() {
    FormFixture x = new FormFixture().set("note", "prefill", "[]");
    assertThat(x.open().forLayer()).isEmpty();
    Filling f = new FormFixture().open();
    f.set("note", Value.EMPTY);
    assertThat(f.forLayer()).containsEntry("note", Value.EMPTY);
    Filling later =
        Filling.resume(
            new FormFixture().compiled(),
            FormFixture.start(Optional.of(FormFixture.feature())),
            Json.parse(f.saved().toString()).asObject());
    assertThat(later.forLayer())
        .as("taken away by a person, also after closing")
        .containsEntry("note", Value.EMPTY);
  }

  @Test
  void firmChecksHoldBackSoftOnesAskAndAskAgainForOtherAnswers() {
    Filling f =
        new FormFixture()
            .set(
                "silt",
                "checks",
                "[{\"rule\":\"silt <= 500\",\"message\":\"{silt} mm of {kind}\",\"weight\":\"firm\"},{\"rule\":\"silt < 200\",\"message\":\"\",\"weight\":\"soft\"}]")
            .open();
    f.set("silt", Value.of(700));
    assertThat(f.points())
        .extracting(OpenPoint::kind)
        .contains(OpenPoint.Kind.FIRM, OpenPoint.Kind.SOFT);
    assertThat(English.of(f.points().get(0).message())).isEqualTo("700 mm of Tide flap");
    assertThat(f.isComplete()).isFalse();
    f.set("silt", Value.of(300));
    OpenPoint soft =
        f.points().stream().filter(p -> p.kind() == OpenPoint.Kind.SOFT).findFirst().orElseThrow();
    assertThat(English.of(soft.message()))
        .isEqualTo("it should hold that silt depth is under 200 mm");
    assertThat(f.confirmSoft(soft.key())).isTrue();
    assertThat(f.isComplete()).isTrue();
    f.set("silt", Value.of(310));
    assertThat(f.isComplete()).isFalse();
  }

  /** A pin that is moved far away is another place than the one that was confirmed. */
  @Test
  void aConfirmedPlaceIsConfirmedOnlyThere() {
    Filling f =
        new FormFixture()
            .set(
                "silt",
                "checks",
                "[{\"rule\":\"distance_m(place, POINT(0.5 0.5)) < 10\",\"message\":\"far\",\"weight\":\"soft\"}]")
            .open();
    f.moveTo(new org.locationtech.jts.geom.Coordinate(0.6, 0.6));
    OpenPoint far = soft(f);
    assertThat(f.confirmSoft(far.key())).isTrue();
    assertThat(f.isComplete()).isTrue();
    f.moveTo(new org.locationtech.jts.geom.Coordinate(3, 3));
    assertThat(f.isComplete()).isFalse();
    assertThat(soft(f).key()).isNotEqualTo(far.key());
  }

  /** Two pairs of answers that read alike when they are glued together. */
  @Test
  void confirmationsOfAnswersThatReadAlikeAreTwo() {
    Filling f =
        new FormFixture()
            .set(
                "note",
                "checks",
                "[{\"rule\":\"note = beat\",\"message\":\"\",\"weight\":\"soft\"}]")
            .open();
    f.set("note", Value.text("1:2"));
    f.set("beat", Value.text("3"));
    assertThat(f.confirmSoft(soft(f).key())).isTrue();
    f.set("note", Value.text("1"));
    f.set("beat", Value.text("2:3"));
    assertThat(f.points()).extracting(OpenPoint::kind).contains(OpenPoint.Kind.SOFT);
  }

  private static OpenPoint soft(Filling f) {
    return f.points().stream()
        .filter(p -> p.kind() == OpenPoint.Kind.SOFT)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void aCheckThatReadsALaterQuestionIsLookedAtAgainWhenThatChanges() {
    Filling f =
        new FormFixture()
            .set(
                "silt",
                "checks",
                "[{\"rule\":\"silt <= width\",\"message\":\"\",\"weight\":\"firm\"}]")
            .open();
    assertThat(f.isComplete()).isTrue(); // no width yet: unknown holds
    f.set("width", Value.of(100));
    assertThat(f.isComplete()).isFalse();
    f.set("width", Value.of(600));
    assertThat(f.isComplete()).isTrue();
  }

  @Test
  void whatIsNeededHoldsBackAndWhatIsWantedIsOnlyTold() {
    Filling f =
        new FormFixture()
            .set("kind", "need", "\"needed\"")
            .set("note", "need", "\"wanted\"")
            .open();
    f.set("kind", Value.EMPTY);
    f.set("note", Value.EMPTY);
    assertThat(f.points())
        .extracting(p -> p.question() + " " + p.kind().id())
        .containsExactly("kind needed", "note wanted", "photo wanted");
    f.set("kind", Value.text("weir"));
    assertThat(f.isComplete()).isTrue();
  }

  @Test
  void lockedOnRevisitIsOpenForANewFeature() {
    FormFixture x = new FormFixture();
    assertThat(x.open().set("tag", Value.text("OS-2"))).isFalse();
    Filling fresh = Filling.open(x.compiled(), FormFixture.start(Optional.empty()));
    assertThat(fresh.set("tag", Value.text("OS-2"))).isTrue();
    assertThat(fresh.forLayer()).containsEntry("tag", Value.text("OS-2"));
  }

  @Test
  void aVisitGoesOnWhereItWasLeftWithoutLookingUpAgain() {
    FormFixture x = new FormFixture().set("beat", "prefill", LOOKUP);
    Filling f = x.open();
    f.set("silt", Value.of(130));
    f.confirm("kind");
    f.moveTo(new Coordinate(1.5, 0.5));
    JsonObject saved = Json.parse(f.saved().toString()).asObject();
    VisitStart s = FormFixture.start(Optional.of(FormFixture.feature()));
    VisitStart withoutLayers = s.with(java.util.Map.of());
    Filling again = Filling.resume(x.compiled(), withoutLayers, saved);
    assertThat(again.saved()).isEqualTo(saved);
    assertThat(again.result()).isEqualTo(Json.parse(f.result().toString()));
    assertThat(again.value("beat")).isEqualTo(Value.text("East"));
    assertThat(again.provenance("kind").confirmed()).isTrue();
  }

  @Test
  void theResultHasOnlyWhatChangedTheBaseAndTheMovedPlace() {
    Filling f = new FormFixture().open();
    f.set("silt", Value.of(130.4));
    f.set("photo", Value.many(List.of(Value.text("p1"))));
    f.moveTo(new Coordinate(0.51, 0.5));
    JsonObject r = f.result();
    assertThat(r.get("base").asObject().getLong("version", 0)).isEqualTo(3);
    assertThat(r.get("set")).hasToString("{\"silt\":130.4}");
    assertThat(r.get("kept")).hasToString("{\"photo\":[\"p1\"]}");
    assertThat(r.get("geometry")).hasToString("{\"type\":\"Point\",\"coordinates\":[0.51,0.5]}");
    assertThat(f.points())
        .extracting(x -> English.of(x.message()))
        .contains("130.4 is not a whole number");
  }

  @Test
  void oldCodesAskWhetherTheyStayAndOtherKindsOfValueHoldBack() {
    Filling f = new FormFixture().open();
    f.set("kind", Value.text("Brcik"));
    assertThat(f.points())
        .first()
        .satisfies(
            p -> assertThat(English.of(p.message())).startsWith("‘Brcik’ is not in the list"));
    f.set("silt", Value.text("deep"));
    assertThat(f.points())
        .extracting(x -> English.of(x.message()))
        .contains("‘deep’ is not a number");
  }

  @Test
  void allTheSameConfirmsWhatIsAskedAndOpen() {
    Filling f = new FormFixture().open();
    int open = f.view().get("sections").asArray().get(0).asObject().getInt("toConfirm", -1);
    assertThat(open).as("kind, silt and note; the tag is locked on a revisit").isEqualTo(3);
    assertThat(f.confirmSection(0)).as("as many as the sheet says").isEqualTo(open);
    assertThat(f.confirmSection(0)).isZero();
    assertThat(f.provenance("silt").confirmed()).isTrue();
  }

  @Test
  void theDayIsTheDevicesDayWhenTheVisitBegan() {
    Filling f =
        new FormFixture()
            .add(
                "{\"name\":\"day_of\",\"label\":\"Day\",\"type\":\"date\",\"workOut\":\"today()\"}")
            .open();
    assertThat(f.value("day_of").plain()).isEqualTo("2026-05-05"); // 23:30 UTC at UTC+1
  }

  private static JsonObject question(Filling f, String name) {
    for (var s : f.view().get("sections").asArray())
      for (var q : s.asObject().get("questions").asArray())
        if (q.asObject().getString("name", "").equals(name)) return q.asObject();
    throw new AssertionError("no question " + name);
  }
}
