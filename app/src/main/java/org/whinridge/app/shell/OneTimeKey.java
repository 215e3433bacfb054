package org.whinridge.app.shell;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;

/** Keys in addresses that work once: 144 random bits, in letters that addresses may have. */
public final class OneTimeKey {
  private static final int BYTES = 18;
  private static final SecureRandom RANDOM = new SecureRandom();

  private OneTimeKey() {}

  /** A new one. */
  public static String make() {
    byte[] random = new byte[BYTES];
    RANDOM.nextBytes(random);
    return Base64.getUrlEncoder().withoutPadding().encodeToString(random);
  }

  /** What is kept of one: by it a key is known again, and can't be had. */
  public static String hash(String key) {
    return Sha256.of(key.getBytes(StandardCharsets.UTF_8));
  }
}
