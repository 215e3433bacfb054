package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;

class PaceTest {
  private static final LocalDate MONDAY = LocalDate.of(2026, 5, 4);

  @Test
  void whatIsLeftTakesAsLongAsWhatIsDone() {
    assertThat(new Pace(10, MONDAY).end(MONDAY, 20)).contains(MONDAY.plusDays(2));
    assertThat(new Pace(10, MONDAY).end(MONDAY, 1)).contains(MONDAY.plusDays(1));
    assertThat(new Pace(10, MONDAY).end(MONDAY.plusDays(4), 20)).contains(MONDAY.plusDays(14));
    assertThat(new Pace(3, MONDAY).end(MONDAY.plusDays(1), 4)).contains(MONDAY.plusDays(4));
  }

  @Test
  void nothingLeftEndsTodayAndOfNothingDoneNothingIsKnown() {
    assertThat(new Pace(10, MONDAY).end(MONDAY, 0)).contains(MONDAY);
    assertThat(new Pace(0, MONDAY).end(MONDAY, 5)).isEmpty();
    assertThat(new Pace(1, MONDAY.plusDays(3)).end(MONDAY, 1))
        .as("a device's clock that is ahead")
        .contains(MONDAY.plusDays(1));
    assertThat(new Pace(1, MONDAY).end(MONDAY.plusYears(50), 1_000_000)).isPresent();
  }
}
