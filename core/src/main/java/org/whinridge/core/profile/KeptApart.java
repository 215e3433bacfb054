package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.whinridge.core.text.Fold;

/**
 * What keeps two texts apart however near their letters are: marks that mean something, numbers,
 * short words, directions, prefixes that turn the meaning. Common practice, no source.
 */
final class KeptApart {
  /** Marks that make another value of the same letters: "&lt;5" and "&gt;5", "C" and "C#". */
  private static final String MARKS = "<>=≤≥≠~+#%‰±?*°@§";

  private static final Set<String> ROMAN =
      Set.of(
          "i", "ii", "iii", "iv", "v", "vi", "vii", "viii", "ix", "x", "xi", "xii", "xiii", "xiv",
          "xv");
  private static final List<String> COMPASS = List.of("north", "south", "east", "west");
  private static final List<String> PREFIXES =
      List.of(
          "un", "in", "im", "ir", "il", "non", "dis", "de", "mis", "a", "sub", "super", "over",
          "under", "re", "pre");

  private KeptApart() {}

  /**
   * The part of a text that no other spelling of the same value changes: its meaningful marks, its
   * numbers in their order, its Roman numerals and single letters.
   */
  static String fixed(String s) {
    StringBuilder out = new StringBuilder();
    int at = 0;
    while (at < s.length()) {
      char c = s.charAt(at);
      if (MARKS.indexOf(c) >= 0) out.append(c);
      if ((c == '-' || c == '−') && isSign(s, at)) out.append('-');
      if (Character.isDigit(c)) {
        int to = at + 1;
        while (to < s.length() && isOfNumber(s, to)) to++;
        out.append('|').append(number(s.substring(at, to)));
        at = to;
      } else at++;
    }
    List<String> words = words(s);
    // without a letter the marks between the numbers are all there is: 1/2 is not 1-2
    if (letters(words).isEmpty()) out.append('=').append(s.replaceAll("[\\s\\p{Z}\\p{Cf}]", ""));
    for (String w : words)
      // a single letter is a name of its own, with a number too: 2a is not a2
      if (letterCount(w) == 1 || ROMAN.contains(w)) out.append('/').append(w);
    return out.toString();
  }

  private static boolean isSign(String s, int at) {
    return at + 1 < s.length()
        && Character.isDigit(s.charAt(at + 1))
        && (at == 0 || Character.isWhitespace(s.charAt(at - 1)));
  }

  private static boolean isOfNumber(String s, int at) {
    char c = s.charAt(at);
    return Character.isDigit(c)
        || (c == '.' || c == ',') && at + 1 < s.length() && Character.isDigit(s.charAt(at + 1));
  }

  /** 1,50 and 1.5 are one number; 01 and 1 are not one name. */
  private static String number(String s) {
    String n = s.replace(',', '.');
    return n.indexOf('.') < 0 ? n : n.replaceAll("0+$", "").replaceAll("\\.$", "");
  }

  private static int letterCount(String w) {
    int n = 0;
    for (int i = 0; i < w.length(); i++) if (!Character.isDigit(w.charAt(i))) n++;
    return n;
  }

  /** The words of a text in their order, folded, their digits left out. */
  static List<String> letters(String s) {
    return letters(words(s));
  }

  private static List<String> letters(List<String> words) {
    List<String> out = new ArrayList<>();
    for (String w : words) {
      StringBuilder letters = new StringBuilder();
      for (int i = 0; i < w.length(); i++)
        if (!Character.isDigit(w.charAt(i))) letters.append(w.charAt(i));
      if (letters.length() > 0) out.add(letters.toString());
    }
    return out;
  }

  /** The words of a text in their order, folded, without marks. */
  static List<String> words(String s) {
    List<String> out = new ArrayList<>();
    StringBuilder word = new StringBuilder();
    String folded = Fold.lower(Fold.accents(s));
    for (int i = 0; i <= folded.length(); i++) {
      char c = i < folded.length() ? folded.charAt(i) : ' ';
      if (Character.isLetterOrDigit(c)) word.append(c);
      else if (!isUnseen(c) && word.length() > 0) {
        out.add(word.toString());
        word.setLength(0);
      }
    }
    return out;
  }

  /** Accents written as signs of their own, and signs that take no room. */
  static boolean isUnseen(char c) {
    int type = Character.getType(c);
    return type == Character.NON_SPACING_MARK || type == Character.FORMAT;
  }

  /**
   * Whether two words that are some letters apart are two words of the language rather than a
   * mistake in one: other directions, a prefix that turns the meaning, or several letters changed
   * at the beginning, where mistakes are rare.
   */
  static boolean words(String a, String b, int apart) {
    if (!compass(a).equals(compass(b))) return true;
    String longer = a.length() >= b.length() ? a : b;
    String shorter = longer.equals(a) ? b : a;
    for (String p : PREFIXES) if (longer.equals(p + shorter)) return true;
    return apart > 1 && a.charAt(0) != b.charAt(0);
  }

  private static String compass(String word) {
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < word.length(); i++)
      for (String c : COMPASS) if (word.startsWith(c, i)) out.append(c.charAt(0));
    return out.toString();
  }
}
