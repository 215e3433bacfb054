package org.whinridge.core.access;

import java.util.Optional;
import org.whinridge.core.text.Fold;

/**
 * Codes by which a device is paired: eight letters and digits that nobody takes for one another,
 * which makes 40 bits. Written in two groups of four.
 */
public final class PairingCode {
  /** Its length, without the dash. */
  public static final int LENGTH = 8;

  /** How many bits one character holds. */
  public static final int BITS = 5;

  /** No I, L, O, U: as in the alphabet of D. Crockford's base 32 (from memory). */
  private static final String LETTERS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";

  private PairingCode() {}

  /**
   * The code of random bits.
   *
   * @param random of which the lowest 40 bits are taken
   */
  public static String of(long random) {
    StringBuilder out = new StringBuilder();
    long left = random;
    for (int i = 0; i < LENGTH; i++, left >>>= BITS)
      out.append(LETTERS.charAt((int) (left & ((1 << BITS) - 1))));
    return out.toString();
  }

  /** As it is shown: "K7M2-9QXA". */
  public static String shown(String code) {
    return code.substring(0, LENGTH / 2) + "-" + code.substring(LENGTH / 2);
  }

  /**
   * What somebody typed, as a code: small letters, blanks and dashes are taken, O is 0, I and L are
   * 1; empty when it can't be one.
   */
  public static Optional<String> typed(String text) {
    StringBuilder out = new StringBuilder();
    for (char c : Fold.upper(text).toCharArray()) {
      if (c == '-' || Character.isWhitespace(c)) continue;
      char read = c == 'O' ? '0' : c == 'I' || c == 'L' ? '1' : c;
      if (LETTERS.indexOf(read) < 0) return Optional.empty();
      out.append(read);
    }
    return out.length() == LENGTH ? Optional.of(out.toString()) : Optional.empty();
  }
}
