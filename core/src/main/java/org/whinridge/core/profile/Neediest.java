package org.whinridge.core.profile;

import java.util.List;
import java.util.Optional;

/** Which field of a layer most needs somebody. Common practice, no source. */
public final class Neediest {
  private Neediest() {}

  /**
   * What speaks for a field.
   *
   * @param field its storage name
   * @param misfits values that do not fit its type
   * @param unlike values that are spelled in several ways; 0 while that is not known
   */
  public record Case(String field, int misfits, int unlike) {}

  /**
   * The field with the most values that do not fit their type, since nothing can be computed with
   * those; where there are none, the one with the most values spelled in several ways; the first of
   * several that are alike. Empty when nothing speaks for any.
   */
  public static Optional<Case> of(List<Case> cases) {
    Case most = null;
    for (Case c : cases)
      if (c.misfits + c.unlike > 0 && (most == null || isMore(c, most))) most = c;
    return Optional.ofNullable(most);
  }

  private static boolean isMore(Case a, Case b) {
    return a.misfits != b.misfits ? a.misfits > b.misfits : a.unlike > b.unlike;
  }
}
