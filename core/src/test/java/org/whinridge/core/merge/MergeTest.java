package org.whinridge.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.value.Value;

class MergeTest {
  private static final Function<String, SameValue> ANY =
      f -> SameValue.of(java.util.Optional.empty(), 8);

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
            Map.of("x", Value.of(b)), Map.of("x", Value.of(l)), Map.of("x", Value.of(m)), ANY);
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
            ANY);
    assertThat(r.writes()).containsEntry("a", Value.EMPTY).containsEntry("b", Value.text("new"));
  }

  @Test
  void takingBackRestoresOnlyWhatNobodyHasChangedSince() {
    Map<String, Value> back =
        Merge.takeBack(
            Map.of("a", Value.of(1)),
            Map.of("a", Value.of(2), "b", Value.of(5), "c", Value.of(7)),
            Map.of("a", Value.of(2), "b", Value.of(6), "c", Value.of(7)),
            java.util.Set.of("a", "b", "c"),
            ANY);
    assertThat(back).containsOnly(Map.entry("a", Value.of(1)), Map.entry("c", Value.EMPTY));
  }
}
