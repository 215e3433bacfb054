package org.whinridge.core.access;

import java.time.Duration;

/**
 * How long somebody must wait before the next try after so many failed ones: not at all after the
 * first few, then a second, and twice as long each time. Common practice, no source.
 *
 * @param free how many failures cost nothing
 * @param most the longest wait
 */
public record GrowingWait(int free, Duration most) {
  private static final int DOUBLINGS = 20;

  /** The wait after so many failures in a row. */
  public Duration after(int failures) {
    if (failures <= free) return Duration.ZERO;
    Duration wait = Duration.ofSeconds(1L << Math.min(DOUBLINGS, failures - free - 1));
    return wait.compareTo(most) > 0 ? most : wait;
  }
}
