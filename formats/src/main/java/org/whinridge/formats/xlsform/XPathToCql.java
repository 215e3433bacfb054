package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.value.ValueType;

/**
 * An XLSForm expression as CQL2 Text, where there is a counterpart for all of it. There an empty
 * answer is an empty text, and a comparison with it is simply false; here it is unknown. So
 * conditions are translated by what makes them true ({@link XPathConditions}), and mean the same.
 */
final class XPathToCql {
  private static final Map<String, String> SAME =
      Map.ofEntries(
          Map.entry("today", "today"),
          Map.entry("now", "now"),
          Map.entry("coalesce", "coalesce"),
          Map.entry("concat", "concat"),
          Map.entry("normalize-space", "trim"),
          Map.entry("abs", "abs"),
          Map.entry("sqrt", "sqrt"),
          Map.entry("floor", "floor"),
          Map.entry("ceiling", "ceil"),
          Map.entry("round", "round"),
          Map.entry("min", "min"),
          Map.entry("max", "max"),
          Map.entry("upper-case", "upper"),
          Map.entry("lower-case", "lower"),
          Map.entry("area", "area_m2"),
          Map.entry("count-selected", "count"));
  static final Set<String> TRUTHS =
      Set.of(
          "not",
          "true",
          "false",
          "boolean",
          "selected",
          "regex",
          "contains",
          "starts-with",
          "ends-with");
  private final Names names;
  private final List<String> groups;
  private final Names.Known self;
  private final String list;
  private final Map<String, String> columns;
  private final XPathConditions conditions = new XPathConditions(this);

  /**
   * @param groups the groups in which the expression stands, outermost first
   * @param self the question that the dot means; null for none
   * @param list the list section in which the expression stands; "" for none
   * @param columns the values of a choice's own columns, for choice filters
   */
  XPathToCql(
      Names names,
      List<String> groups,
      Names.Known self,
      String list,
      Map<String, String> columns) {
    this.names = names;
    this.groups = groups;
    this.self = self;
    this.list = list;
    this.columns = columns;
  }

  /** A condition that is yes exactly where the workbook's is true: relevant, choice_filter. */
  String ask(String xpath) throws XPath.Untranslatable {
    return conditions.text(XPath.read(xpath), true, Set.of());
  }

  /** A condition on an answer that is given; it is no exactly where the workbook's is false. */
  String check(String xpath) throws XPath.Untranslatable {
    XPath x = XPath.read(xpath);
    Set<String> filled = self == null ? Set.of() : Set.of(self.name());
    String text = conditions.check(x, filled);
    if (self == null || !conditions.mayBeUnknown(x, filled)) return text;
    // what another question leaves unknown is false there, but an empty answer is never checked
    return self.name() + " IS NULL OR coalesce(" + text + ", FALSE)";
  }

  /** A value: calculation, default. */
  String value(String xpath) throws XPath.Untranslatable {
    return value(XPath.read(xpath), 0);
  }

  /** The kind of value that an expression gives, as far as it can be told; TEXT when it can't. */
  ValueType type(String xpath) throws XPath.Untranslatable {
    return type(XPath.read(xpath));
  }

  Names.Known known(XPath x) {
    if (x instanceof XPath.Self) return self;
    return x instanceof XPath.Question q ? names.find(q.name(), groups) : null;
  }

  ValueType type(XPath x) {
    if (x instanceof XPath.Num || x instanceof XPath.Minus) return ValueType.NUMBER;
    if (known(x) != null) return known(x).type().valueType();
    if (x instanceof XPath.Binary b) {
      if (rank(b.op()) < 4) return ValueType.YES_NO;
      boolean day = type(b.left()) == ValueType.DATE;
      return day && type(b.right()) != ValueType.DATE ? ValueType.DATE : ValueType.NUMBER;
    }
    if (!(x instanceof XPath.Call c)) return ValueType.TEXT;
    if (TRUTHS.contains(c.function())) return ValueType.YES_NO;
    switch (c.function()) {
      case "today":
      case "date":
        return ValueType.DATE;
      case "now":
        return ValueType.DATE_TIME;
      case "if":
        return c.arguments().size() == 3 ? type(c.arguments().get(1)) : ValueType.TEXT;
      case "coalesce":
        return c.arguments().isEmpty() ? ValueType.TEXT : type(c.arguments().get(0));
      case "concat":
      case "string":
      case "substr":
      case "join":
      case "normalize-space":
      case "upper-case":
      case "lower-case":
      case "jr:choice-name":
        return ValueType.TEXT;
      default:
        return ValueType.NUMBER;
    }
  }

  /** Whether an expression can have no value, or depend on something that has none. */
  boolean mayBeEmpty(XPath x, Set<String> filled) {
    if (x instanceof XPath.Text || x instanceof XPath.Num || x instanceof XPath.Bare) return false;
    if (x instanceof XPath.Self || x instanceof XPath.Question)
      return known(x) == null || !filled.contains(known(x).name());
    if (x instanceof XPath.Minus m) return mayBeEmpty(m.of(), filled);
    if (x instanceof XPath.Binary b)
      return mayBeEmpty(b.left(), filled) || mayBeEmpty(b.right(), filled);
    XPath.Call c = (XPath.Call) x;
    if (Set.of("string-length", "count-selected", "count", "concat").contains(c.function()))
      return false;
    for (XPath a : c.arguments()) if (mayBeEmpty(a, filled)) return true;
    return false;
  }

  /** The questions outside of rows, or of the same row, that an expression reads. */
  Set<String> reads(XPath x) {
    Set<String> out = new LinkedHashSet<>();
    if (known(x) != null) out.add(known(x).name());
    if (x instanceof XPath.Minus m) out.addAll(reads(m.of()));
    if (x instanceof XPath.Binary b) {
      out.addAll(reads(b.left()));
      out.addAll(reads(b.right()));
    }
    if (x instanceof XPath.Call c) for (XPath a : c.arguments()) out.addAll(reads(a));
    return out;
  }

  static int rank(String op) {
    switch (op) {
      case "or":
        return 1;
      case "and":
        return 2;
      case "+":
      case "-":
        return 5;
      case "*":
      case "div":
      case "mod":
        return 6;
      default:
        return 3;
    }
  }

  /** A value as CQL2 Text, in brackets when it binds looser than {@code outer}. */
  String value(XPath x, int outer) throws XPath.Untranslatable {
    if (x instanceof XPath.Text t) return quoted(t.value());
    if (x instanceof XPath.Num n) return n.digits();
    if (x instanceof XPath.Self) {
      if (self == null) throw new XPath.Untranslatable("sheetTold.noQuestionDot");
      return self.name();
    }
    if (x instanceof XPath.Question q) return question(q, false);
    if (x instanceof XPath.Bare b) return quoted(column(b));
    if (x instanceof XPath.Minus m) return "-" + value(number(m.of()), 7);
    if (x instanceof XPath.Binary b && rank(b.op()) >= 5) return arithmetic(b, outer);
    boolean truth =
        x instanceof XPath.Binary || (x instanceof XPath.Call c && TRUTHS.contains(c.function()));
    return truth ? truth(x, outer) : call((XPath.Call) x);
  }

  /** A condition as a value: it is no where the workbook's is false, not unknown. */
  private String truth(XPath x, int outer) throws XPath.Untranslatable {
    String s = conditions.text(x, true, Set.of());
    if (conditions.mayBeUnknown(x, Set.of())) return "coalesce(" + s + ", FALSE)";
    return outer > 0 ? "(" + s + ")" : s;
  }

  /** What a column of the choices sheet holds for the choice at hand. */
  String column(XPath.Bare b) throws XPath.Untranslatable {
    if (columns.containsKey(b.name())) return columns.get(b.name());
    throw new XPath.Untranslatable("sheetTold.notKnown", "name", b.name());
  }

  private String arithmetic(XPath.Binary b, int outer) throws XPath.Untranslatable {
    ValueType l = type(b.left());
    ValueType r = type(b.right());
    if (l == ValueType.DATE && r == ValueType.DATE && b.op().equals("-"))
      return "days_between(" + value(b.right(), 0) + ", " + value(b.left(), 0) + ")";
    if (l == ValueType.DATE && b.op().matches("[+-]")) {
      String days = value(number(b.right()), b.op().equals("-") ? 7 : 0);
      return "add_days(" + value(b.left(), 0) + ", " + (b.op().equals("-") ? "-" : "") + days + ")";
    }
    int rank = rank(b.op());
    String op = b.op().equals("div") ? "/" : b.op().equals("mod") ? "%" : b.op();
    String s = value(number(b.left()), rank) + " " + op + " " + value(number(b.right()), rank + 1);
    return rank < outer ? "(" + s + ")" : s;
  }

  /** Something to reckon with: a text is none, and no function makes one of it. */
  private XPath number(XPath x) throws XPath.Untranslatable {
    if (x instanceof XPath.Text t && isNumber(t.value())) return new XPath.Num(t.value().strip());
    if (x instanceof XPath.Bare b && isNumber(column(b))) return new XPath.Num(column(b).strip());
    if (type(x) != ValueType.NUMBER)
      throw new XPath.Untranslatable("sheetTold.hereNothingCanBe", "type", type(x).said());
    return x;
  }

  static boolean isNumber(String s) {
    return s.strip().matches("-?[0-9]+(\\.[0-9]+)?");
  }

  /** A value that stands beside another: a text as a date or a number where that is one. */
  String beside(XPath other, XPath x) throws XPath.Untranslatable {
    String text =
        x instanceof XPath.Text t ? t.value() : x instanceof XPath.Bare b ? column(b) : null;
    if (text != null) {
      ValueType type = type(other);
      if (type == ValueType.DATE && !text.isEmpty()) return "DATE(" + quoted(text) + ")";
      if (type == ValueType.DATE_TIME && !text.isEmpty()) return "TIMESTAMP(" + quoted(text) + ")";
      if (type == ValueType.NUMBER && isNumber(text)) return text.strip();
    }
    if (x instanceof XPath.Num n && type(other) == ValueType.TEXT) return quoted(n.digits());
    return value(x, 5);
  }

  private String question(XPath.Question q, boolean column) throws XPath.Untranslatable {
    Names.Known k = known(q);
    if (k == null && names.list(q.name()) != null) return names.list(q.name());
    if (k == null) throw new XPath.Untranslatable("sheetTold.noQuestion", "name", q.name());
    if (k.list().isEmpty() || (k.list().equals(list) && !column)) return k.name();
    if (column) return k.list() + "." + k.name();
    throw new XPath.Untranslatable("sheetTold.standsRowsMany", "name", q.name(), "list", k.list());
  }

  private String call(XPath.Call c) throws XPath.Untranslatable {
    List<XPath> a = c.arguments();
    String f = c.function();
    switch (f + "/" + a.size()) {
      case "if/3":
        return "if("
            + conditions.text(a.get(0), true, Set.of())
            + ", "
            + value(a.get(1), 0)
            + ", "
            + beside(a.get(1), a.get(2))
            + ")";
      case "string-length/1":
        return mayBeEmpty(a.get(0), Set.of())
            ? "coalesce(length(" + value(a.get(0), 0) + "), 0)"
            : "length(" + value(a.get(0), 0) + ")";
      case "date/1":
        return a.get(0) instanceof XPath.Text t
            ? "DATE(" + quoted(t.value()) + ")"
            : value(a.get(0), 0);
      case "int/1":
        return "(" + value(number(a.get(0)), 6) + " div 1)";
      case "number/1":
      case "decimal/1":
        return value(number(a.get(0)), 7);
      case "string/1":
        return "concat(" + value(a.get(0), 0) + ")";
      case "pow/2":
        return "(" + value(number(a.get(0)), 8) + " ^ " + value(number(a.get(1)), 8) + ")";
      case "jr:choice-name/2":
        return "label(" + value(a.get(0), 0) + ")";
      case "substr/2":
      case "substr/3":
        return substr(a);
      case "join/2":
        if (a.get(1) instanceof XPath.Question q)
          return "joined(" + question(q, true) + ", " + value(a.get(0), 0) + ")";
        break;
      case "distance/1":
        return "length_m(" + value(a.get(0), 0) + ")";
      case "sum/1":
      case "count/1":
        if (a.get(0) instanceof XPath.Question q) return f + "(" + question(q, true) + ")";
        break;
      default:
        if ((f.equals("min") || f.equals("max"))
            && a.size() == 1
            && a.get(0) instanceof XPath.Question q
            && known(q) != null
            && !known(q).list().isEmpty()) return f + "(" + question(q, true) + ")";
        if (SAME.containsKey(f)) return SAME.get(f) + "(" + all(a) + ")";
    }
    throw new XPath.Untranslatable("sheetTold.functionUnknown", "function", f);
  }

  /** There counted from 0, and the end is a place; here from 1, and the end is a length. */
  private String substr(List<XPath> a) throws XPath.Untranslatable {
    boolean written =
        a.get(1) instanceof XPath.Num && (a.size() < 3 || a.get(2) instanceof XPath.Num);
    if (!written) throw new XPath.Untranslatable("sheetTold.placesSubstrMustBe");
    long from = whole((XPath.Num) a.get(1));
    return "substr("
        + value(a.get(0), 0)
        + ", "
        + (from + 1)
        + (a.size() < 3 ? "" : ", " + (whole((XPath.Num) a.get(2)) - from))
        + ")";
  }

  private static long whole(XPath.Num n) throws XPath.Untranslatable {
    try {
      return Long.parseLong(n.digits());
    } catch (NumberFormatException e) {
      throw new XPath.Untranslatable("sheetTold.placeTextWholeNumber");
    }
  }

  private String all(List<XPath> arguments) throws XPath.Untranslatable {
    List<String> out = new ArrayList<>();
    for (XPath x : arguments) out.add(value(x, 0));
    return String.join(", ", out);
  }

  static String quoted(String s) {
    return "'" + s.replace("'", "''") + "'";
  }

  /** The question type that shows a worked-out value of a kind. */
  static QuestionType shownAs(ValueType type) {
    switch (type) {
      case NUMBER:
        return QuestionType.DECIMAL;
      case YES_NO:
        return QuestionType.YES_NO;
      case DATE:
        return QuestionType.DATE;
      case DATE_TIME:
        return QuestionType.DATE_TIME;
      default:
        return QuestionType.TEXT;
    }
  }
}
