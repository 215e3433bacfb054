package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.whinridge.core.rules.Node;
import org.whinridge.core.value.Value;

/** A rule's tree as an XLSForm expression, where there is a counterpart for all of it. */
final class CqlToXPath {
  private static final Map<String, String> SAME =
      Map.ofEntries(
          Map.entry("today", "today"),
          Map.entry("now", "now"),
          Map.entry("if", "if"),
          Map.entry("coalesce", "coalesce"),
          Map.entry("concat", "concat"),
          Map.entry("length", "string-length"),
          Map.entry("trim", "normalize-space"),
          Map.entry("abs", "abs"),
          Map.entry("sqrt", "sqrt"),
          Map.entry("floor", "floor"),
          Map.entry("ceil", "ceiling"),
          Map.entry("round", "round"),
          Map.entry("min", "min"),
          Map.entry("max", "max"),
          Map.entry("sum", "sum"),
          Map.entry("matches", "regex"),
          Map.entry("area_m2", "area"),
          Map.entry("length_m", "distance"));
  private final Predicate<String> isQuestion;
  private final Predicate<String> isMany;
  private final UnaryOperator<String> yes;

  /**
   * @param isQuestion whether a question of the form has that name
   * @param isMany whether it is answered with several codes
   * @param yes the text that the yes of a yes / no question is there
   */
  CqlToXPath(Predicate<String> isQuestion, Predicate<String> isMany, UnaryOperator<String> yes) {
    this.isQuestion = isQuestion;
    this.isMany = isMany;
    this.yes = yes;
  }

  String translate(Node n) throws XPath.Untranslatable {
    return text(n, 0);
  }

  private static int rank(Node n) {
    if (n instanceof Node.Logic l) return l.and() ? 2 : 1;
    if (n instanceof Node.Compare c) return c.op().equals("=") || c.op().equals("<>") ? 3 : 4;
    if (n instanceof Node.Arithmetic a) return a.op().equals("+") || a.op().equals("-") ? 5 : 6;
    return n instanceof Node.Negate ? 7 : 8;
  }

  private String text(Node n, int outer) throws XPath.Untranslatable {
    String s = plain(n);
    return rank(n) < outer ? "(" + s + ")" : s;
  }

  private String plain(Node n) throws XPath.Untranslatable {
    if (n instanceof Node.Literal l) return literal(l.value());
    if (n instanceof Node.Name name) return name(name.name());
    if (n instanceof Node.Logic l) {
      int r = rank(l);
      return condition(l.left(), r) + (l.and() ? " and " : " or ") + condition(l.right(), r + 1);
    }
    if (n instanceof Node.Not not) return "not(" + condition(not.operand(), 0) + ")";
    if (n instanceof Node.Compare c
        && c.left() instanceof Node.Name name
        && c.right() instanceof Node.Literal l
        && l.value() instanceof Value.Bool b) {
      boolean same = b.value() == c.op().equals("=");
      return same ? condition(name, 0) : "not(" + condition(name, 0) + ")";
    }
    if (n instanceof Node.Compare c) {
      int r = rank(c);
      String op = c.op().equals("<>") ? "!=" : c.op();
      return text(c.left(), r) + " " + op + " " + text(c.right(), r + 1);
    }
    if (n instanceof Node.IsNull i) return text(i.value(), 4) + (i.not() ? " != ''" : " = ''");
    if (n instanceof Node.In in) {
      List<String> parts = new ArrayList<>();
      for (Node item : in.items()) parts.add(text(in.value(), 4) + " = " + text(item, 4));
      return (in.not() ? "not(" : "(") + String.join(" or ", parts) + ")";
    }
    if (n instanceof Node.Between b) {
      String v = text(b.value(), 5);
      return (b.not() ? "not(" : "(")
          + v
          + " >= "
          + text(b.low(), 5)
          + " and "
          + v
          + " <= "
          + text(b.high(), 5)
          + ")";
    }
    if (n instanceof Node.Like l) return (l.not() ? "not(" : "") + like(l) + (l.not() ? ")" : "");
    if (n instanceof Node.Arithmetic a) return arithmetic(a);
    if (n instanceof Node.Negate m) return "-" + text(m.operand(), 7);
    if (n instanceof Node.Call c) return call(c);
    throw new XPath.Untranslatable("a list stands where XLSForm has none");
  }

  /** A yes / no question that stands as a condition is a comparison there. */
  private String condition(Node n, int outer) throws XPath.Untranslatable {
    return n instanceof Node.Name name
        ? name(name.name()) + " = '" + yes.apply(name.name()) + "'"
        : text(n, outer);
  }

  /** A rule that is a condition as a whole. */
  String translateCondition(Node n) throws XPath.Untranslatable {
    return condition(n, 0);
  }

  private String name(String name) throws XPath.Untranslatable {
    String question = name.contains(".") ? name.substring(name.indexOf('.') + 1) : name;
    boolean prefix = name.startsWith("before.") || name.startsWith("last.");
    if (prefix || !isQuestion.test(question))
      throw new XPath.Untranslatable("‘" + name + "’ is not known to XLSForm");
    return "${" + question + "}";
  }

  private static String literal(Value v) throws XPath.Untranslatable {
    if (v instanceof Value.Num) return v.plain();
    if (v instanceof Value.Bool b) return b.value() ? "true()" : "false()";
    if (v instanceof Value.Day) return "date('" + v.plain() + "')";
    if (v.isEmpty()) return "''";
    if (!(v instanceof Value.Text))
      throw new XPath.Untranslatable("XLSForm has no way to write " + v.type().said());
    String s = v.plain();
    if (!s.contains("'")) return "'" + s + "'";
    if (!s.contains("\"")) return "\"" + s + "\"";
    throw new XPath.Untranslatable("a text with both kinds of quotes can't be written in XLSForm");
  }

  private String like(Node.Like l) throws XPath.Untranslatable {
    if (l.pattern() instanceof Node.Literal p && p.value() instanceof Value.Text t) {
      String s = t.value();
      String core = s.replaceAll("^%|%$", "");
      if (!core.matches(".*[%_\\\\].*")) {
        boolean front = s.startsWith("%");
        boolean back = s.endsWith("%") && s.length() > 1;
        String what = text(l.left(), 0) + ", " + literal(Value.text(core)) + ")";
        if (front && back) return "contains(" + what;
        if (back) return "starts-with(" + what;
        if (front) return "ends-with(" + what;
        return text(l.left(), 4) + " = " + literal(t);
      }
    }
    throw new XPath.Untranslatable("this LIKE has no counterpart");
  }

  private String arithmetic(Node.Arithmetic a) throws XPath.Untranslatable {
    int r = rank(a);
    switch (a.op()) {
      case "^":
        return "pow(" + text(a.left(), 0) + ", " + text(a.right(), 0) + ")";
      case "div":
        return "int(" + text(a.left(), 6) + " div " + text(a.right(), 7) + ")";
      case "/":
        return text(a.left(), r) + " div " + text(a.right(), r + 1);
      case "%":
        return text(a.left(), r) + " mod " + text(a.right(), r + 1);
      default:
        return text(a.left(), r) + " " + a.op() + " " + text(a.right(), r + 1);
    }
  }

  private String call(Node.Call c) throws XPath.Untranslatable {
    List<Node> a = c.arguments();
    switch (c.function()) {
      case "A_CONTAINS":
        return selected(a, " and ");
      case "A_OVERLAPS":
        return selected(a, " or ");
      case "count":
        return a.get(0) instanceof Node.Name n && isMany.test(n.name())
            ? "count-selected(" + text(n, 0) + ")"
            : "count(" + text(a.get(0), 0) + ")";
      case "label":
        return "jr:choice-name(" + text(a.get(0), 0) + ", '" + text(a.get(0), 0) + "')";
      case "if":
        return "if("
            + condition(a.get(0), 0)
            + ", "
            + text(a.get(1), 0)
            + ", "
            + text(a.get(2), 0)
            + ")";
      default:
    }
    String f = SAME.get(c.function());
    if (f == null)
      throw new XPath.Untranslatable("the function " + c.function() + " has no counterpart");
    List<String> args = new ArrayList<>();
    for (Node x : a) args.add(text(x, 0));
    return f + "(" + String.join(", ", args) + ")";
  }

  private String selected(List<Node> a, String join) throws XPath.Untranslatable {
    List<Node> codes = a.get(1) instanceof Node.ListOf l ? l.items() : List.of(a.get(1));
    List<String> parts = new ArrayList<>();
    for (Node code : codes) parts.add("selected(" + text(a.get(0), 0) + ", " + text(code, 0) + ")");
    return parts.size() == 1 ? parts.get(0) : "(" + String.join(join, parts) + ")";
  }
}
