package org.whinridge.core.rules;

import java.util.Collection;
import java.util.Optional;
import org.whinridge.core.value.Fold;

/**
 * The known word nearest to a mistyped one, by edit distance (optimal string alignment, a swap
 * counts one).
 */
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
      int d = distance(Fold.lower(word), Fold.lower(k));
      if (d <= limit) {
        if (d < limit || best == null) best = k;
        limit = Math.min(limit, d);
      }
    }
    return Optional.ofNullable(best);
  }

  static int distance(String a, String b) {
    if (Math.abs(a.length() - b.length()) > 3) return 99;
    int[][] d = new int[a.length() + 1][b.length() + 1];
    for (int i = 0; i <= a.length(); i++) d[i][0] = i;
    for (int j = 0; j <= b.length(); j++) d[0][j] = j;
    for (int i = 1; i <= a.length(); i++)
      for (int j = 1; j <= b.length(); j++) {
        int cost = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
        d[i][j] = Math.min(Math.min(d[i - 1][j] + 1, d[i][j - 1] + 1), d[i - 1][j - 1] + cost);
        if (i > 1
            && j > 1
            && a.charAt(i - 1) == b.charAt(j - 2)
            && a.charAt(i - 2) == b.charAt(j - 1)) d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
      }
    return d[a.length()][b.length()];
  }
}
