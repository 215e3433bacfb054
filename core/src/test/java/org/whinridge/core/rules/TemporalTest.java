package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

/** The temporal operators, after the picture of J. F. Allen's thirteen relations of intervals. */
class TemporalTest {
  private static final List<String> ALLEN =
      List.of(
          "T_BEFORE",
          "T_MEETS",
          "T_OVERLAPS",
          "T_FINISHEDBY",
          "T_CONTAINS",
          "T_STARTS",
          "T_EQUALS",
          "T_STARTEDBY",
          "T_DURING",
          "T_FINISHES",
          "T_OVERLAPPEDBY",
          "T_METBY",
          "T_AFTER");
  private final TestNames names =
      new TestNames()
          .known("seen", new Value.Moment(Instant.parse("2026-05-04T09:30:00Z")))
          .known("built", new Value.Day(LocalDate.of(1987, 5, 4)));

  /** Of two proper intervals exactly one of the thirteen relations holds (Allen, CACM 26, 1983). */
  @Test
  void exactlyOneRelationHoldsBetweenTwoIntervals() {
    for (int a = 1; a < 6; a++)
      for (int b = a + 1; b <= 6; b++)
        for (int c = 1; c < 6; c++)
          for (int d = c + 1; d <= 6; d++) {
            String pair = "(" + interval(a, b) + ", " + interval(c, d) + ")";
            List<String> holding =
                ALLEN.stream().filter(r -> names.eval(r + pair).equals(Value.YES)).toList();
            assertThat(holding).as(pair).hasSize(1);
            boolean apart = holding.get(0).equals("T_BEFORE") || holding.get(0).equals("T_AFTER");
            assertThat(names.eval("T_DISJOINT" + pair)).as(pair).isEqualTo(Value.of(apart));
            assertThat(names.eval("T_INTERSECTS" + pair)).as(pair).isEqualTo(Value.of(!apart));
          }
  }

  private static String interval(int from, int to) {
    return "INTERVAL('2026-05-0" + from + "', '2026-05-0" + to + "')";
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "T_OVERLAPS(INTERVAL('2026-01-01','2026-03-01'), INTERVAL('2026-02-01','2026-04-01')) | yes",
        "T_DURING(seen, INTERVAL('2026-05-01', '2026-05-04')) | yes",
        "T_DURING(seen, INTERVAL('2026-05-01', '2026-05-03')) | no",
        "T_AFTER(seen, DATE('2026-05-04')) | no",
        "T_AFTER(seen, DATE('2026-05-03')) | yes",
        "T_AFTER(built, DATE('1987-05-03')) | yes",
        "T_EQUALS(built, DATE('1987-05-04')) | yes",
        "T_DURING(built, INTERVAL('..', '2000-01-01')) | yes",
        "T_BEFORE(built, INTERVAL('2000-01-01', '..')) | yes",
        "T_INTERSECTS(INTERVAL(built, '..'), seen) | yes",
        "T_MEETS(INTERVAL('2026-01-01T00:00:00Z','2026-05-04T09:30:00Z'), seen) | yes",
        "T_AFTER(INTERVAL('2026-02-01','2026-01-01'), built) | ''"
      })
  void datesMomentsAndOpenEnds(String rule, String expected) {
    assertThat(names.eval(rule).plain()).isEqualTo(expected);
  }

  @Test
  void aTextIsNoTimeAndTheFixWrapsIt() {
    RuleProblem p = names.problem("T_AFTER(built, '1999-01-01')");
    assertThat(p.kind()).isEqualTo(RuleProblem.Kind.WRONG_TYPE);
    assertThat(p.fix()).isEqualTo("DATE('1999-01-01')");
    assertThat(English.of(names.problem("T_AFTER(built, INTERVAL('2026-02-30', '..'))").message()))
        .contains("is not a date in the calendar");
    assertThat(English.of(names.problem("T_AFTER(built, INTERVAL(3, '..'))").message()))
        .contains("an interval ends at a date");
  }
}
