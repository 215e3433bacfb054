package org.whinridge.core.text;

/** Blanks that nobody sees: spaces of all kinds, no-break ones too, tabs and line ends. */
public final class Blanks {
  private Blanks() {}

  /** The text without blanks at its ends. */
  public static String strip(String s) {
    int from = 0;
    int to = s.length();
    while (from < to && isBlank(s.charAt(from))) from++;
    while (to > from && isBlank(s.charAt(to - 1))) to--;
    return s.substring(from, to);
  }

  /** Whether a sign is a blank, or takes no room at all. */
  public static boolean isBlank(char c) {
    return Character.isWhitespace(c) || Character.isSpaceChar(c) || c == '\u200b' || c == '\ufeff';
  }
}
