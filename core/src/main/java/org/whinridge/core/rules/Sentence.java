package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.whinridge.core.value.Fold;
import org.whinridge.core.value.Value;

/**
 * A tree as plain English, with labels in place of names and codes, and numbers with their unit.
 */
final class Sentence {
  private static final Set<String> CLOCK = Set.of("today", "now", "add_days");
  private final Scope scope;

  Sentence(Scope scope) {
    this.scope = scope;
  }

  String say(Node n) {
    if (n instanceof Node.Logic l) return logic(l);
    if (n instanceof Node.Not not) {
      if (not.operand() instanceof Node.Name name) return word(name) + " is no";
      return "it is not so that " + say(not.operand());
    }
    if (n instanceof Node.Compare c) return compare(c);
    if (n instanceof Node.Between b)
      return word(b.value())
          + (b.not() ? " is not between " : " is between ")
          + word(b.low())
          + " and "
          + beside(b.value(), b.high());
    if (n instanceof Node.In in)
      return word(in.value())
          + (!in.not() ? " is " : in.items().size() == 1 ? " is not " : " is neither ")
          + either(in.value(), in.items(), in.not() ? " nor " : " or ");
    if (n instanceof Node.IsNull i)
      return word(i.value()) + (i.not() ? " is answered" : " is not answered");
    if (n instanceof Node.Like l)
      return word(l.left()) + (l.not() ? " is not like " : " is like ") + word(l.pattern());
    if (n instanceof Node.Name name) return word(name) + " is yes";
    return word(n);
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

  private String compare(Node.Compare c) {
    if (c.right() instanceof Node.Literal l && l.value() instanceof Value.Bool b)
      return word(c.left()) + (b.value() == c.op().equals("=") ? " is yes" : " is no");
    boolean time =
        c.right() instanceof Node.Literal l
            ? l.value() instanceof Value.Day || l.value() instanceof Value.Moment
            : c.right() instanceof Node.Call call && CLOCK.contains(call.function());
    return word(c.left()) + " " + verb(c.op(), time) + " " + beside(c.left(), c.right());
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
    List<String> items = nodes.stream().map(i -> beside(question, i)).toList();
    int n = items.size();
    return n == 1
        ? items.get(0)
        : String.join(", ", items.subList(0, n - 1)) + last + items.get(n - 1);
  }

  /** A literal beside a question: a code by its label, a number with the question's unit. */
  private String beside(Node question, Node n) {
    if (!(question instanceof Node.Name q) || !(n instanceof Node.Literal l)) return word(n);
    Scope.Known known = scope.find(q.name()).orElse(null);
    if (known == null) return word(n);
    for (Scope.CodeLabel c : known.codes())
      if (c.code().equals(l.value().plain())) return Fold.lower(c.label());
    return known.unit().isEmpty() || !(l.value() instanceof Value.Num)
        ? word(n)
        : word(n) + " " + known.unit();
  }

  private String word(Node n) {
    if (n instanceof Node.Name m)
      return scope.find(m.name()).map(k -> lowerFirst(k.label())).orElse(m.name());
    if (n instanceof Node.Literal l) return literal(l.value());
    if (n instanceof Node.Arithmetic a)
      return operand(a.left())
          + " "
          + (a.op().equals("*") ? "×" : a.op().equals("-") ? "−" : a.op())
          + " "
          + operand(a.right());
    if (n instanceof Node.Negate m) return "−" + operand(m.operand());
    if (n instanceof Node.ListOf l) return either(l, l.items(), " and ");
    if (n instanceof Node.Call c) return call(c);
    return say(n);
  }

  private String operand(Node n) {
    return n instanceof Node.Arithmetic ? "(" + word(n) + ")" : word(n);
  }

  private String call(Node.Call c) {
    List<String> args = new ArrayList<>();
    for (Node a : c.arguments())
      args.add(
          c.function().startsWith("A_") && a instanceof Node.ListOf l
              ? either(
                  c.arguments().get(0),
                  l.items(),
                  c.function().equals("A_OVERLAPS") ? " or " : " and ")
              : c.function().startsWith("A_") && !args.isEmpty()
                  ? beside(c.arguments().get(0), a)
                  : condition(a) ? say(a) : word(a));
    return Phrases.say(c.function(), args);
  }

  private static boolean condition(Node n) {
    return !(n instanceof Node.Name
        || n instanceof Node.Literal
        || n instanceof Node.Call
        || n instanceof Node.Arithmetic
        || n instanceof Node.Negate
        || n instanceof Node.ListOf);
  }

  private static String literal(Value v) {
    if (v instanceof Value.Text t)
      return t.value().equals("..") ? "any time" : "“" + t.value() + "”";
    if (v instanceof Value.Place p) return "a given " + Fold.lower(p.geometry().getGeometryType());
    return v.isEmpty() ? "nothing" : v.plain();
  }

  private static String lowerFirst(String s) {
    boolean acronym = s.length() > 1 && Character.isUpperCase(s.charAt(1));
    return s.isEmpty() || acronym ? s : Fold.lower(s.substring(0, 1)) + s.substring(1);
  }
}
