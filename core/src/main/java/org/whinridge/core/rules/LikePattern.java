package org.whinridge.core.rules;

/**
 * LIKE: % any run, _ one character, \ takes the next as it is. Characters are Unicode code points.
 * Time at most text × pattern.
 */
public final class LikePattern {
  private LikePattern() {}

  /** Whether the whole text fits the pattern. */
  public static boolean matches(String pattern, String text) {
    return matches(pattern.codePoints().toArray(), text);
  }

  /** The same with a pattern whose characters are taken apart already. */
  public static boolean matches(int[] like, String text) {
    int[] in = text.codePoints().toArray();
    int p = 0;
    int t = 0;
    int starP = -1;
    int starT = 0;
    while (t < in.length) {
      if (p < like.length && like[p] == '%') {
        starP = p++;
        starT = t;
      } else if (p < like.length && one(like, p, in[t])) {
        p += like[p] == '\\' && p + 1 < like.length ? 2 : 1;
        t++;
      } else if (starP >= 0) {
        p = starP + 1;
        t = ++starT;
      } else return false;
    }
    while (p < like.length && like[p] == '%') p++;
    return p == like.length;
  }

  private static boolean one(int[] like, int p, int c) {
    int k = like[p];
    if (k == '_') return true;
    return k == '\\' && p + 1 < like.length ? like[p + 1] == c : k == c;
  }
}
