package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class SheetViewTest {
  private static List<String> names(JsonObject view) {
    List<String> out = new ArrayList<>();
    for (JsonValue s : view.get("sections").asArray())
      for (JsonValue q : s.asObject().get("questions").asArray())
        out.add(q.asObject().getString("name", ""));
    return out;
  }

  private static JsonObject question(JsonObject view, String name) {
    for (JsonValue s : view.get("sections").asArray())
      for (JsonValue q : s.asObject().get("questions").asArray())
        if (q.asObject().getString("name", "").equals(name)) return q.asObject();
    throw new AssertionError(name);
  }

  @Test
  void onlyWhatIsAskedIsShownWithPagesAndProgress() {
    Filling f = new FormFixture().set("silt", "askWhen", "\"kind = 'flap'\"").open();
    JsonObject view = f.view();
    assertThat(names(view))
        .containsExactly("tag", "kind", "silt", "width", "beat", "note", "photo");
    assertThat(view.getInt("pages", 0)).isEqualTo(2);
    assertThat(view.getInt("asked", 0)).isEqualTo(7);
    assertThat(view.getInt("answered", 0)).isEqualTo(4);
    assertThat(view.getString("caption", "")).isEqualTo("OS-1 · Tide flap");
    f.set("kind", Value.text("weir"));
    assertThat(names(f.view())).doesNotContain("silt");
    assertThat(f.view().getInt("asked", 0)).isEqualTo(6);
  }

  @Test
  void aQuestionShowsItsValueWhatItWasAndWhereItCameFrom() {
    Filling f = new FormFixture().set("silt", "hint", "\"Measure at the sill\"").open();
    JsonObject before = question(f.view(), "silt");
    assertThat(English.of(before.get("shown"))).isEqualTo("120 mm");
    assertThat(English.of(before.get("from"))).isEqualTo("from the asset");
    assertThat(before.getBoolean("confirmed", true)).isFalse();
    assertThat(before.get("was")).isNull();
    assertThat(before.getString("hint", "")).isEqualTo("Measure at the sill");
    f.set("silt", Value.of(130));
    JsonObject after = question(f.view(), "silt");
    assertThat(English.of(after.get("was"))).isEqualTo("120 mm");
    assertThat(English.of(after.get("from"))).isEqualTo("typed");
    assertThat(question(f.view(), "tag").getBoolean("fixed", false))
        .as("locked on revisit")
        .isTrue();
  }

  @Test
  void retiredCodesAreOfferedOnlyWhereTheyStand() {
    String codes =
        "[{\"code\":\"flap\",\"label\":\"Tide flap\"},{\"code\":\"mill\",\"label\":\"Mill\",\"retired\":true}]";
    FormFixture x = new FormFixture().set("kind", "codes", codes);
    Filling f = x.open();
    assertThat(question(f.view(), "kind").get("codes").asArray()).hasSize(1);
    f.set("kind", Value.text("mill"));
    assertThat(question(f.view(), "kind").get("codes").asArray()).hasSize(2);
    assertThat(f.isComplete()).as("a retired code is kept").isTrue();
  }

  @Test
  void pointsNameTheirQuestionByItsLabel() {
    Filling f = new FormFixture().set("kind", "need", "\"needed\"").open();
    f.set("kind", Value.EMPTY);
    JsonObject p = f.view().get("points").asArray().get(0).asObject();
    assertThat(
            English.of(p.get("label"))
                + " "
                + p.getString("kind", "")
                + " "
                + English.of(p.get("message")))
        .isEqualTo("Kind needed needs an answer");
    assertThat(f.view().getBoolean("complete", true)).isFalse();
  }

  @Test
  void aVisitIsNamedByTheAnswersThatItsFormSays() {
    Filling f =
        new FormFixture()
            .setting("caption", "[\"silt\",\"gone\",\"kind\",\"beat\"]")
            .set("silt", "askWhen", "\"kind = 'flap'\"")
            .open();
    assertThat(f.view().getString("caption", "")).isEqualTo("120 · Tide flap");
    f.set("kind", Value.text("weir"));
    assertThat(f.view().getString("caption", "")).as("what is not asked").isEqualTo("Weir");
    f.set("kind", Value.EMPTY);
    assertThat(f.view().getString("caption", "")).isEqualTo("OS-1 · Tide flap");
  }

  @Test
  void thePlaceOfANewFeatureIsKnownAsWellAsTheFormAsks() {
    FormFixture asks = new FormFixture().setting("accuracyM", "3.5");
    Filling f = Filling.open(asks.compiled(), FormFixture.start(Optional.empty()));
    assertThat(f.points().stream().map(p -> English.of(p.message())))
        .contains("the position is known to 4.0 m, the form asks for 3.5 m");
    assertThat(asks.open().points())
        .as("an asset's place is its own")
        .noneMatch(p -> p.reason() instanceof PointReason.Inaccurate);
    FormFixture enough = new FormFixture().setting("accuracyM", "4");
    assertThat(Filling.open(enough.compiled(), FormFixture.start(Optional.empty())).points())
        .noneMatch(p -> p.reason() instanceof PointReason.Inaccurate);
  }

  @Test
  void aNewFeatureHasAPlaceWhereThePersonStandsAndNoCaption() {
    JsonObject view =
        Filling.open(new FormFixture().compiled(), FormFixture.start(Optional.empty())).view();
    assertThat(view.getString("caption", "?")).isEmpty();
    assertThat(view.get("place").asObject().getDouble("lon", 0)).isEqualTo(0.6);
  }

  @Test
  void answersAreShownByDecimalsLabelsAndUnit() {
    Filling f =
        new FormFixture()
            .add(
                "{\"name\":\"share\",\"label\":\"Share\",\"type\":\"decimal\",\"unit\":\"%\",\"decimals\":1,\"workOut\":\"silt / 7\"}")
            .open();
    assertThat(English.of(question(f.view(), "share").get("shown"))).isEqualTo("17.1 %");
    assertThat(English.of(question(f.view(), "kind").get("shown"))).isEqualTo("Tide flap");
    assertThat(English.of(question(f.view(), "beat").get("shown"))).isEmpty();
  }

  /** Puts what was known in the place of names. */
  private static JsonObject whole(JsonObject changes, Map<String, JsonObject> known) {
    for (JsonValue s : changes.get("sections").asArray()) {
      put(s.asObject().get("questions").asArray(), "", known);
      if (s.asObject().get("rows") != null)
        for (JsonValue r : s.asObject().get("rows").asArray())
          put(
              r.asObject().get("questions").asArray(),
              r.asObject().getString("id", "") + "/",
              known);
    }
    return changes;
  }

  private static void put(JsonArray questions, String row, Map<String, JsonObject> known) {
    for (int i = 0; i < questions.size(); i++) {
      JsonValue q = questions.get(i);
      if (q.isString()) questions.set(i, known.get(row + q.asString()));
      else known.put(row + q.asObject().getString("name", ""), q.asObject());
    }
  }

  @Test
  void changesTogetherAreAlwaysTheWhole() {
    Random r = new Random(20261129);
    Filling f = new FormFixture().set("silt", "askWhen", "\"kind = 'flap'\"").open();
    Map<String, JsonObject> known = new LinkedHashMap<>();
    int turn = 0;
    for (int i = 0; i < 300; i++) {
      switch (r.nextInt(6)) {
        case 0 -> f.set("kind", Value.text(r.nextBoolean() ? "flap" : "weir"));
        case 1 -> f.set("silt", Value.of(r.nextInt(400)));
        case 2 -> f.set("note", Value.text("n" + r.nextInt(3)));
        case 3 -> f.confirm("width");
        case 4 -> f.undo();
        default -> f.moveTo(new Coordinate(-10.2 + r.nextDouble() / 100, 57.9));
      }
      // asked for the whole in between, which changes nothing of what is known
      if (r.nextInt(3) == 0) f.view();
      // and now and then by somebody else, after whom it begins anew
      if (r.nextInt(9) == 0) f.changesText(0);
      JsonObject changes = Json.parse(f.changesText(turn)).asObject();
      turn = changes.getInt("turn", 0);
      changes.remove("turn");
      assertThat(whole(changes, known).toString()).as("step %s", i).isEqualTo(f.viewText());
    }
  }

  private static List<String> told(String changes) {
    List<String> out = new ArrayList<>();
    for (JsonValue s : Json.parse(changes).asObject().get("sections").asArray())
      for (JsonValue q : s.asObject().get("questions").asArray())
        if (q.isObject()) out.add(q.asObject().getString("name", ""));
    return out;
  }

  @Test
  void anAnswerTellsOfItsQuestionAlone() {
    Filling f = new FormFixture().open();
    assertThat(told(f.changesText(0))).contains("tag", "kind", "note");
    f.set("note", Value.text("wet"));
    assertThat(told(f.changesText(1))).containsExactly("note");
    assertThat(told(f.changesText(2))).isEmpty();
    assertThat(told(f.changesText(1))).as("somebody else's turn was told since").hasSize(7);
  }
}
