package org.whinridge.core.access;

import org.whinridge.core.text.Word;

/**
 * How well a password keeps, said in words. The limits are the numbers of guesses that D. Wheeler,
 * "zxcvbn: Low-Budget Password Strength Estimation", USENIX Security 2016, gives for attacks online
 * with and without a throttle and offline on a slow hash (from memory).
 */
public enum PasswordStrength implements Word {
  /** Guessed online, even where tries are few: less than a million guesses. */
  WEAK("weak", 6),
  /** Guessed online where nobody counts the tries. */
  FAIR("fair", 8),
  /** Guessed when somebody has its hash and the means. */
  GOOD("good", 10),
  /** Not guessed. */
  STRONG("strong", Double.POSITIVE_INFINITY);

  private final String id;
  private final double below;

  PasswordStrength(String id, double below) {
    this.id = id;
    this.below = below;
  }

  @Override
  public String id() {
    return id;
  }

  /**
   * The word for a number of guesses.
   *
   * @param log10Guesses the decimal logarithm of how many guesses it takes, 0 or more
   */
  public static PasswordStrength of(double log10Guesses) {
    for (PasswordStrength s : values()) if (log10Guesses < s.below) return s;
    return STRONG;
  }
}
