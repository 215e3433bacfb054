package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
          Map.entry("trim", "normalize-space"),
          Map.entry("abs", "abs"),
          Map.entry("sqrt", "sqrt"),
          Map.entry("floor", "floor"),
          Map.entry("ceil", "ceiling"),
          Map.entry("round", "round"),
          Map.entry("min", "min"),
          Map.entry("max", "max"),
          Map.entry("sum", "sum"),
          Map.entry("upper", "upper-case"),
          Map.entry("lower", "lower-case"),
          Map.entry("matches", "regex"),
          Map.entry("area_m2", "area"),
          Map.entry("length_m", "distance"));
  private final Predicate<String> isQuestion;
  private final Predicate<String> isMany;
  private final UnaryOperator<String> yes;
  private String answered = "";

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
    if (n instanceof Node.Arithmetic a) return arithmetic(a);
    if (n instanceof Node.Negate m) return "-" + text(m.operand(), 7);
    if (n instanceof Node.Call c) return call(c);
    if (n instanceof Node.ListOf)
      throw new XPath.Untranslatable("sheetTold.listStandsWhereXlsform");
    return condition(n, Wanted.YES);
  }

  /** In which cases a condition is to be true there: here it may also be unknown. */
  enum Wanted {
    YES,
    NO,
    /** Yes or unknown: what a check lets pass. */
    NOT_NO,
    NOT_YES;

    Wanted turned() {
      return switch (this) {
        case YES -> NO;
        case NO -> YES;
        case NOT_NO -> NOT_YES;
        case NOT_YES -> NOT_NO;
      };
    }

    boolean isUnknown() {
      return this == NOT_NO || this == NOT_YES;
    }

    boolean isYes() {
      return this == YES || this == NOT_NO;
    }
  }

  private static final Map<String, String> OPPOSITE =
      Map.of("=", "!=", "!=", "=", "<", ">=", ">", "<=", "<=", ">", ">=", "<");

  /** A condition that is true there exactly where ours is as wanted, empty answers included. */
  private String condition(Node n, Wanted w) throws XPath.Untranslatable {
    if (n instanceof Node.Not not) return condition(not.operand(), w.turned());
    if (n instanceof Node.Logic l) {
      boolean and = l.and() == w.isYes();
      return bracket(l.left(), w, and) + (and ? " and " : " or ") + bracket(l.right(), w, and);
    }
    if (n instanceof Node.Literal l)
      return l.value().isEmpty()
          ? w.isUnknown() ? "true()" : "false()"
          : l.value().equals(Value.YES) == w.isYes() ? "true()" : "false()";
    if (n instanceof Node.Name name) return truth(name, w);
    if (n instanceof Node.IsNull i)
      return text(i.value(), 4) + (i.not() == w.isYes() ? " != ''" : " = ''");
    if (n instanceof Node.Compare c
        && c.left() instanceof Node.Name name
        && c.right() instanceof Node.Literal l
        && l.value() instanceof Value.Bool b)
      return condition(name, b.value() == c.op().equals("=") ? w : w.turned());
    if (n instanceof Node.Compare c) {
      String op = c.op().equals("<>") ? "!=" : c.op();
      String is = w.isYes() ? op : OPPOSITE.get(op);
      String said = text(c.left(), 4) + " " + is + " " + text(c.right(), 5);
      // of “is not” it is true there of an empty answer, and two empty answers are equal
      boolean names = c.left() instanceof Node.Name && c.right() instanceof Node.Name;
      return guarded(said, is.equals("!=") || (is.equals("=") && names), w, c.left(), c.right());
    }
    if (n instanceof Node.In in) {
      boolean among = w.isYes() != in.not();
      List<String> parts = new ArrayList<>();
      for (Node item : in.items())
        parts.add(text(in.value(), 4) + (among ? " = " : " != ") + text(item, 5));
      String said = String.join(among ? " or " : " and ", parts);
      return guarded(parts.size() > 1 ? "(" + said + ")" : said, !among, w, in.value());
    }
    if (n instanceof Node.Between b) {
      boolean inside = w.isYes() != b.not();
      String v = text(b.value(), 5);
      String low = v + (inside ? " >= " : " < ") + text(b.low(), 5);
      String high = v + (inside ? " <= " : " > ") + text(b.high(), 5);
      return guarded(
          "(" + low + (inside ? " and " : " or ") + high + ")",
          false,
          w,
          b.value(),
          b.low(),
          b.high());
    }
    if (n instanceof Node.Like l) {
      boolean like = w.isYes() != l.not();
      return guarded(like ? like(l) : "not(" + like(l) + ")", !like, w, l.left());
    }
    if (n instanceof Node.Call c) {
      String said = call(c);
      boolean plain = c.arguments().isEmpty();
      Node of = plain ? null : c.arguments().get(0);
      String is = w.isYes() ? said : "not(" + said + ")";
      return plain ? is : guarded(is, !w.isYes(), w, of);
    }
    throw new XPath.Untranslatable("sheetTold.noCondition");
  }

  private String bracket(Node n, Wanted w, boolean and) throws XPath.Untranslatable {
    String s = condition(n, w);
    boolean other = and ? s.contains(" or ") : s.contains(" and ");
    return other && !(s.startsWith("(") && s.endsWith(")") && s.indexOf(')') == s.length() - 1)
        ? "(" + s + ")"
        : s;
  }

  /** A yes / no question that stands as a condition is a comparison there. */
  private String truth(Node.Name name, Wanted w) throws XPath.Untranslatable {
    String whenYes = yes.apply(name.name());
    String whenNo = whenYes.equals("yes") ? "no" : "false";
    String said = name(name.name()) + " = '" + (w.isYes() ? whenYes : whenNo) + "'";
    return guarded(said, false, w, name);
  }

  /**
   * What is to be said of empty answers beside a comparison.
   *
   * @param trueOfEmpty whether the comparison is true there of an empty answer
   */
  private String guarded(String said, boolean trueOfEmpty, Wanted w, Node... sides)
      throws XPath.Untranslatable {
    List<String> guards = new ArrayList<>();
    boolean lengths = false;
    for (Node side : sides) {
      lengths |= isLength(side);
      for (String name : strict(side))
        if (!name.equals(answered)) guards.add(name(name) + (w.isUnknown() ? " = ''" : " != ''"));
    }
    if (guards.isEmpty()) return said;
    if (w.isUnknown()) return "(" + String.join(" or ", guards) + " or " + said + ")";
    return trueOfEmpty || lengths
        ? "(" + String.join(" and ", guards) + " and " + said + ")"
        : said;
  }

  /** The length of an empty answer is 0 there, and so compared like any number. */
  private static boolean isLength(Node n) {
    if (n instanceof Node.Call c && c.function().equals("length")) return true;
    return n.parts().stream().anyMatch(CqlToXPath::isLength);
  }

  /** The names without which something has no value. */
  private static Set<String> strict(Node n) {
    Set<String> out = new LinkedHashSet<>();
    if (n instanceof Node.Name name) out.add(name.name());
    boolean copes =
        n instanceof Node.Call c
            && Set.of("coalesce", "if", "concat", "count", "sum", "min", "max", "mean")
                .contains(c.function());
    if (!copes) for (Node part : n.parts()) out.addAll(strict(part));
    return out;
  }

  /** A condition under which something is asked. */
  String ask(Node n) throws XPath.Untranslatable {
    return bare(condition(n, Wanted.YES));
  }

  /** A check on an answer that is given: what is not broken passes. */
  String check(Node n, String question) throws XPath.Untranslatable {
    answered = question;
    try {
      return bare(condition(n, Wanted.NOT_NO));
    } finally {
      answered = "";
    }
  }

  /** Without brackets around the whole. */
  private static String bare(String s) {
    if (!s.startsWith("(") || !s.endsWith(")")) return s;
    int depth = 0;
    char quote = 0;
    for (int i = 0; i < s.length() - 1; i++) {
      char c = s.charAt(i);
      if (quote != 0 || c == '\'' || c == '"') {
        quote = quote == 0 ? c : quote == c ? 0 : quote;
        continue; // a bracket inside of a text is none
      }
      depth += c == '(' ? 1 : c == ')' ? -1 : 0;
      if (depth == 0) return s;
    }
    return s.substring(1, s.length() - 1);
  }

  private String name(String name) throws XPath.Untranslatable {
    if (name.equals(answered)) return ".";
    String question = name.contains(".") ? name.substring(name.indexOf('.') + 1) : name;
    boolean prefix = name.startsWith("before.") || name.startsWith("last.");
    if (prefix || !isQuestion.test(question))
      throw new XPath.Untranslatable("sheetTold.NotKnownXlsform", "name", name);
    return "${" + question + "}";
  }

  private static String literal(Value v) throws XPath.Untranslatable {
    if (v instanceof Value.Num) return v.plain();
    if (v instanceof Value.Bool b) return b.value() ? "true()" : "false()";
    if (v instanceof Value.Day) return "date('" + v.plain() + "')";
    if (v.isEmpty()) return "''";
    if (!(v instanceof Value.Text))
      throw new XPath.Untranslatable("sheetTold.xlsformNoWayWrite", "type", v.type().said());
    String s = v.plain();
    if (!s.contains("'")) return "'" + s + "'";
    if (!s.contains("\"")) return "\"" + s + "\"";
    throw new XPath.Untranslatable("sheetTold.textBothKindsQuotes");
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
    throw new XPath.Untranslatable("sheetTold.likeNoCounterpart");
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
      case "length":
        return "string-length(" + text(a.get(0), 0) + ")";
      case "days_between":
        return "(" + text(a.get(1), 5) + " - " + text(a.get(0), 6) + ")";
      case "add_days":
        return "date(" + text(a.get(0), 5) + " + " + text(a.get(1), 6) + ")";
      case "joined":
        if (a.size() == 2) return "join(" + text(a.get(1), 0) + ", " + text(a.get(0), 0) + ")";
        return "join(', ', " + text(a.get(0), 0) + ")";
      case "substr":
        if (a.get(1) instanceof Node.Literal from
            && from.value() instanceof Value.Num f
            && (a.size() < 3
                || (a.get(2) instanceof Node.Literal l && l.value() instanceof Value.Num))) {
          String begin = Value.of(f.value() - 1).plain();
          if (a.size() < 3) return "substr(" + text(a.get(0), 0) + ", " + begin + ")";
          double count = ((Value.Num) ((Node.Literal) a.get(2)).value()).value();
          return "substr("
              + text(a.get(0), 0)
              + ", "
              + begin
              + ", "
              + Value.of(f.value() - 1 + count).plain()
              + ")";
        }
        break;
      case "label":
        return "jr:choice-name(" + text(a.get(0), 0) + ", '" + text(a.get(0), 0) + "')";
      case "if":
        return "if(" + ask(a.get(0)) + ", " + text(a.get(1), 0) + ", " + text(a.get(2), 0) + ")";
      default:
    }
    String f = SAME.get(c.function());
    if (f == null)
      throw new XPath.Untranslatable("sheetTold.functionNoCounterpart", "function", c.function());
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
