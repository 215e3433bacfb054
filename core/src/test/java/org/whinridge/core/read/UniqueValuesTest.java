package org.whinridge.core.read;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

class UniqueValuesTest {
  /** Many questions at once against a plain look at every feature. */
  @Test
  void whoeverHasAValueIsFoundAsByLookingAtEach() {
    Schema schema =
        new Schema(
            GeometryKind.TABLE, List.of(Field.of("tag", "Tag", FieldType.TEXT)), "", List.of());
    Random random = new Random(5);
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < 300; i++) {
      // "Aa" and "BB" have one hash
      String tag = List.of("Aa", "BB", "t" + random.nextInt(200), "").get(random.nextInt(4));
      Map<String, Value> values = tag.isEmpty() ? Map.of() : Map.of("tag", Value.text(tag));
      all.add(
          new Feature(
              String.format("00000000-0000-0000-0000-%012d", i), Optional.empty(), values, 1));
    }
    LayerColumns columns = LayerColumns.of(schema, all);
    UniqueValues tags = new UniqueValues(columns, "tag");
    int taken = 0;
    for (Feature f : all)
      for (String tag :
          List.of("Aa", "BB", "none", f.value("tag") instanceof Value.Text t ? t.value() : "t7")) {
        Value v = Value.text(tag);
        boolean expected = all.stream().anyMatch(o -> o != f && o.value("tag").equals(v));
        assertThat(tags.isTaken(v, f.id())).as(f.id() + " " + tag).isEqualTo(expected);
        assertThat(UniqueValues.taken(columns, "tag", v, r -> columns.id(r).equals(f.id())))
            .isEqualTo(expected);
        if (expected) taken++;
      }
    assertThat(taken).isBetween(500, 1100);
    assertThat(tags.isTaken(Value.text("Aa"), "")).as("a new feature").isTrue();
  }
}
