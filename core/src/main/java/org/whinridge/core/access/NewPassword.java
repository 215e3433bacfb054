package org.whinridge.core.access;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.function.Predicate;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;

/**
 * What a new password must be: long enough, not one that many people use, not the name. Nothing
 * else is demanded (NIST SP 800-63B, 5.1.1.2, from memory, asks for at least 8 and forbids rules of
 * composition).
 */
public final class NewPassword {
  /** The least length, in characters. */
  public static final int LEAST = 10;

  /** The most bytes in UTF-8: as many as the hash that is kept looks at. */
  public static final int MOST_BYTES = 72;

  private NewPassword() {}

  /**
   * What is wrong with it; empty when it may be had.
   *
   * @param common whether many people use a password, asked in lower case
   */
  public static Optional<Said> fault(String password, String name, Predicate<String> common) {
    if (password.codePointCount(0, password.length()) < LEAST)
      return Optional.of(Said.of("password.tooShort", "least", LEAST));
    if (password.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES)
      return Optional.of(Said.of("password.tooLong", "most", MOST_BYTES));
    String lower = Fold.lower(password);
    if (lower.equals(Fold.lower(name))) return Optional.of(Said.of("password.theName"));
    if (common.test(lower)) return Optional.of(Said.of("password.common"));
    return Optional.empty();
  }
}
