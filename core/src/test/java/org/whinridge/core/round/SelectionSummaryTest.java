package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.round.SelectionSummary.Counted;
import org.whinridge.core.value.Value;

class SelectionSummaryTest {
  private static final Schema POSTS =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("tag", "Tag", FieldType.TEXT),
              Field.of("kind", "Kind", FieldType.CODE)
                  .with(List.of(Code.of("post", "Post"), Code.of("board", "Board"))),
              Field.of("condition", "Condition", FieldType.WHOLE)
                  .with(List.of(Code.of("1", "1 good"), Code.of("2", "2 fair"))),
              Field.of("many", "Many", FieldType.CODE)
                  .with(
                      IntStream.rangeClosed(0, SelectionSummary.MOST_CODES)
                          .mapToObj(i -> Code.of("c" + i, "C" + i))
                          .toList())),
          "tag",
          List.of("tag"));

  private static Feature post(String kind, Value condition) {
    Map<String, Value> values = new LinkedHashMap<>();
    values.put("kind", Value.text(kind));
    values.put("condition", condition);
    return new Feature("f", Optional.empty(), values, 1);
  }

  @Test
  void kindsAndConditionsAreCountedInTheOrderOfTheirLists() {
    List<Feature> all = new ArrayList<>();
    all.add(post("board", new Value.Num(2)));
    all.add(post("post", new Value.Num(2)));
    all.add(post("board", Value.EMPTY));
    all.add(post("stile", new Value.Num(7)));
    SelectionSummary s = SelectionSummary.of(POSTS, all, 5);
    assertThat(s.features()).isEqualTo(4);
    assertThat(s.fields())
        .extracting(SelectionSummary.OfField::field)
        .containsExactly("kind", "condition");
    assertThat(s.fields().get(0).codes())
        .containsExactly(new Counted("post", "Post", 1), new Counted("board", "Board", 2));
    assertThat(s.fields().get(0).other()).isEqualTo(1);
    assertThat(s.fields().get(0).empty()).isZero();
    assertThat(s.fields().get(1).codes()).containsExactly(new Counted("2", "2 fair", 2));
    assertThat(s.fields().get(1).other()).isEqualTo(1);
    assertThat(s.fields().get(1).empty()).isEqualTo(1);
  }

  @Test
  void onlyTheFirstFieldsAreCountedAndOfNothingNothing() {
    assertThat(SelectionSummary.of(POSTS, List.of(), 1).fields())
        .singleElement()
        .satisfies(f -> assertThat(f.codes()).isEmpty());
  }
}
