package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
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
    assertThat(before.getString("shown", "")).isEqualTo("120 mm");
    assertThat(before.getString("from", "")).isEqualTo("from the asset");
    assertThat(before.getBoolean("confirmed", true)).isFalse();
    assertThat(before.get("was")).isNull();
    assertThat(before.getString("hint", "")).isEqualTo("Measure at the sill");
    f.set("silt", Value.of(130));
    JsonObject after = question(f.view(), "silt");
    assertThat(after.getString("was", "")).isEqualTo("120 mm");
    assertThat(after.getString("from", "")).isEqualTo("typed");
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
            p.getString("label", "")
                + " "
                + p.getString("kind", "")
                + " "
                + p.getString("message", ""))
        .isEqualTo("Kind needed needs an answer");
    assertThat(f.view().getBoolean("complete", true)).isFalse();
  }

  @Test
  void aNewFeatureHasAPlaceWhereThePersonStandsAndNoCaption() {
    JsonObject view =
        Filling.open(new FormFixture().compiled(), FormFixture.start(Optional.empty())).view();
    assertThat(view.getString("caption", "")).isEqualTo("new feature");
    assertThat(view.get("place").asObject().getDouble("lon", 0)).isEqualTo(0.6);
  }

  @Test
  void answersAreShownByDecimalsLabelsAndUnit() {
    Filling f =
        new FormFixture()
            .add(
                "{\"name\":\"share\",\"label\":\"Share\",\"type\":\"decimal\",\"unit\":\"%\",\"decimals\":1,\"workOut\":\"silt / 7\"}")
            .open();
    assertThat(question(f.view(), "share").getString("shown", "")).isEqualTo("17.1 %");
    assertThat(question(f.view(), "kind").getString("shown", "")).isEqualTo("Tide flap");
    assertThat(question(f.view(), "beat").getString("shown", "")).isEmpty();
  }
}
