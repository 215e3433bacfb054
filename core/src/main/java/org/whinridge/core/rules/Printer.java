package org.whinridge.core.rules;

import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/**
 * A tree back to canonical CQL2 Text: keywords in capitals, brackets only where precedence needs
 * them.
 */
public final class Printer {
  private Printer() {}

  /** The tree as CQL2 Text. */
  public static String print(Node n) {
    return text(n);
  }

  /** A rule's text without the blanks that it can do without, for one that is near its limit. */
  public static String tight(String text) {
    StringBuilder b = new StringBuilder(text.length());
    for (Token t : Lexer.tokens(text)) {
      String word = text.substring(t.at().from(), t.at().to());
      boolean apart =
          b.length() > 0
              && !word.isEmpty()
              && !sign(b.charAt(b.length() - 1))
              && !sign(word.charAt(0));
      b.append(apart ? " " : "").append(word);
    }
    return b.toString();
  }

  private static boolean sign(char c) {
    return "=<>+-*/%^(),".indexOf(c) >= 0;
  }

  private static int rank(Node n) {
    if (n instanceof Node.Logic l) return l.and() ? 2 : 1;
    if (n instanceof Node.Not) return 3;
    if (n instanceof Node.Compare
        || n instanceof Node.Like
        || n instanceof Node.Between
        || n instanceof Node.In
        || n instanceof Node.IsNull) return 4;
    if (n instanceof Node.Arithmetic a)
      return a.op().equals("^") ? 7 : a.op().equals("+") || a.op().equals("-") ? 5 : 6;
    if (n instanceof Node.Negate) return 8;
    return n instanceof Node.Literal l && l.value() instanceof Value.Num v && v.value() < 0 ? 8 : 9;
  }

  private static String in(Node n, int least) {
    return rank(n) < least ? "(" + text(n) + ")" : text(n);
  }

  private static String text(Node n) {
    if (n instanceof Node.Literal l) return literal(l.value());
    if (n instanceof Node.Name m)
      return plainName(m.name()) && !RuleWords.isKeyword(m.name())
          ? m.name()
          : "\"" + m.name().replace("\"", "\"\"") + "\"";
    if (n instanceof Node.Compare c) return in(c.left(), 5) + " " + c.op() + " " + in(c.right(), 5);
    if (n instanceof Node.Like l)
      return in(l.left(), 5) + (l.not() ? " NOT LIKE " : " LIKE ") + in(l.pattern(), 5);
    if (n instanceof Node.Between b)
      return in(b.value(), 5)
          + (b.not() ? " NOT BETWEEN " : " BETWEEN ")
          + in(b.low(), 5)
          + " AND "
          + in(b.high(), 5);
    if (n instanceof Node.In i)
      return in(i.value(), 5) + (i.not() ? " NOT IN " : " IN ") + "(" + list(i.items()) + ")";
    if (n instanceof Node.IsNull i)
      return in(i.value(), 5) + (i.not() ? " IS NOT NULL" : " IS NULL");
    if (n instanceof Node.Logic l)
      return in(l.left(), l.and() ? 2 : 1)
          + (l.and() ? " AND " : " OR ")
          + in(l.right(), l.and() ? 3 : 2);
    if (n instanceof Node.Not not) return "NOT " + in(not.operand(), 3);
    if (n instanceof Node.Arithmetic a) {
      int r = rank(a);
      return in(a.left(), a.op().equals("^") ? r + 1 : r)
          + " "
          + a.op()
          + " "
          + in(a.right(), a.op().equals("^") ? r : r + 1);
    }
    if (n instanceof Node.Negate m) return "-" + in(m.operand(), 9);
    if (n instanceof Node.ListOf l) return "(" + list(l.items()) + ")";
    Node.Call c = (Node.Call) n;
    if (c.function().equals("INTERVAL"))
      return "INTERVAL(" + end(c.arguments().get(0)) + ", " + end(c.arguments().get(1)) + ")";
    return c.function() + "(" + list(c.arguments()) + ")";
  }

  /** An end of an interval is written as bare text, as the standard's examples do. */
  private static String end(Node n) {
    return n instanceof Node.Literal l
            && (l.value() instanceof Value.Day || l.value() instanceof Value.Moment)
        ? "'" + l.value().plain() + "'"
        : text(n);
  }

  private static boolean plainName(String s) {
    boolean start = true;
    for (int i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      boolean letter = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c == '_';
      if (!letter && (start || !(c >= '0' && c <= '9' || c == '.'))) return false;
      start = c == '.';
    }
    return !start;
  }

  private static String list(List<Node> items) {
    return String.join(", ", items.stream().map(Printer::text).toList());
  }

  private static String literal(Value v) {
    if (v instanceof Value.Num n) return Numbers.plain(n.value());
    if (v instanceof Value.Bool b) return b.value() ? "TRUE" : "FALSE";
    if (v instanceof Value.Day d) return "DATE('" + d.value() + "')";
    if (v instanceof Value.Moment m) return "TIMESTAMP('" + m.value() + "')";
    if (v instanceof Value.Place p) return wkt(p.geometry());
    return "'" + v.plain().replace("'", "''") + "'";
  }

  /** A geometry as WKT, its numbers by {@link Numbers#plain}. */
  public static String wkt(Geometry g) {
    return g.getGeometryType().toUpperCase(java.util.Locale.ROOT) + body(g);
  }

  private static String body(Geometry g) {
    if (g instanceof Point p) return "(" + position(p.getCoordinate()) + ")";
    if (g instanceof LineString l) return positions(l.getCoordinates());
    boolean tagged = g.getGeometryType().equals("GeometryCollection");
    StringBuilder b = new StringBuilder("(");
    if (g instanceof Polygon p) {
      b.append(positions(p.getExteriorRing().getCoordinates()));
      for (int i = 0; i < p.getNumInteriorRing(); i++)
        b.append(", ").append(positions(p.getInteriorRingN(i).getCoordinates()));
    } else
      for (int i = 0; i < g.getNumGeometries(); i++)
        b.append(i == 0 ? "" : ", ")
            .append(tagged ? wkt(g.getGeometryN(i)) : body(g.getGeometryN(i)));
    return b.append(")").toString();
  }

  private static String positions(Coordinate[] cs) {
    StringBuilder b = new StringBuilder("(");
    for (int i = 0; i < cs.length; i++) b.append(i == 0 ? "" : ", ").append(position(cs[i]));
    return b.append(")").toString();
  }

  private static String position(Coordinate c) {
    return Numbers.plain(c.x) + " " + Numbers.plain(c.y);
  }
}
