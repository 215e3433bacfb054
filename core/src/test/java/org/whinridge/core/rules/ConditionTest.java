package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

class ConditionTest {
  private final TestNames names = new TestNames();

  @Test
  void eachTypeIsComparedInItsOwnWay() {
    assertThat(Condition.is("silt", Value.of(120)).text()).isEqualTo("silt = 120");
    assertThat(Condition.is("note", Value.text("it's")).text()).isEqualTo("note = 'it''s'");
    assertThat(Condition.is("built", new Value.Day(LocalDate.of(2026, 5, 4))).text())
        .isEqualTo("built = DATE('2026-05-04')");
    assertThat(Condition.is("at", new Value.Moment(Instant.parse("2026-05-04T09:30:00Z"))).text())
        .isEqualTo("at = TIMESTAMP('2026-05-04T09:30:00Z')");
    assertThat(Condition.is("ok", Value.YES).text()).isEqualTo("ok = TRUE");
    assertThat(Condition.is("width", Value.EMPTY).text()).isEqualTo("width IS NULL");
    assertThat(
            Condition.is("defects", Value.many(List.of(Value.text("leak"), Value.text("a, b"))))
                .text())
        .isEqualTo("A_EQUALS(defects, ('leak', 'a, b'))");
    assertThat(Condition.isAnyOf("note", List.of(Value.text("a"), Value.text("b"))).text())
        .isEqualTo("note IN ('a', 'b')");
    assertThat(Condition.isAnyOf("note", List.of(Value.text("a"), Value.EMPTY)).text())
        .isEqualTo("note = 'a' OR note IS NULL");
    assertThat(Condition.isOutside("silt", -1.5, 20).text()).isEqualTo("silt < -1.5 OR silt > 20");
    assertThatThrownBy(() -> Condition.isAnyOf("note", List.of()))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void theyHoldAsRulesDo() {
    Rule day =
        Condition.is("built", new Value.Day(LocalDate.of(2026, 5, 4)))
            .in(names)
            .rule()
            .orElseThrow();
    assertThat(day.holds(names)).isFalse();
    assertThat(Condition.is("silt", Value.of(120)).in(names).rule().orElseThrow().holds(names))
        .isTrue();
    assertThat(Condition.is("built", Value.text("soon")).in(names).problems())
        .singleElement()
        .satisfies(p -> assertThat(p.kind()).isEqualTo(RuleProblem.Kind.WRONG_TYPE));
  }

  /** Whatever stands in a text, the text form of the condition reads back to the same condition. */
  @Test
  void noTextEndsAnything() {
    long seed = 77;
    Random r = new Random(seed);
    String[] pieces = {"'", "''", "\"", " OR TRUE", ")", "\\", "%", "é", "\n", "--", ";", "DATE('"};
    for (int i = 0; i < 2_000; i++) {
      StringBuilder b = new StringBuilder();
      for (int k = 0; k <= r.nextInt(5); k++) b.append(pieces[r.nextInt(pieces.length)]);
      Condition c = Condition.is("note", Value.text(b.toString()));
      Rule read = Rules.condition(c.text(), names).rule().orElseThrow();
      assertThat(read.canonical()).as("seed %d: %s", seed, b).isEqualTo(c.text());
      assertThat(read.tree()).isInstanceOf(Node.Compare.class);
    }
  }

  /** An area of many corners is longer than a rule that people write may be. */
  @Test
  void aLongAreaIsNoTooLongRule() {
    Condition c =
        Condition.isNotWithin(
            "place", GeometryJson.WGS84.createPoint(new Coordinate(0, 0)).buffer(1, 200));
    assertThat(c.text().length()).isGreaterThan(Rules.MAX_LENGTH);
    assertThat(
            c.in(
                    new org.whinridge.core.layer.LayerScope(
                        new org.whinridge.core.layer.Schema(
                            org.whinridge.core.place.GeometryKind.POINT, List.of(), "", List.of())))
                .rule())
        .isPresent();
  }
}
