package org.whinridge.core.form.line;

import java.util.ArrayList;
import java.util.List;

/** The signs of a line, and how a sign that stands for itself is written: with a backslash. */
final class Signs {
  /** What means something in a line. */
  private static final String MEANING = "\\:|=<{}*#>\u2026";

  private Signs() {}

  /** A text as it stands in a line. */
  static String written(String text) {
    StringBuilder b = new StringBuilder();
    String one = text.replaceAll("\\s+", " ").strip();
    for (int i = 0; i < one.length(); i++) {
      char c = one.charAt(i);
      boolean hint = c == '/' && i + 1 < one.length() && one.charAt(i + 1) == '/';
      if (MEANING.indexOf(c) >= 0 || hint) b.append('\\');
      b.append(c);
      if (hint) b.append(one.charAt(++i));
    }
    return b.toString();
  }

  /** A text as it stands at a line's end, where only the sign for more means something. */
  static String atEnd(String text) {
    return text.replaceAll("\\s+", " ")
        .strip()
        .replace("\\", "\\\\")
        .replace(QuestionLine.MORE, "\\" + QuestionLine.MORE);
  }

  /** The text that a part of a line stands for. */
  static String meant(String part) {
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < part.length(); i++) {
      char c = part.charAt(i);
      if (c == '\\' && i + 1 < part.length()) b.append(part.charAt(++i));
      else b.append(c);
    }
    return b.toString().replaceAll("\\s+", " ").strip();
  }

  /** Where a sign stands that means something, from a place on; -1 for nowhere. */
  static int find(String line, String sign, int from) {
    for (int i = from; i < line.length(); i++) {
      if (line.charAt(i) == '\\') i++;
      else if (line.startsWith(sign, i)) return i;
    }
    return -1;
  }

  /** The last such place; -1 for none. */
  static int last(String line, String sign) {
    int out = -1;
    for (int i = find(line, sign, 0); i >= 0; i = find(line, sign, i + 1)) out = i;
    return out;
  }

  /** A line cut at a sign. */
  static List<String> cut(String line, String sign) {
    List<String> out = new ArrayList<>();
    int from = 0;
    for (int at = find(line, sign, 0); at >= 0; at = find(line, sign, from)) {
      out.add(line.substring(from, at));
      from = at + sign.length();
    }
    out.add(line.substring(from));
    return out;
  }
}
