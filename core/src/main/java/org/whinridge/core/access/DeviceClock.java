package org.whinridge.core.access;

/** How well a device's clock goes. */
public final class DeviceClock {
  /**
   * From so many seconds on a clock gives visits a wrong time that matters. Common practice, no
   * source.
   */
  public static final long OFF_SECONDS = 300;

  private DeviceClock() {}

  /**
   * Whether somebody should see to a clock.
   *
   * @param seconds how far it is ahead of the server's, negative for behind
   */
  public static boolean isOff(long seconds) {
    return Math.abs(seconds) > OFF_SECONDS;
  }
}
