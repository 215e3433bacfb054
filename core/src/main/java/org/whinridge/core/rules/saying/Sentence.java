package org.whinridge.core.rules.saying;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.whinridge.core.rules.Functions;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.text.Fold;
import org.whinridge.core.value.Value;

/**
 * A tree as plain English, with labels in place of names and codes, and numbers with their unit.
 * Two rules that mean different things never read the same: what is made of parts stands in
 * brackets wherever another part could be taken into it.
 */
public final class Sentence {
  private static final Set<String> CLOCK = Set.of("today", "now", "add_days");

  /** What gives a value in the unit of what it is asked of. */
  private static final Set<String> KEEPS_UNIT =
      Set.of("abs", "round", "floor", "ceil", "min", "max", "sum", "mean", "coalesce");

  private final Scope scope;

  Sentence(Scope scope) {
    this.scope = scope;
  }

  /** The rule as an English sentence part: "kind is tide flap". */
  public static String of(Rule rule, Scope scope) {
    return new Sentence(scope).say(rule.tree());
  }

  /** A condition as a clause: "silt depth is over 100 mm". */
  String say(Node n) {
    if (n instanceof Node.Logic l) return logic(l);
    if (n instanceof Node.Not not) {
      if (not.operand() instanceof Node.Name name) return name(name) + " is no";
      String of = say(not.operand());
      return "it is not so that " + (not.operand() instanceof Node.Logic ? "(" + of + ")" : of);
    }
    if (n instanceof Node.Compare c) return compare(c);
    if (n instanceof Node.Between b)
      return side(b.value())
          + (b.not() ? " is not between " : " is between ")
          + inside(b.low())
          + " and "
          + beside(b.value(), b.high());
    if (n instanceof Node.In in)
      return side(in.value())
          + (!in.not() ? " is " : in.items().size() == 1 ? " is not " : " is neither ")
          + either(in.value(), in.items(), in.not() ? " nor " : " or ");
    if (n instanceof Node.IsNull i) return nothing(i);
    if (n instanceof Node.Like l)
      return side(l.left()) + (l.not() ? " is not like " : " is like ") + inside(l.pattern());
    if (n instanceof Node.Name name) return name(name) + " is yes";
    return side(n);
  }

  private String logic(Node.Logic l) {
    List<Node> parts = new ArrayList<>();
    Node n = l;
    while (n instanceof Node.Logic x && x.and() == l.and()) {
      parts.add(0, x.right());
      n = x.left();
    }
    parts.add(0, n);
    List<String> said = new ArrayList<>();
    boolean comma = false;
    for (Node part : parts) {
      String s = part instanceof Node.Logic ? "(" + say(part) + ")" : say(part);
      comma |= !(part instanceof Node.Logic) && (s.contains(" or ") || s.contains(" and "));
      said.add(s);
    }
    return String.join((comma ? ", " : " ") + (l.and() ? "and " : "or "), said);
  }

  private String nothing(Node.IsNull i) {
    if (i.value() instanceof Node.Name name)
      return name(name) + (i.not() ? " is answered" : " is not answered");
    if (isCondition(i.value()))
      return (i.not() ? "it is known whether " : "it is not known whether ") + clause(i.value());
    return side(i.value()) + (i.not() ? " gives a value" : " gives no value");
  }

  private String compare(Node.Compare c) {
    if (truth(c.right()) != null) return yesNo(c.left(), truth(c.right()) == c.op().equals("="));
    if (truth(c.left()) != null) return yesNo(c.right(), truth(c.left()) == c.op().equals("="));
    boolean time =
        c.right() instanceof Node.Literal l
            ? l.value() instanceof Value.Day || l.value() instanceof Value.Moment
            : c.right() instanceof Node.Call call && CLOCK.contains(call.function());
    String left =
        c.left() instanceof Node.Literal l ? literal(l.value(), unit(c.right())) : side(c.left());
    boolean equal = c.op().equals("=") || c.op().equals("<>");
    String right =
        equal && c.right() instanceof Node.Name name
            ? "the same as " + name(name)
            : c.right() instanceof Node.Literal ? beside(c.left(), c.right()) : side(c.right());
    return left + " " + verb(c.op(), time) + " " + right;
  }

  private static Boolean truth(Node n) {
    return n instanceof Node.Literal l && l.value() instanceof Value.Bool b ? b.value() : null;
  }

  private String yesNo(Node n, boolean yes) {
    String what = n instanceof Node.Name name ? name(name) : "(" + clause(n) + ")";
    return what + (yes ? " is yes" : " is no");
  }

  private static String verb(String op, boolean time) {
    switch (op) {
      case "=":
        return "is";
      case "<>":
        return "is not";
      case "<":
        return time ? "is before" : "is under";
      case ">":
        return time ? "is after" : "is over";
      case "<=":
        return time ? "is at the latest" : "is at most";
      default:
        return time ? "is at the earliest" : "is at least";
    }
  }

  private String either(Node question, List<Node> nodes, String last) {
    return Phrases.series(nodes.stream().map(i -> member(question, i)).toList(), last);
  }

  /** Something in a list beside a question: another question is told from a code of that label. */
  private String member(Node question, Node n) {
    return n instanceof Node.Name name ? "what " + name(name) + " is" : beside(question, n);
  }

  /** A value beside a question: a code by its label, a number with the question's unit. */
  private String beside(Node question, Node n) {
    if (!(n instanceof Node.Literal l)) return inside(n);
    List<Scope.CodeLabel> codes =
        question instanceof Node.Name q
            ? scope.find(q.name()).map(Scope.Known::codes).orElse(List.of())
            : List.of();
    for (Scope.CodeLabel c : codes) if (c.code().equals(l.value().plain())) return code(c, codes);
    return literal(l.value(), unit(question));
  }

  private static String code(Scope.CodeLabel c, List<Scope.CodeLabel> codes) {
    String said = Fold.lower(c.label());
    long alike = codes.stream().filter(x -> Fold.lower(x.label()).equals(said)).count();
    String one = isPlain(said) ? said : "“" + said + "”";
    return alike > 1 ? one + " (" + c.code() + ")" : one;
  }

  /** Whether words can stand in a sentence without being taken for its own. */
  private static boolean isPlain(String words) {
    String s = " " + words + " ";
    for (String taken : new String[] {",", "(", ")", "“", "”", " is ", " and ", " or ", " nor "})
      if (s.contains(taken)) return false;
    return !words.isBlank();
  }

  private String name(Node.Name n) {
    Scope.Known known = scope.find(n.name()).orElse(null);
    if (known == null) return n.name();
    String said = lowerFirst(known.label());
    String one = isPlain(said) ? said : "‘" + said + "’";
    return scope.isShared(known.label()) ? one + " (" + n.name() + ")" : one;
  }

  /** A value as one side of a comparison; what has parts of its own in a row stands in brackets. */
  private String side(Node n) {
    String said = word(n);
    return n instanceof Node.Call c && Phrases.isRow(c.function(), c.arguments().size())
        ? "(" + said + ")"
        : isComparison(n) ? "(" + said + ")" : said;
  }

  /** A value inside of another phrase: in brackets, unless it can only be taken as it is meant. */
  private String inside(Node n) {
    boolean closed =
        n instanceof Node.Name
            || n instanceof Node.Literal
            || (n instanceof Node.Call c && isClosed(c));
    return closed ? word(n) : "(" + word(n) + ")";
  }

  private static boolean isClosed(Node.Call c) {
    if (c.arguments().isEmpty() || Phrases.isPrefix(c.function())) return true;
    return c.function().equals("INTERVAL")
        && c.arguments().stream()
            .allMatch(a -> a instanceof Node.Literal || a instanceof Node.Name);
  }

  private static boolean isComparison(Node n) {
    return n instanceof Node.Compare
        || n instanceof Node.Like
        || n instanceof Node.Between
        || n instanceof Node.In
        || n instanceof Node.IsNull
        || n instanceof Node.Logic
        || n instanceof Node.Not;
  }

  private boolean isCondition(Node n) {
    return isComparison(n)
        || (n instanceof Node.Call c
            && Functions.find(c.function())
                .filter(f -> f.result() == org.whinridge.core.value.ValueType.YES_NO)
                .isPresent());
  }

  /** A condition inside of a phrase; a chain of them in brackets. */
  private String clause(Node n) {
    return n instanceof Node.Logic ? "(" + say(n) + ")" : say(n);
  }

  private String word(Node n) {
    if (n instanceof Node.Name m) return name(m);
    if (n instanceof Node.Literal l) return literal(l.value(), "");
    if (n instanceof Node.Arithmetic a) {
      boolean sum = a.op().equals("+") || a.op().equals("-");
      return operand(a.left(), sum ? unit(a.right()) : "")
          + " "
          + (a.op().equals("*") ? "×" : a.op().equals("-") ? "−" : a.op())
          + " "
          + operand(a.right(), sum ? unit(a.left()) : "");
    }
    if (n instanceof Node.Negate m) return "−" + operand(m.operand(), "");
    if (n instanceof Node.ListOf l)
      return l.items().isEmpty() ? "an empty list" : either(l, l.items(), " and ");
    return n instanceof Node.Call c ? call(c) : say(n);
  }

  private String operand(Node n, String unit) {
    if (n instanceof Node.Literal l) return literal(l.value(), unit);
    boolean plain = n instanceof Node.Name || (n instanceof Node.Call c && c.arguments().isEmpty());
    return plain ? word(n) : "(" + word(n) + ")";
  }

  private String call(Node.Call c) {
    List<Node> a = c.arguments();
    if (c.function().equals("add_days") && number(a.get(1)) != null) return days(a);
    if (c.function().equals("round") && a.size() == 2 && number(a.get(1)) != null)
      return inside(a.get(0)) + Phrases.rounded(number(a.get(1)));
    List<String> args = new ArrayList<>();
    for (int i = 0; i < a.size(); i++) args.add(argument(c, i));
    return Phrases.say(c.function(), args);
  }

  private String argument(Node.Call c, int i) {
    Node n = c.arguments().get(i);
    if (c.function().equals("INTERVAL")
        && n instanceof Node.Literal l
        && l.value().equals(Value.text(".."))) return "any time";
    if (c.function().startsWith("A_") && i > 0) {
      Node first = c.arguments().get(0);
      if (n instanceof Node.ListOf l && l.items().isEmpty()) return word(n);
      return n instanceof Node.ListOf l
          ? either(first, l.items(), c.function().equals("A_OVERLAPS") ? " or " : " and ")
          : member(first, n);
    }
    boolean condition = isComparison(n) || (c.function().equals("if") && i == 0);
    return condition ? clause(n) : inside(n);
  }

  private String days(List<Node> a) {
    double d = number(a.get(1));
    String count = literal(Value.of(Math.abs(d)), "");
    return count
        + (Math.abs(d) == 1 ? " day " : " days ")
        + (d < 0 ? "before " : "after ")
        + inside(a.get(0));
  }

  private static Double number(Node n) {
    return n instanceof Node.Literal l && l.value() instanceof Value.Num d ? d.value() : null;
  }

  /** The unit that a value comes in; "" when it has none, or more than one. */
  private String unit(Node n) {
    if (n instanceof Node.Name q) return scope.find(q.name()).map(Scope.Known::unit).orElse("");
    if (n instanceof Node.Negate m) return unit(m.operand());
    if (n instanceof Node.Arithmetic a && (a.op().equals("+") || a.op().equals("-"))) {
      String left = unit(a.left());
      String right = unit(a.right());
      if (a.left() instanceof Node.Literal) return right;
      return a.right() instanceof Node.Literal || left.equals(right) ? left : "";
    }
    return n instanceof Node.Call c && KEEPS_UNIT.contains(c.function()) && !c.arguments().isEmpty()
        ? unit(c.arguments().get(0))
        : "";
  }

  private static String literal(Value v, String unit) {
    if (v instanceof Value.Text t) return "“" + t.value().replace("”", "””") + "”";
    if (v instanceof Value.Place p) return Phrases.shape(p.geometry());
    if (v instanceof Value.Num n && !unit.isEmpty()) return v.plain() + " " + unit;
    return v.isEmpty() ? "nothing" : v.plain();
  }

  private static String lowerFirst(String s) {
    boolean acronym = s.length() > 1 && Character.isUpperCase(s.charAt(1));
    return s.isEmpty() || acronym ? s : Fold.lower(s.substring(0, 1)) + s.substring(1);
  }
}
