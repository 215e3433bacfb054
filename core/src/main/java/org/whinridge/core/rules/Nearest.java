package org.whinridge.core.rules;

import java.util.Collection;
import java.util.Optional;
import org.whinridge.core.text.EditDistance;
import org.whinridge.core.text.Fold;

/** The known word nearest to a mistyped one, by edit distance (a swap counts one). */
final class Nearest {
  private Nearest() {}

  /**
   * The nearest word within a third of the length (at most 3; a word under three letters has none);
   * the first of equals.
   */
  static Optional<String> of(String word, Collection<String> known) {
    int limit = Math.min(3, word.length() / 3);
    if (limit == 0) return Optional.empty();
    String best = null;
    for (String k : known) {
      int d = EditDistance.between(Fold.lower(word), Fold.lower(k), limit);
      if (d <= limit) {
        if (d < limit || best == null) best = k;
        limit = Math.min(limit, d);
      }
    }
    return Optional.ofNullable(best);
  }
}
