package org.whinridge.core.round;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/**
 * How fast a round goes, and when it would be over at that pace: whole days from the first visit
 * on, those without work counted in. Common practice, no source.
 *
 * @param done stops that are done
 * @param since the day of the first visit
 */
public record Pace(int done, LocalDate since) {
  /** More days than anybody plans for. */
  private static final long MOST_DAYS = 36_500;

  /**
   * The day on which the last stop would be done.
   *
   * @param left how many stops are left
   * @return empty as long as nothing is done
   */
  public Optional<LocalDate> end(LocalDate today, int left) {
    if (done <= 0 || left < 0) return Optional.empty();
    long days = Math.max(1, ChronoUnit.DAYS.between(since, today) + 1);
    long more = Math.min(MOST_DAYS, (left * days + done - 1) / done);
    return Optional.of(today.plusDays(more));
  }
}
