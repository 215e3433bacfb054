package org.whinridge.core.text;

import java.util.Map;
import java.util.TreeMap;

/**
 * How many single-letter mistakes lie between two words: insertions, deletions, replacements and
 * swaps of neighbours, each counting one.
 *
 * <p>Source: Damerau–Levenshtein distance by the algorithm of R. Lowrance and R. A. Wagner, "An
 * Extension of the String-to-String Correction Problem", J. ACM 22 (1975); from memory.
 */
public final class EditDistance {
  private EditDistance() {}

  /**
   * The distance between two words; letters are compared as they are.
   *
   * @param most the largest distance of interest, 0 or more
   * @return the distance, or {@code most + 1} when it is larger
   */
  public static int between(String a, String b, int most) {
    if (Math.abs(a.length() - b.length()) > most) return most + 1;
    int n = a.length();
    int m = b.length();
    int far = n + m;
    int[][] d = new int[n + 2][m + 2];
    d[0][0] = far;
    for (int i = 0; i <= n; i++) {
      d[i + 1][0] = far;
      d[i + 1][1] = i;
    }
    for (int j = 0; j <= m; j++) {
      d[0][j + 1] = far;
      d[1][j + 1] = j;
    }
    Map<Character, Integer> lastRow = new TreeMap<>();
    for (int i = 1; i <= n; i++) {
      int lastColumn = 0;
      for (int j = 1; j <= m; j++) {
        int row = lastRow.getOrDefault(b.charAt(j - 1), 0);
        int column = lastColumn;
        int cost = 1;
        if (a.charAt(i - 1) == b.charAt(j - 1)) {
          cost = 0;
          lastColumn = j;
        }
        int swap = d[row][column] + (i - row - 1) + 1 + (j - column - 1);
        int change = Math.min(d[i][j] + cost, Math.min(d[i + 1][j], d[i][j + 1]) + 1);
        d[i + 1][j + 1] = Math.min(swap, change);
      }
      lastRow.put(a.charAt(i - 1), i);
    }
    return Math.min(d[n + 1][m + 1], most + 1);
  }
}
