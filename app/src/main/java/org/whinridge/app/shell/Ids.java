package org.whinridge.app.shell;

import java.security.SecureRandom;
import java.util.UUID;

/**
 * Ids that rise with time (RFC 9562, UUID version 7), for rows that are written by the thousand: an
 * index takes them at its end.
 */
public final class Ids {
  private static final SecureRandom RANDOM = new SecureRandom();
  private static long lastMillis;
  private static int counter;

  private Ids() {}

  /** The next id. */
  public static UUID next() {
    long millis;
    int n;
    synchronized (Ids.class) {
      millis = Math.max(System.currentTimeMillis(), lastMillis);
      if (millis == lastMillis && ++counter > 0xFFF) {
        millis++;
        counter = 0;
      } else if (millis != lastMillis) counter = 0;
      lastMillis = millis;
      n = counter;
    }
    return new UUID(millis << 16 | 0x7000L | n, RANDOM.nextLong() >>> 2 | 0x8000000000000000L);
  }
}
