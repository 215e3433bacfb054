package org.whinridge.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

class MergeTest {
  /** Base, layer now, mine: every row of the merge table. */
  @ParameterizedTest
  @CsvSource({
    "1,1,1,UNCHANGED,1",
    "1,1,2,WRITTEN,2",
    "1,2,1,LAYER_KEPT,2",
    "1,2,2,AGREED,2",
    "1,2,3,CLASH,2"
  })
  void theTable(double b, double l, double m, Merge.Outcome outcome, double result) {
    Merge.Result r =
        Merge.threeWay(
            Map.of("x", Value.of(b)), Map.of("x", Value.of(l)), Map.of("x", Value.of(m)), 8);
    if (outcome == Merge.Outcome.UNCHANGED) assertThat(r.fields()).isEmpty();
    else
      assertThat(r.fields())
          .singleElement()
          .satisfies(
              f -> {
                assertThat(f.outcome()).isEqualTo(outcome);
                assertThat(f.result()).isEqualTo(Value.of(result));
              });
  }

  @Test
  void emptyingAndFillingAreChangesToo() {
    Merge.Result r =
        Merge.threeWay(
            Map.of("a", Value.text("x")),
            Map.of("a", Value.text("x")),
            Map.of("a", Value.EMPTY, "b", Value.text("new")),
            8);
    assertThat(r.writes()).containsEntry("a", Value.EMPTY).containsEntry("b", Value.text("new"));
  }

  @Test
  void textIsComparedAfterTrimManyChoiceAsASetAndPlacesAtTheLayersPrecision() {
    assertThat(Merge.same(Value.text("Brick "), Value.text("Brick"), 8)).isTrue();
    assertThat(Merge.same(Value.text("Brick"), Value.text("brick"), 8)).isFalse();
    assertThat(
            Merge.same(
                Value.many(List.of(Value.text("a"), Value.text("b"))),
                Value.many(List.of(Value.text("b"), Value.text("a"))),
                8))
        .isTrue();
    assertThat(Merge.same(point(1.0000001), point(1.00000012), 7)).isTrue();
    assertThat(Merge.same(point(1.0000001), point(1.0000003), 7)).isFalse();
    assertThat(Merge.same(point(1), Value.EMPTY, 7)).isFalse();
  }

  private static Value point(double x) {
    return new Value.Place(GeometryJson.WGS84.createPoint(new Coordinate(x, 1)));
  }

  @Test
  void takingBackRestoresOnlyWhatNobodyHasChangedSince() {
    Map<String, Value> back =
        Merge.takeBack(
            Map.of("a", Value.of(1)),
            Map.of("a", Value.of(2), "b", Value.of(5), "c", Value.of(7)),
            Map.of("a", Value.of(2), "b", Value.of(6), "c", Value.of(7)),
            java.util.Set.of("a", "b", "c"));
    assertThat(back).containsOnly(Map.entry("a", Value.of(1)), Map.entry("c", Value.EMPTY));
  }
}
