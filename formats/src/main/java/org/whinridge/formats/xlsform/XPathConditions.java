package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.ValueType;

/**
 * Conditions of XLSForm as conditions here: by the cases in which they are true there, or false,
 * with empty answers as the empty texts that they are there (XPath 1.0, sections 3.4 and 4.2, from
 * memory: a comparison of numbers with an empty text is false, two empty texts are equal, and not()
 * turns false into true).
 */
final class XPathConditions {
  /** A condition as text, and how tightly it binds: 1 OR, 2 AND, 4 everything else. */
  private record Said(String text, int rank) {
    String in(int outer) {
      return rank < outer ? "(" + text + ")" : text;
    }
  }

  private static final Set<String> YES = Set.of("yes", "ok", "true", "1");
  private static final Map<String, String> OPPOSITE =
      Map.of("<", ">=", ">", "<=", "<=", ">", ">=", "<");
  private final XPathToCql values;
  private boolean checking;

  XPathConditions(XPathToCql values) {
    this.values = values;
  }

  /**
   * The condition that is yes exactly where the workbook's is true, or false.
   *
   * @param filled questions that are known to be answered
   */
  String text(XPath x, boolean wanted, Set<String> filled) throws XPath.Untranslatable {
    return said(x, wanted, filled).text;
  }

  /** Whether the condition can be unknown here, where the workbook's is true or false. */
  boolean mayBeUnknown(XPath x, Set<String> filled) {
    if (x instanceof XPath.Binary b && XPathToCql.rank(b.op()) <= 2) {
      Set<String> more = new LinkedHashSet<>(filled);
      more.add(answered(b.left(), b.op().equals("and")));
      return mayBeUnknown(b.left(), filled) || mayBeUnknown(b.right(), more);
    }
    if (x instanceof XPath.Call c && c.function().equals("not") && c.arguments().size() == 1)
      return mayBeUnknown(c.arguments().get(0), filled);
    boolean withNothing =
        x instanceof XPath.Binary b && b.right() instanceof XPath.Text t && t.value().isEmpty();
    return !withNothing && (values.mayBeEmpty(x, filled) || ofLength(x, filled));
  }

  /** Whether a length that may be one of nothing is compared. */
  private boolean ofLength(XPath x, Set<String> filled) {
    if (x instanceof XPath.Binary b)
      return ofLength(b.left(), filled) || ofLength(b.right(), filled);
    return x instanceof XPath.Call c
        && c.function().equals("string-length")
        && c.arguments().stream().anyMatch(a -> values.mayBeEmpty(a, filled));
  }

  /** The same for a check, where unknown is not no. */
  String check(XPath x, Set<String> filled) throws XPath.Untranslatable {
    checking = true;
    try {
      return text(x, true, filled);
    } finally {
      checking = false;
    }
  }

  private Said said(XPath x, boolean wanted, Set<String> filled) throws XPath.Untranslatable {
    if (x instanceof XPath.Binary b && XPathToCql.rank(b.op()) <= 2)
      return logic(b, wanted, filled);
    if (x instanceof XPath.Binary b && XPathToCql.rank(b.op()) == 3)
      return compare(b, wanted, filled);
    if (x instanceof XPath.Call c) return call(c, wanted, filled);
    if (values.known(x) != null) return alone(x, wanted, filled);
    if (x instanceof XPath.Bare b)
      return new Said(values.column(b).isEmpty() == wanted ? "FALSE" : "TRUE", 4);
    throw new XPath.Untranslatable("sheetTold.noCondition");
  }

  /** A question as a condition: there it is true when it has an answer at all. */
  private Said alone(XPath x, boolean wanted, Set<String> filled) throws XPath.Untranslatable {
    if (values.type(x) == ValueType.YES_NO) return yes(x, wanted, filled);
    return new Said(values.value(x, 5) + (wanted ? " IS NOT NULL" : " IS NULL"), 4);
  }

  private Said yes(XPath x, boolean wanted, Set<String> filled) throws XPath.Untranslatable {
    String name = values.value(x, 5);
    if (wanted) return new Said(name, 4);
    return orEmpty(new Said("NOT " + name, 4), List.of(x), filled);
  }

  private Said logic(XPath.Binary b, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    boolean and = b.op().equals("and") == wanted;
    Said left = said(b.left(), wanted, filled);
    // behind “it is answered and …”, “it is empty or …” it is answered
    String answered = answered(b.left(), b.op().equals("and"));
    Set<String> more = filled;
    if (!answered.isEmpty()) {
      more = new LinkedHashSet<>(filled);
      more.add(answered);
    }
    Said right = said(b.right(), wanted, more);
    boolean strict =
        wanted
            && !checking
            && b.op().equals("and")
            && right.rank == 4
            && !right.text.endsWith(" NULL")
            && !right.text.startsWith("coalesce")
            && values.reads(b.right()).contains(answered);
    if (strict) return right; // where it is empty that is not yes anyway
    int rank = and ? 2 : 1;
    return new Said(
        left.in(rank) + (and ? " AND " : " OR ") + right.in(rank + (and ? 0 : 1)), rank);
  }

  /** The question of which a condition says that it is answered, or, for an or, empty. */
  private String answered(XPath x, boolean and) {
    boolean asks =
        x instanceof XPath.Binary b
            && b.op().equals(and ? "!=" : "=")
            && b.right() instanceof XPath.Text t
            && t.value().isEmpty();
    if (!asks) return "";
    Names.Known k = values.known(((XPath.Binary) x).left());
    return k == null ? "" : k.name();
  }

  /** Where one of these is empty, or the rest holds. */
  private Said orEmpty(Said rest, List<XPath> sides, Set<String> filled)
      throws XPath.Untranslatable {
    List<String> parts = new ArrayList<>();
    for (XPath side : sides)
      if (values.mayBeEmpty(side, filled)) parts.add(values.value(side, 5) + " IS NULL");
    if (parts.isEmpty()) return rest;
    parts.add(rest.in(2));
    return new Said(String.join(" OR ", parts), 1);
  }

  private Said compare(XPath.Binary b, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    Said special = special(b, b.left(), b.right(), b.op(), wanted, filled);
    if (special == null) special = special(b, b.right(), b.left(), turned(b.op()), wanted, filled);
    if (special != null) return special;
    String left = values.beside(b.right(), b.left());
    String right = values.beside(b.left(), b.right());
    boolean equal = b.op().equals("=") == wanted;
    if (!b.op().equals("=") && !b.op().equals("!=")) {
      Said is = new Said(left + " " + (wanted ? b.op() : OPPOSITE.get(b.op())) + " " + right, 4);
      return wanted ? is : orEmpty(is, List.of(b.left(), b.right()), filled);
    }
    // two empty answers are equal texts there; a number that is worked out of one equals nothing
    boolean both =
        values.known(b.left()) != null
            && values.known(b.right()) != null
            && values.mayBeEmpty(b.left(), filled)
            && values.mayBeEmpty(b.right(), filled);
    Said same = new Said(left + " = " + right, 4);
    Said other = new Said(left + " <> " + right, 4);
    if (!both) return equal ? same : orEmpty(other, List.of(b.left(), b.right()), filled);
    return new Said(
        equal
            ? same.text + " OR (" + left + " IS NULL AND " + right + " IS NULL)"
            : other.text
                + " OR ("
                + left
                + " IS NULL AND "
                + right
                + " IS NOT NULL) OR ("
                + left
                + " IS NOT NULL AND "
                + right
                + " IS NULL)",
        1);
  }

  private static String turned(String op) {
    return op.startsWith("<")
        ? op.replace('<', '>')
        : op.startsWith(">") ? op.replace('>', '<') : op;
  }

  /** Comparisons that are more than of two values: with nothing, yes and no, codes, lengths. */
  private Said special(
      XPath.Binary whole, XPath a, XPath b, String op, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    boolean equality = op.equals("=") || op.equals("!=");
    boolean equal = op.equals("=") == wanted;
    if (equality && b instanceof XPath.Text t && t.value().isEmpty())
      return new Said(values.value(a, 5) + (equal ? " IS NULL" : " IS NOT NULL"), 4);
    if (equality && isTruth(b)) {
      boolean yes = ((XPath.Call) b).function().equals("true");
      return said(a, yes == equal, filled);
    }
    if (equality && values.type(a) == ValueType.YES_NO && b instanceof XPath.Text t)
      return yes(a, YES.contains(t.value().toLowerCase(java.util.Locale.ROOT)), equal, filled);
    if (b instanceof XPath.Num n && values.known(a) != null && !values.known(a).codes().isEmpty())
      return codes(a, op, Double.parseDouble(n.digits()), wanted, filled);
    if (b instanceof XPath.Num n && a instanceof XPath.Call c && c.arguments().size() == 1)
      if (c.function().equals("string-length"))
        return length(c.arguments().get(0), op, Double.parseDouble(n.digits()), wanted, filled);
    if (equality && values.type(a) == ValueType.LIST)
      throw new XPath.Untranslatable("sheetTold.comparisonManyChoiceDepends");
    return null;
  }

  private static boolean isTruth(XPath x) {
    return x instanceof XPath.Call c
        && (c.function().equals("true") || c.function().equals("false"))
        && c.arguments().isEmpty();
  }

  /** A yes / no question that is, or is not, what a text says. */
  private Said yes(XPath a, boolean saysYes, boolean equal, Set<String> filled)
      throws XPath.Untranslatable {
    String name = values.value(a, 5);
    if (equal) return new Said(saysYes ? name : "NOT " + name, 4);
    return orEmpty(new Said(saysYes ? "NOT " + name : name, 4), List.of(a), filled);
  }

  /** Codes are texts here; there a code is compared with a number as the number it looks like. */
  private Said codes(XPath a, String op, double n, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    Names.Known k = values.known(a);
    if (k.type().valueType() == ValueType.LIST)
      throw new XPath.Untranslatable("sheetTold.manyChoiceSeveralCodes");
    List<String> fit = new ArrayList<>();
    for (String code : k.codes()) {
      double d = Numbers.read(code).orElse(Double.NaN);
      boolean holds =
          switch (op) {
            case "=" -> d == n;
            case "!=" -> d != n;
            case "<" -> d < n;
            case ">" -> d > n;
            case "<=" -> d <= n;
            default -> d >= n;
          };
      if (holds == wanted) fit.add(XPathToCql.quoted(code));
    }
    // an empty answer is no number: it is unequal to all, and neither under nor over any
    boolean empty = op.equals("!=") == wanted;
    Said among =
        fit.isEmpty()
            ? new Said("FALSE", 4)
            : fit.size() == 1
                ? new Said(k.name() + " = " + fit.get(0), 4)
                : new Said(k.name() + " IN (" + String.join(", ", fit) + ")", 4);
    if (!empty) return among;
    return fit.isEmpty() && values.mayBeEmpty(a, filled)
        ? new Said(k.name() + " IS NULL", 4)
        : orEmpty(among, List.of(a), filled);
  }

  /** There the length of an empty answer is 0; here it is unknown. */
  private Said length(XPath of, String op, double n, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    boolean zero =
        switch (op) {
          case "=" -> 0 == n;
          case "!=" -> 0 != n;
          case "<" -> 0 < n;
          case ">" -> 0 > n;
          case "<=" -> 0 <= n;
          default -> 0 >= n;
        };
    String what = values.value(of, 5);
    boolean onlyEmpty = n == 0 && (op.equals("=") || op.equals("<="));
    boolean anyText = n == 0 && (op.equals(">") || op.equals("!=")) || n == 1 && op.equals(">=");
    if (onlyEmpty || anyText)
      return new Said(what + (onlyEmpty == wanted ? " IS NULL" : " IS NOT NULL"), 4);
    String cql = op.equals("!=") ? "<>" : op;
    if (!wanted) cql = op.equals("=") ? "<>" : op.equals("!=") ? "=" : OPPOSITE.get(op);
    Said is = new Said("length(" + values.value(of, 0) + ") " + cql + " " + Numbers.plain(n), 4);
    return zero == wanted ? orEmpty(is, List.of(of), filled) : is;
  }

  private Said call(XPath.Call c, boolean wanted, Set<String> filled) throws XPath.Untranslatable {
    List<XPath> a = c.arguments();
    switch (c.function() + "/" + a.size()) {
      case "true/0":
      case "false/0":
        return new Said(c.function().equals("true") == wanted ? "TRUE" : "FALSE", 4);
      case "not/1":
        return said(a.get(0), !wanted, filled);
      case "boolean/1":
        return said(a.get(0), wanted, filled);
      case "selected/2":
        return denied(selected(a.get(0), a.get(1)), a.get(0), wanted, filled);
      case "contains/2":
        return like(a, "%", "%", wanted, filled);
      case "starts-with/2":
        return like(a, "", "%", wanted, filled);
      case "ends-with/2":
        return like(a, "%", "", wanted, filled);
      case "regex/2":
        return denied(
            "matches(" + values.value(a.get(0), 0) + ", " + values.value(a.get(1), 0) + ")",
            a.get(0),
            wanted,
            filled);
      default:
        if (values.type(c) != ValueType.YES_NO || XPathToCql.TRUTHS.contains(c.function()))
          throw new XPath.Untranslatable(
              "sheetTold.functionNoCounterpartAs", "function", c.function());
        String value = values.value(c, 5);
        return new Said(wanted ? value : "NOT coalesce(" + value + ", FALSE)", 4);
    }
  }

  /** Something that is false of an empty answer there, and unknown here. */
  private Said denied(String is, XPath of, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    if (wanted) return new Said(is, 4);
    int eq = is.startsWith("A_") || is.startsWith("matches(") ? -1 : is.indexOf(" = ");
    Said not =
        new Said(eq < 0 ? "NOT " + is : is.substring(0, eq) + " <> " + is.substring(eq + 3), 4);
    return orEmpty(not, List.of(of), filled);
  }

  private String selected(XPath question, XPath code) throws XPath.Untranslatable {
    String written =
        code instanceof XPath.Num n ? XPathToCql.quoted(n.digits()) : values.value(code, 5);
    if (values.type(question) == ValueType.LIST)
      return "A_CONTAINS(" + values.value(question, 0) + ", (" + written + "))";
    if (values.type(question) == ValueType.YES_NO && code instanceof XPath.Text t)
      return (YES.contains(t.value()) ? "" : "NOT ") + values.value(question, 5);
    return values.value(question, 5) + " = " + written;
  }

  private Said like(List<XPath> a, String before, String after, boolean wanted, Set<String> filled)
      throws XPath.Untranslatable {
    if (!(a.get(1) instanceof XPath.Text t))
      throw new XPath.Untranslatable("sheetTold.onlyTextWrittenOut");
    String pattern = t.value().replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_");
    Said is =
        new Said(
            values.value(a.get(0), 5)
                + (wanted ? " LIKE " : " NOT LIKE ")
                + XPathToCql.quoted(before + pattern + after),
            4);
    return wanted ? is : orEmpty(is, List.of(a.get(0)), filled);
  }
}
