package org.whinridge.formats.crs;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A node of well-known text: keyword, then names, numbers and nodes in brackets. Source: OGC 01-009
 * (WKT 1), OGC 18-010r7 (WKT 2).
 */
record Wkt(String keyword, List<String> texts, List<Double> numbers, List<Wkt> children) {
  private static final int LONGEST = 20_000;
  private static final int DEEPEST = 20;

  /** Reads a text; empty when it is not well-known text. */
  static Optional<Wkt> parse(String text) {
    String s = text.replace("\uFEFF", "").strip();
    if (s.length() > LONGEST) return Optional.empty();
    Reader r = new Reader(s);
    try {
      Wkt w = r.node(0);
      return w.children.isEmpty() ? Optional.empty() : Optional.of(w);
    } catch (IllegalArgumentException | StringIndexOutOfBoundsException e) {
      return Optional.empty(); // told as a system that is not known
    }
  }

  /** The first child with a keyword, at any depth not below others of that keyword. */
  Optional<Wkt> child(String... keywords) {
    for (Wkt c : children) for (String k : keywords) if (c.keyword.equals(k)) return Optional.of(c);
    return Optional.empty();
  }

  /** The name: its first text. */
  String name() {
    return texts.isEmpty() ? "" : texts.get(0);
  }

  /** A number by place; {@code or} when there are not so many. */
  double number(int i, double or) {
    return i < numbers.size() ? numbers.get(i) : or;
  }

  /** The EPSG number of this node itself. */
  Optional<Integer> epsg() {
    Optional<Wkt> a = child("AUTHORITY", "ID");
    if (a.isEmpty() || !a.get().name().equalsIgnoreCase("EPSG")) return Optional.empty();
    String code =
        a.get().texts.size() > 1
            ? a.get().texts.get(1)
            : a.get().numbers.isEmpty() ? "" : String.valueOf(a.get().numbers.get(0).intValue());
    return code.matches("\\d{4,6}") ? Optional.of(Integer.valueOf(code)) : Optional.empty();
  }

  private static final class Reader {
    private final String s;
    private int i;

    Reader(String s) {
      this.s = s;
    }

    private void space() {
      while (i < s.length() && Character.isWhitespace(s.charAt(i))) i++;
    }

    Wkt node(int depth) {
      if (depth > DEEPEST) throw new IllegalArgumentException("too deep");
      space();
      int from = i;
      while (i < s.length() && (Character.isLetterOrDigit(s.charAt(i)) || s.charAt(i) == '_')) i++;
      if (i == from) throw new IllegalArgumentException("no keyword at " + i);
      Wkt w =
          new Wkt(
              s.substring(from, i).toUpperCase(Locale.ROOT),
              new ArrayList<>(),
              new ArrayList<>(),
              new ArrayList<>());
      space();
      if (i >= s.length() || (s.charAt(i) != '[' && s.charAt(i) != '(')) return w;
      do {
        i++;
        space();
        item(w, depth);
        space();
      } while (s.charAt(i) == ',');
      if (s.charAt(i) != ']' && s.charAt(i) != ')')
        throw new IllegalArgumentException("no end at " + i);
      i++;
      return w;
    }

    private void item(Wkt w, int depth) {
      char c = s.charAt(i);
      if (c == '"') {
        int end = s.indexOf('"', i + 1);
        w.texts.add(s.substring(i + 1, end));
        i = end + 1;
      } else if (c == '-' || c == '+' || c == '.' || Character.isDigit(c)) {
        int from = i;
        while ("+-.eE0123456789".indexOf(s.charAt(i)) >= 0) i++;
        w.numbers.add(Double.valueOf(s.substring(from, i)));
      } else w.children.add(node(depth + 1));
    }
  }
}
