package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import org.junit.jupiter.api.Test;

class GrowingWaitTest {
  @Test
  void theFirstFailuresCostNothingThenEachTwiceAsMuch() {
    GrowingWait wait = new GrowingWait(4, Duration.ofMinutes(1));
    assertThat(wait.after(0)).isZero();
    assertThat(wait.after(4)).isZero();
    assertThat(wait.after(5)).isEqualTo(Duration.ofSeconds(1));
    assertThat(wait.after(8)).isEqualTo(Duration.ofSeconds(8));
    assertThat(wait.after(11)).isEqualTo(Duration.ofMinutes(1));
    assertThat(wait.after(Integer.MAX_VALUE)).isEqualTo(Duration.ofMinutes(1));
  }
}
