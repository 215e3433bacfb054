package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.value.ValueType;

/** An XLSForm expression as CQL2 Text, where there is a counterpart for all of it. */
final class XPathToCql {
  private static final Map<String, String> SAME =
      Map.ofEntries(
          Map.entry("today", "today"),
          Map.entry("now", "now"),
          Map.entry("if", "if"),
          Map.entry("coalesce", "coalesce"),
          Map.entry("concat", "concat"),
          Map.entry("string-length", "length"),
          Map.entry("normalize-space", "trim"),
          Map.entry("abs", "abs"),
          Map.entry("sqrt", "sqrt"),
          Map.entry("floor", "floor"),
          Map.entry("ceiling", "ceil"),
          Map.entry("round", "round"),
          Map.entry("min", "min"),
          Map.entry("max", "max"),
          Map.entry("regex", "matches"),
          Map.entry("upper-case", "upper"),
          Map.entry("lower-case", "lower"),
          Map.entry("area", "area_m2"),
          Map.entry("count-selected", "count"));
  private final Names names;
  private final String self;
  private final String list;
  private final Map<String, String> columns;

  /**
   * @param self the question that the dot means; "" for none
   * @param list the list section in which the expression stands; "" for none
   * @param columns the values of a choice's own columns, for choice filters
   */
  XPathToCql(Names names, String self, String list, Map<String, String> columns) {
    this.names = names;
    this.self = self;
    this.list = list;
    this.columns = columns;
  }

  /** The expression as CQL2 Text. */
  String translate(String xpath) throws XPath.Untranslatable {
    return text(XPath.read(xpath), 0);
  }

  /** The kind of value that an expression gives, as far as it can be told; TEXT when it can't. */
  ValueType type(String xpath) throws XPath.Untranslatable {
    return type(XPath.read(xpath));
  }

  private ValueType type(XPath x) {
    if (x instanceof XPath.Num || x instanceof XPath.Minus) return ValueType.NUMBER;
    if (x instanceof XPath.Question q && names.find(q.name()) != null)
      return names.find(q.name()).type().valueType();
    if (x instanceof XPath.Self && names.find(self) != null)
      return names.find(self).type().valueType();
    if (x instanceof XPath.Binary b) return rank(b.op()) >= 4 ? ValueType.NUMBER : ValueType.YES_NO;
    if (x instanceof XPath.Call c) {
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
        case "not":
        case "true":
        case "false":
        case "selected":
        case "regex":
        case "contains":
        case "starts-with":
        case "ends-with":
          return ValueType.YES_NO;
        case "concat":
        case "string":
        case "substr":
        case "normalize-space":
        case "upper-case":
        case "lower-case":
        case "jr:choice-name":
          return ValueType.TEXT;
        default:
          return ValueType.NUMBER;
      }
    }
    return ValueType.TEXT;
  }

  private static int rank(String op) {
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

  private String text(XPath x, int outer) throws XPath.Untranslatable {
    if (x instanceof XPath.Text t) return quoted(t.value());
    if (x instanceof XPath.Num n) return n.digits();
    if (x instanceof XPath.Self) {
      if (names.find(self) == null)
        throw new XPath.Untranslatable("there is no question for the dot");
      return names.find(self).name();
    }
    if (x instanceof XPath.Question q) return question(q, false);
    if (x instanceof XPath.Bare b) {
      if (columns.containsKey(b.name())) return quoted(columns.get(b.name()));
      throw new XPath.Untranslatable("‘" + b.name() + "’ is not known");
    }
    if (x instanceof XPath.Minus m) return "-" + text(m.of(), 7);
    if (x instanceof XPath.Binary b) return binary(b, outer);
    return call((XPath.Call) x);
  }

  private String question(XPath.Question q, boolean column) throws XPath.Untranslatable {
    if (names.list(q.name()) != null) return names.list(q.name());
    Names.Known k = names.find(q.name());
    if (k == null) throw new XPath.Untranslatable("there is no question ‘" + q.name() + "’");
    if (k.list().isEmpty() || (k.list().equals(list) && !column)) return k.name();
    if (column) return k.list() + "." + k.name();
    throw new XPath.Untranslatable(
        "‘" + q.name() + "’ stands in the rows of " + k.list() + ", of which there are many");
  }

  private String binary(XPath.Binary b, int outer) throws XPath.Untranslatable {
    String op = b.op();
    if (op.equals("=") || op.equals("!=")) {
      String special = equality(b.left(), b.right(), op.equals("="));
      if (special == null) special = equality(b.right(), b.left(), op.equals("="));
      if (special != null) return special;
    }
    int r = rank(op);
    String cql = op.equals("!=") ? "<>" : op.equals("div") ? "/" : op.equals("mod") ? "%" : op;
    if (r <= 2) cql = cql.toUpperCase(java.util.Locale.ROOT);
    String left = text(b.left(), r == 3 ? 4 : r);
    String right = r == 3 ? literalBeside(b.left(), b.right()) : text(b.right(), r + 1);
    String s = left + " " + cql + " " + right;
    return r < outer ? "(" + s + ")" : s;
  }

  /** A text beside a date question is a date, beside a number question a number. */
  private String literalBeside(XPath other, XPath x) throws XPath.Untranslatable {
    if (x instanceof XPath.Text t) {
      ValueType type = type(other);
      if (type == ValueType.DATE) return "DATE(" + quoted(t.value()) + ")";
      if (type == ValueType.NUMBER && t.value().matches("-?[0-9]+(\\.[0-9]+)?")) return t.value();
    }
    if (x instanceof XPath.Num n && type(other) == ValueType.TEXT && isName(other))
      return quoted(n.digits());
    return text(x, 4);
  }

  private static boolean isName(XPath x) {
    return x instanceof XPath.Question || x instanceof XPath.Self;
  }

  /** Comparing with an empty text, with true() or with 'yes' of an acknowledgement. */
  private String equality(XPath left, XPath right, boolean same) throws XPath.Untranslatable {
    if (right instanceof XPath.Text t && t.value().isEmpty())
      return text(left, 4) + (same ? " IS NULL" : " IS NOT NULL");
    if (type(left) == ValueType.YES_NO && isName(left) && right instanceof XPath.Text t) {
      boolean yes =
          t.value().equalsIgnoreCase("OK")
              || t.value().equalsIgnoreCase("yes")
              || t.value().equals("true");
      return (yes == same ? "" : "NOT ") + text(left, 4);
    }
    if (right instanceof XPath.Call c
        && c.function().matches("true|false")
        && c.arguments().isEmpty())
      return text(left, 4)
          + (same ? " = " : " <> ")
          + c.function().toUpperCase(java.util.Locale.ROOT);
    return null;
  }

  private String call(XPath.Call c) throws XPath.Untranslatable {
    List<XPath> a = c.arguments();
    String f = c.function();
    switch (f + "/" + a.size()) {
      case "true/0":
        return "TRUE";
      case "false/0":
        return "FALSE";
      case "not/1":
        return "NOT (" + text(a.get(0), 0) + ")";
      case "selected/2":
        return selected(a.get(0), a.get(1));
      case "date/1":
        return a.get(0) instanceof XPath.Text t
            ? "DATE(" + quoted(t.value()) + ")"
            : text(a.get(0), 0);
      case "int/1":
        return "(" + text(a.get(0), 6) + " div 1)";
      case "number/1":
      case "decimal/1":
        if (type(a.get(0)) == ValueType.NUMBER) return text(a.get(0), 7);
        break;
      case "string/1":
        return "concat(" + text(a.get(0), 0) + ")";
      case "pow/2":
        return "(" + text(a.get(0), 7) + " ^ " + text(a.get(1), 7) + ")";
      case "contains/2":
        return like(a, "%", "%");
      case "starts-with/2":
        return like(a, "", "%");
      case "ends-with/2":
        return like(a, "%", "");
      case "jr:choice-name/2":
        return "label(" + text(a.get(0), 0) + ")";
      case "substr/3":
        if (a.get(1) instanceof XPath.Num from && a.get(2) instanceof XPath.Num to)
          return "substr("
              + text(a.get(0), 0)
              + ", "
              + (whole(from) + 1)
              + ", "
              + (whole(to) - whole(from))
              + ")";
        break;
      case "distance/1":
        return "length_m(" + text(a.get(0), 0) + ")";
      case "sum/1":
      case "count/1":
        if (a.get(0) instanceof XPath.Question q) return f + "(" + question(q, true) + ")";
        break;
      default:
        if ((f.equals("min") || f.equals("max"))
            && a.size() == 1
            && a.get(0) instanceof XPath.Question q
            && names.find(q.name()) != null
            && !names.find(q.name()).list().isEmpty()) return f + "(" + question(q, true) + ")";
        if (SAME.containsKey(f)) return SAME.get(f) + "(" + all(a) + ")";
    }
    throw new XPath.Untranslatable("the function " + f + "() has no counterpart for this");
  }

  private static long whole(XPath.Num n) throws XPath.Untranslatable {
    try {
      return Long.parseLong(n.digits());
    } catch (NumberFormatException e) {
      throw new XPath.Untranslatable("a place in a text is a whole number");
    }
  }

  private String selected(XPath question, XPath code) throws XPath.Untranslatable {
    if (type(question) == ValueType.LIST)
      return "A_CONTAINS(" + text(question, 0) + ", (" + text(code, 0) + "))";
    return text(question, 4) + " = " + text(code, 4);
  }

  private String like(List<XPath> a, String before, String after) throws XPath.Untranslatable {
    if (!(a.get(1) instanceof XPath.Text t))
      throw new XPath.Untranslatable("only a text written out can be looked for in another");
    String pattern = t.value().replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_");
    return text(a.get(0), 4) + " LIKE " + quoted(before + pattern + after);
  }

  private String all(List<XPath> arguments) throws XPath.Untranslatable {
    List<String> out = new ArrayList<>();
    for (XPath x : arguments) out.add(text(x, 0));
    return String.join(", ", out);
  }

  private static String quoted(String s) {
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
