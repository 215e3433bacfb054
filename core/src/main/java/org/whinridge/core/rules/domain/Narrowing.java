package org.whinridge.core.rules.domain;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.value.Value;

/** How a comparison with literals narrows what its name may be: in one of several ways. */
record Narrowing(Node.Name name, List<UnaryOperator<Domain>> ways) {
  /** What is known of a name where a condition is yes, or no; null when it narrows none. */
  static Narrowing of(Node n, boolean yes) {
    if (n instanceof Node.Name name) return one(name, d -> d.among(Set.of(Value.of(yes)), true));
    if (n instanceof Node.Compare c) return compare(c, yes);
    if (n instanceof Node.Between b) return between(b, yes != b.not());
    if (n instanceof Node.In in && !(in.value() instanceof Node.Literal)) {
      Set<Value> values = literals(in.items());
      return values == null ? null : among(named(in.value()), values, yes != in.not());
    }
    if (n instanceof Node.Like l
        && !(l.left() instanceof Node.Literal)
        && l.pattern() instanceof Node.Literal p
        && p.value() instanceof Value.Text t)
      return one(named(l.left()), d -> d.like(t.value(), yes != l.not()));
    return n instanceof Node.Call c ? list(c, yes) : null;
  }

  /** What is worked out stands for a value, too: two comparisons of it are of the same one. */
  private static Node.Name named(Node n) {
    return n instanceof Node.Name name ? name : new Node.Name("\u0000" + Printer.print(n), n.at());
  }

  private static Narrowing one(Node.Name name, UnaryOperator<Domain> way) {
    return new Narrowing(name, List.of(way));
  }

  private static Narrowing compare(Node.Compare c, boolean yes) {
    boolean turned = c.left() instanceof Node.Literal;
    Node name = turned ? c.right() : c.left();
    Node literal = turned ? c.left() : c.right();
    if (name instanceof Node.Literal || !(literal instanceof Node.Literal l)) return null;
    Node.Name n = named(name);
    String op = yes ? c.op() : Node.Compare.opposite(c.op());
    if (turned) op = Node.Compare.turned(op);
    Value v = l.value();
    if (v.isEmpty() || v instanceof Value.Place) return null;
    if (op.equals("=") || op.equals("<>")) return among(n, Set.of(v), op.equals("="));
    String order = op;
    return isOrdered(v) ? one(n, d -> d.within(order, v)) : null;
  }

  private static boolean isOrdered(Value v) {
    return v instanceof Value.Num
        || v instanceof Value.Text
        || v instanceof Value.Day
        || v instanceof Value.Moment;
  }

  private static Narrowing between(Node.Between b, boolean inside) {
    if (b.value() instanceof Node.Literal
        || !(b.low() instanceof Node.Literal low)
        || !(b.high() instanceof Node.Literal high)
        || !isOrdered(low.value())
        || !isOrdered(high.value())) return null;
    Node.Name name = named(b.value());
    if (inside) return one(name, d -> d.within(">=", low.value()).within("<=", high.value()));
    return new Narrowing(
        name, List.of(d -> d.within("<", low.value()), d -> d.within(">", high.value())));
  }

  private static Narrowing among(Node.Name name, Set<Value> values, boolean in) {
    return one(name, d -> d.among(values, in));
  }

  private static Set<Value> literals(List<Node> items) {
    Set<Value> values = new LinkedHashSet<>();
    for (Node item : items) {
      if (!(item instanceof Node.Literal l) || l.value().isEmpty()) return null;
      values.add(l.value());
    }
    return values;
  }

  /** The array operators between a name and a list that is written out. */
  private static Narrowing list(Node.Call c, boolean yes) {
    if (!c.function().startsWith("A_") || !(c.arguments().get(0) instanceof Node.Name name))
      return null;
    Node second = c.arguments().get(1);
    Set<Value> set = literals(second instanceof Node.ListOf l ? l.items() : List.of(second));
    if (set == null) return null;
    List<UnaryOperator<Domain>> ways = new ArrayList<>();
    switch (c.function()) {
      case "A_CONTAINS":
        if (yes) ways.add(d -> d.list(d.list().with(set)));
        else for (Value v : set) ways.add(d -> d.list(d.list().without(Set.of(v))));
        break;
      case "A_OVERLAPS":
        if (!yes) ways.add(d -> d.list(d.list().without(set)));
        else for (Value v : set) ways.add(d -> d.list(d.list().with(Set.of(v))));
        break;
      case "A_CONTAINEDBY":
        ways.add(d -> d.list(yes ? d.list().within(set) : d.list().beyond(set)));
        break;
      default:
        ways.add(d -> d.list(yes ? d.list().with(set).within(set) : d.list().otherThan(set)));
    }
    return new Narrowing(name, ways);
  }
}
