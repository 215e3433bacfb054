package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.Value;

/** Look-ups that follow the pin, and what of them outlasts a pause and a step back. */
class PlaceFollowsTest {
  private static final String BEAT =
      "{\"from\":\"place\",\"layer\":\"beats\",\"layerName\":\"Beats\",\"field\":\"beat\"}";
  private static final Coordinate WEST = new Coordinate(0.5, 0.5);
  private static final Coordinate EAST = new Coordinate(1.5, 0.5);
  private static final Coordinate NOWHERE = new Coordinate(9, 9);

  private static VisitStart start(Coordinate place) {
    return FormFixture.start(
        Optional.of(
            new Feature(
                "f1",
                Optional.of(GeometryJson.WGS84.createPoint(place)),
                Map.of("silt", Value.of(1)),
                1)));
  }

  private static Filling at(Coordinate place, String chain) {
    return Filling.open(new FormFixture().set("note", "prefill", chain).compiled(), start(place));
  }

  @Test
  void whatFoundNothingOnceLooksAgainWhenThePinMoves() {
    Filling f = at(NOWHERE, "[" + BEAT + "]");
    assertThat(f.value("note")).isEqualTo(Value.EMPTY);
    f.moveTo(EAST);
    assertThat(f.value("note")).isEqualTo(Value.text("East"));
    f.moveTo(NOWHERE);
    assertThat(f.value("note")).isEqualTo(Value.EMPTY);
    f.moveTo(WEST);
    assertThat(f.value("note")).isEqualTo(Value.text("West"));
  }

  @Test
  void alsoWhenALaterSourceHadAnsweredInItsPlace() {
    Filling f = at(NOWHERE, "[" + BEAT + ",{\"from\":\"fixed\",\"value\":\"none\"}]");
    assertThat(f.value("note")).isEqualTo(Value.text("none"));
    f.moveTo(EAST);
    assertThat(f.value("note")).isEqualTo(Value.text("East"));
    f.moveTo(NOWHERE);
    assertThat(f.value("note")).isEqualTo(Value.text("none"));
  }

  @Test
  void anEarlierSourceThatAnsweredStays() {
    Filling f = at(WEST, "[{\"from\":\"fixed\",\"value\":\"set\"}," + BEAT + "]");
    f.moveTo(EAST);
    assertThat(f.value("note")).isEqualTo(Value.text("set"));
  }

  @Test
  void aChainageIsRoundedToTheQuestionThatTakesIt() {
    Feature line =
        new Feature(
            "l",
            GeometryJson.parse("{\"type\":\"LineString\",\"coordinates\":[[0,0.5],[1,0.5]]}"),
            Map.of(),
            1);
    Filling f =
        Filling.open(
            new FormFixture()
                .set(
                    "width",
                    "prefill",
                    "[{\"from\":\"place\",\"layer\":\"lines\",\"layerName\":\"Lines\",\"how\":\"along\",\"withinM\":500,\"take\":\"chainage\"}]")
                .compiled(),
            FormFixture.start(Optional.of(FormFixture.feature()))
                .with(Map.of("lines", new PlaceIndex(List.of(line)))));
    Value chainage = f.value("width");
    assertThat(chainage).isEqualTo(Value.of(55658));
    assertThat(f.points()).noneMatch(p -> p.question().equals("width"));
  }

  @Test
  void resumingKeepsOffersAndNotes() {
    Filling f = at(WEST, "[" + BEAT + "]");
    f.set("note", Value.text("my own"));
    f.moveTo(EAST);
    String before = f.viewText();
    assertThat(before).contains("\"offer\":{\"shown\":\"East\"");
    Filling back =
        Filling.resume(
            new FormFixture().set("note", "prefill", "[" + BEAT + "]").compiled(),
            start(WEST),
            Json.parse(f.saved().toString()).asObject());
    assertThat(Json.parse(back.viewText()).asObject().get("sections"))
        .isEqualTo(Json.parse(before).asObject().get("sections"));
    assertThat(back.takeOffer("note", "")).isTrue();
    assertThat(back.value("note")).isEqualTo(Value.text("East"));

    Filling nothing = at(NOWHERE, "[" + BEAT + "]");
    assertThat(nothing.viewText()).contains("prefill.noneHolds");
    Filling again =
        Filling.resume(
            new FormFixture().set("note", "prefill", "[" + BEAT + "]").compiled(),
            start(NOWHERE),
            Json.parse(nothing.saved().toString()).asObject());
    assertThat(again.viewText()).contains("prefill.noneHolds");
  }

  @Test
  void aStepBackGivesOriginAndConfirmationBackOfWhatFollowedToo() {
    String filtered =
        "[{\"from\":\"place\",\"layer\":\"beats\",\"layerName\":\"Beats\",\"field\":\"beat\",\"how\":\"nearest\",\"withinM\":50000}]";
    FormFixture form =
        new FormFixture()
            .set(
                "note",
                "prefill",
                "[{\"from\":\"worked out\",\"formula\":\"concat(silt, ' mm')\"}]")
            .set("note", "refresh", "\"follow\"")
            .set("beat", "prefill", filtered);
    Filling f = form.open();
    assertThat(f.confirm("note")).isTrue();
    Provenance was = f.provenance("note");
    assertThat(was.confirmed()).isTrue();
    f.set("silt", Value.of(7));
    assertThat(f.provenance("note").confirmed()).isFalse();
    assertThat(f.undo()).isTrue();
    assertThat(f.value("note")).isEqualTo(Value.text("120 mm"));
    assertThat(f.provenance("note")).isEqualTo(was);
  }
}
