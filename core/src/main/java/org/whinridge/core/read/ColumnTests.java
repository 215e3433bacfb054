package org.whinridge.core.read;

import java.util.Optional;
import java.util.TreeSet;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.value.Value;

/** Makes tests over columns out of a checked tree. Used by one thread for one run. */
final class ColumnTests {
  private final LayerColumns layer;
  private final Rule rule;
  private final RowSituation situation;

  ColumnTests(LayerColumns layer, Rule rule, Clock clock) {
    this.layer = layer;
    this.rule = rule;
    this.situation = new RowSituation(layer, clock);
  }

  Tests of(Node n) {
    if (n instanceof Node.Logic l) {
      Tests a = of(l.left());
      Tests b = of(l.right());
      return l.and() ? a.and(b) : a.or(b);
    }
    if (n instanceof Node.Not not) return of(not.operand()).not();
    if (n instanceof Node.Compare c) {
      Optional<Tests> fast =
          c.right() instanceof Node.Literal l
              ? compare(c.op(), c.left(), l.value())
              : c.left() instanceof Node.Literal l
                  ? compare(Node.Compare.turned(c.op()), c.right(), l.value())
                  : Optional.empty();
      if (fast.isPresent()) return fast.get();
    }
    if (n instanceof Node.Between b
        && b.low() instanceof Node.Literal low
        && b.high() instanceof Node.Literal high) {
      Optional<Tests> from = compare(">=", b.value(), low.value());
      Optional<Tests> to = compare("<=", b.value(), high.value());
      if (from.isPresent() && to.isPresent()) {
        Tests inside = from.get().and(to.get());
        return b.not() ? inside.not() : inside;
      }
    }
    return perValue(n).orElseGet(() -> perRow(n));
  }

  private Optional<Tests> compare(String op, Node left, Value literal) {
    if (!(left instanceof Node.Name name)
        || !(layer.column(name.name()).orElse(null) instanceof NumberColumn c)
        || !c.isWhole()) return Optional.empty();
    double k = NumberColumn.number(literal, c.type());
    if (Double.isNaN(k)) return Optional.empty();
    switch (op) {
      case "=":
        return Optional.of(new Tests(equal(c, k), unequal(c, k)));
      case "<>":
        return Optional.of(new Tests(unequal(c, k), equal(c, k)));
      case "<":
        return Optional.of(new Tests(below(c, k), atLeast(c, k)));
      case ">=":
        return Optional.of(new Tests(atLeast(c, k), below(c, k)));
      case ">":
        return Optional.of(new Tests(above(c, k), atMost(c, k)));
      default:
        return Optional.of(new Tests(atMost(c, k), above(c, k)));
    }
  }

  // A comparison with NaN, an empty value, is false both ways: neither yes nor no.

  private static Tests.Test equal(NumberColumn c, double k) {
    return (from, n, marks) -> {
      double[] v = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = (byte) (v[at + i] == k ? 1 : 0);
    };
  }

  private static Tests.Test unequal(NumberColumn c, double k) {
    return (from, n, marks) -> {
      double[] v = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = (byte) (v[at + i] < k || v[at + i] > k ? 1 : 0);
    };
  }

  private static Tests.Test below(NumberColumn c, double k) {
    return (from, n, marks) -> {
      double[] v = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = (byte) (v[at + i] < k ? 1 : 0);
    };
  }

  private static Tests.Test atLeast(NumberColumn c, double k) {
    return (from, n, marks) -> {
      double[] v = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = (byte) (v[at + i] >= k ? 1 : 0);
    };
  }

  private static Tests.Test above(NumberColumn c, double k) {
    return (from, n, marks) -> {
      double[] v = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = (byte) (v[at + i] > k ? 1 : 0);
    };
  }

  private static Tests.Test atMost(NumberColumn c, double k) {
    return (from, n, marks) -> {
      double[] v = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = (byte) (v[at + i] <= k ? 1 : 0);
    };
  }

  /** A condition that reads one dictionary column and nothing else: once per distinct value. */
  private Optional<Tests> perValue(Node n) {
    TreeSet<String> names = new TreeSet<>();
    Names.collect(n, names);
    if (names.size() != 1
        || !(layer.column(names.first()).orElse(null) instanceof DictionaryColumn c)
        || c.distinct() > layer.rows() / 2 + 64) return Optional.empty();
    byte[] yes = new byte[c.distinct()];
    byte[] no = new byte[yes.length];
    Rule.Part part = rule.part(n);
    for (int i = 0; i < yes.length; i++) {
      Value v = part.evaluate(situation.with(names.first(), c.distinct(i)));
      yes[i] = (byte) (v.equals(Value.YES) ? 1 : 0);
      no[i] = (byte) (v.equals(Value.NO) ? 1 : 0);
    }
    return Optional.of(new Tests(numbers(c, yes), numbers(c, no)));
  }

  private static Tests.Test numbers(DictionaryColumn c, byte[] holds) {
    return (from, n, marks) -> {
      int[] p = c.numbers().at(from);
      int at = Pages.in(from);
      for (int i = 0; i < n; i++) marks[i] = holds[p[at + i]];
    };
  }

  private Tests perRow(Node n) {
    return new Tests(row(n, Value.YES), row(n, Value.NO));
  }

  private Tests.Test row(Node n, Value wanted) {
    Rule.Part part = rule.part(n);
    return (from, count, marks) -> {
      for (int i = 0; i < count; i++)
        marks[i] = (byte) (part.evaluate(situation.at(from + i)).equals(wanted) ? 1 : 0);
    };
  }
}
