package org.whinridge.core.rules;

/** LIKE: % any run, _ one character, \ takes the next as it is. Time at most text × pattern. */
final class LikePattern {
  private LikePattern() {}

  static boolean matches(String pattern, String text) {
    int p = 0;
    int t = 0;
    int starP = -1;
    int starT = 0;
    while (t < text.length()) {
      if (p < pattern.length() && pattern.charAt(p) == '%') {
        starP = p++;
        starT = t;
      } else if (p < pattern.length() && one(pattern, p, text.charAt(t))) {
        p += pattern.charAt(p) == '\\' && p + 1 < pattern.length() ? 2 : 1;
        t++;
      } else if (starP >= 0) {
        p = starP + 1;
        t = ++starT;
      } else return false;
    }
    while (p < pattern.length() && pattern.charAt(p) == '%') p++;
    return p == pattern.length();
  }

  private static boolean one(String pattern, int p, char c) {
    char k = pattern.charAt(p);
    if (k == '_') return true;
    return k == '\\' && p + 1 < pattern.length() ? pattern.charAt(p + 1) == c : k == c;
  }
}
