package org.whinridge.core.rules;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * Types of every node, names and codes that exist; collects all problems instead of stopping at the
 * first.
 */
final class Checker {
  private final Scope scope;
  private final List<RuleProblem> problems;
  private final Set<String> names = new LinkedHashSet<>();

  Checker(Scope scope, List<RuleProblem> problems) {
    this.scope = scope;
    this.problems = problems;
  }

  Set<String> names() {
    return java.util.Collections.unmodifiableSet(names);
  }

  ValueType type(Node n) {
    if (n instanceof Node.Literal l) return l.value().type();
    if (n instanceof Node.Name name) return name(name);
    if (n instanceof Node.Compare c) return compare(c);
    if (n instanceof Node.Like l) {
      want(l.left(), ValueType.TEXT);
      want(l.pattern(), ValueType.TEXT);
      if (isNothing(l.pattern())) neverTrue(l, l.left(), l.not());
      return ValueType.YES_NO;
    }
    if (n instanceof Node.Between b) {
      ValueType t = type(b.value());
      if (t == ValueType.TEXT
          || t == ValueType.YES_NO
          || t == ValueType.LIST
          || t == ValueType.GEOMETRY)
        wrong(b.value(), Said.of("rule.betweenWhat", "type", t.said()), "");
      want(b.low(), t);
      want(b.high(), t);
      return ValueType.YES_NO;
    }
    if (n instanceof Node.In in) {
      ValueType t = type(in.value());
      for (Node item : in.items()) {
        pair(in.value(), t, item, type(item));
        if (isNothing(item)) nothingAmong(in, item);
      }
      return ValueType.YES_NO;
    }
    if (n instanceof Node.IsNull i) {
      type(i.value());
      return ValueType.YES_NO;
    }
    if (n instanceof Node.Logic l) {
      want(l.left(), ValueType.YES_NO);
      want(l.right(), ValueType.YES_NO);
      return ValueType.YES_NO;
    }
    if (n instanceof Node.Not not) {
      want(not.operand(), ValueType.YES_NO);
      return ValueType.YES_NO;
    }
    if (n instanceof Node.Arithmetic a) {
      want(a.left(), ValueType.NUMBER);
      want(a.right(), ValueType.NUMBER);
      return ValueType.NUMBER;
    }
    if (n instanceof Node.Negate m) {
      want(m.operand(), ValueType.NUMBER);
      return ValueType.NUMBER;
    }
    if (n instanceof Node.ListOf l) {
      for (Node item : l.items()) type(item);
      return ValueType.LIST;
    }
    return call((Node.Call) n);
  }

  private ValueType name(Node.Name n) {
    Optional<Scope.Known> known = scope.find(n.name());
    if (known.isPresent()) {
      names.add(n.name());
      return known.get().type();
    }
    Optional<String> instead = scope.insteadOf(n.name());
    if (instead.isPresent()) {
      problems.add(
          new RuleProblem(
              RuleProblem.Kind.UNKNOWN_NAME,
              n.at(),
              Said.of("rule.nameOfRows", "name", n.name(), "instead", instead.get()),
              instead.get()));
      return ValueType.EMPTY;
    }
    Optional<String> near = Nearest.of(n.name(), scope.names());
    problems.add(
        new RuleProblem(
            RuleProblem.Kind.UNKNOWN_NAME,
            n.at(),
            near.map(s -> Said.of("rule.unknownNameNear", "name", n.name(), "near", s))
                .orElse(Said.of("rule.unknownName", "name", n.name())),
            near.orElse("'" + n.name() + "'")));
    return ValueType.EMPTY;
  }

  private static boolean isNothing(Node n) {
    return n instanceof Node.Literal l && l.value().isEmpty();
  }

  /** An empty text is no value: what is compared with it is unknown, and never yes. */
  private void neverTrue(Node whole, Node other, boolean not) {
    String cure = Printer.print(other) + (not ? " IS NOT NULL" : " IS NULL");
    problems.add(
        new RuleProblem(
            RuleProblem.Kind.NEVER_TRUE,
            whole.at(),
            Said.of("rule.neverTrue", "cure", cure),
            cure));
  }

  /** Among other values an empty text spoils only itself; with NOT it spoils all of them. */
  private void nothingAmong(Node.In in, Node item) {
    if (in.not() || in.items().size() == 1) neverTrue(in, in.value(), in.not());
    else
      problems.add(
          new RuleProblem(
              RuleProblem.Kind.NEVER_TRUE,
              item.at(),
              Said.of("rule.neverAmong", "cure", Printer.print(in.value()) + " IS NULL"),
              ""));
  }

  private ValueType compare(Node.Compare c) {
    if (isNothing(c.left()) || isNothing(c.right()))
      neverTrue(c, isNothing(c.right()) ? c.left() : c.right(), c.op().equals("<>"));
    ValueType l = quietCode(c.left(), c.right());
    ValueType r = quietCode(c.right(), c.left());
    boolean order = !c.op().equals("=") && !c.op().equals("<>");
    for (Node side : List.of(c.left(), c.right())) {
      ValueType t = side == c.left() ? l : r;
      if (order && (t == ValueType.YES_NO || t == ValueType.LIST || t == ValueType.GEOMETRY))
        wrong(side, Said.of("rule.noOrder", "op", c.op(), "type", t.said()), "");
    }
    pair(c.left(), l, c.right(), r);
    return ValueType.YES_NO;
  }

  /**
   * An unknown bare name beside a question with a code list is most likely a code without quotes.
   */
  private ValueType quietCode(Node n, Node other) {
    if (n instanceof Node.Name name
        && scope.find(name.name()).isEmpty()
        && other instanceof Node.Name q) {
      List<Scope.CodeLabel> codes = scope.find(q.name()).map(Scope.Known::codes).orElse(List.of());
      for (Scope.CodeLabel c : codes)
        if (c.code().equalsIgnoreCase(name.name())) {
          problems.add(
              new RuleProblem(
                  RuleProblem.Kind.UNKNOWN_NAME,
                  n.at(),
                  Said.of("rule.codeQuotes", "code", c.code()),
                  "'" + c.code() + "'"));
          return ValueType.EMPTY;
        }
    }
    return type(n);
  }

  private void pair(Node a, ValueType ta, Node b, ValueType tb) {
    if (!ta.fits(tb)) {
      String fix = "";
      if (tb == ValueType.TEXT && b instanceof Node.Literal l) fix = timeFix(ta, l);
      if (ta == ValueType.TEXT && a instanceof Node.Literal l && !timeFix(tb, l).isEmpty()) {
        wrong(a, Said.of("rule.compared", "found", ta.said(), "wanted", tb.said()), timeFix(tb, l));
        return;
      }
      if (ta == ValueType.NUMBER
          && tb == ValueType.TEXT
          && b instanceof Node.Literal l
          && org.whinridge.core.text.Numbers.read(l.value().plain()).isPresent())
        fix = l.value().plain();
      if (ta == ValueType.TEXT && tb == ValueType.NUMBER && b instanceof Node.Literal l)
        fix = "'" + l.value().plain() + "'";
      wrong(b, Said.of("rule.compared", "found", tb.said(), "wanted", ta.said()), fix);
      return;
    }
    code(a, b);
    code(b, a);
  }

  /** A bare text beside a date or a moment most likely misses its DATE(…) or TIMESTAMP(…). */
  private static String timeFix(ValueType other, Node.Literal l) {
    return other == ValueType.DATE
        ? "DATE('" + l.value().plain() + "')"
        : other == ValueType.DATE_TIME ? "TIMESTAMP('" + l.value().plain() + "')" : "";
  }

  /** A literal beside a question with a code list must be one of its codes. */
  private void code(Node question, Node literal) {
    if (!(question instanceof Node.Name q)
        || !(literal instanceof Node.Literal l)
        || l.value().isEmpty()) return;
    List<Scope.CodeLabel> codes = scope.find(q.name()).map(Scope.Known::codes).orElse(List.of());
    if (codes.isEmpty()) return;
    List<String> all = codes.stream().map(Scope.CodeLabel::code).toList();
    String written = l.value().plain();
    if (all.contains(written)) return;
    Optional<String> near =
        codes.stream()
            .filter(c -> c.label().equalsIgnoreCase(written))
            .map(Scope.CodeLabel::code)
            .findFirst()
            .or(() -> Nearest.of(written, all));
    String fix = near.map(c -> l.value() instanceof Value.Num ? c : "'" + c + "'").orElse("");
    problems.add(
        new RuleProblem(
            RuleProblem.Kind.UNKNOWN_CODE,
            l.at(),
            near.map(
                    c ->
                        Said.of(
                            "rule.unknownCodeNear", "code", written, "name", q.name(), "near", c))
                .orElse(
                    Said.of(
                        "rule.unknownCode",
                        "code",
                        written,
                        "name",
                        q.name(),
                        "codes",
                        String.join(", ", all))),
            fix));
  }

  private void want(Node n, ValueType wanted) {
    ValueType t = type(n);
    if (t.fits(wanted)) return;
    String fix =
        wanted == ValueType.DATE && t == ValueType.TEXT && n instanceof Node.Literal l
            ? "DATE('" + l.value().plain() + "')"
            : "";
    wrong(n, Said.of("rule.expected", "wanted", wanted.said(), "found", t.said()), fix);
  }

  private void wrong(Node n, Said message, String fix) {
    problems.add(new RuleProblem(RuleProblem.Kind.WRONG_TYPE, n.at(), message, fix));
  }

  private ValueType call(Node.Call c) {
    Functions.Function f = Functions.find(c.function()).orElse(null);
    if (f == null) {
      Optional<String> near = Nearest.of(c.function(), Functions.names());
      problems.add(
          new RuleProblem(
              RuleProblem.Kind.UNKNOWN_FUNCTION,
              c.at(),
              near.map(
                      s -> Said.of("rule.unknownFunctionNear", "function", c.function(), "near", s))
                  .orElse(Said.of("rule.unknownFunction", "function", c.function())),
              ""));
      return ValueType.EMPTY;
    }
    List<Node> args = c.arguments();
    if (args.size() < f.least() || args.size() > f.most()) {
      problems.add(
          new RuleProblem(
              RuleProblem.Kind.ARGUMENTS,
              c.at(),
              Said.of("rule.arguments", "function", f.name(), "usage", f.usage(), "n", args.size()),
              ""));
      return f.result();
    }
    ValueType common = ValueType.EMPTY;
    ValueType[] types = new ValueType[args.size()];
    for (int i = 0; i < args.size(); i++) {
      ValueType wanted = f.argument(i);
      if (f.name().equals("label") && i == 0 && !(args.get(0) instanceof Node.Name))
        wrong(args.get(0), Said.of("rule.labelNeedsName"), "");
      ValueType t = type(args.get(i));
      types[i] = t;
      if (!t.fits(wanted) && !(f.takesLists() && t == ValueType.LIST))
        wrong(
            args.get(i),
            Said.of(
                "rule.argumentType",
                "function",
                f.name(),
                "wanted",
                wanted.said(),
                "found",
                t.said()),
            "");
      if (f.resultLikeArguments() && !(f.name().equals("if") && i == 0)) {
        if (!t.fits(common))
          wrong(args.get(i), Said.of("rule.oneKind", "one", common.said(), "found", t.said()), "");
        if (common == ValueType.EMPTY) common = t;
      }
    }
    for (int i = 0; i < args.size(); i++)
      if (c.function().equals("INTERVAL")) end(args.get(i), types[i]);
      else if (c.function().startsWith("T_")) time(c, args.get(i), types[i]);
    if (c.function().equals("matches")
        && args.get(1) instanceof Node.Literal l
        && l.value() instanceof Value.Text p
        && !Functions.soundPattern(p.value()))
      problems.add(
          new RuleProblem(RuleProblem.Kind.BAD_PATTERN, l.at(), Said.of("rule.badPattern"), ""));
    return f.resultLikeArguments() ? common : f.result();
  }

  private void end(Node n, ValueType t) {
    boolean open =
        n instanceof Node.Literal l && l.value() instanceof Value.Text x && x.value().equals("..");
    if (!open && !t.fits(ValueType.DATE) && !t.fits(ValueType.DATE_TIME))
      wrong(n, Said.of("rule.intervalEnd", "found", t.said()), "");
  }

  private void time(Node.Call c, Node n, ValueType t) {
    if (t.fits(ValueType.DATE) || t.fits(ValueType.DATE_TIME) || t.fits(ValueType.INTERVAL)) return;
    String fix =
        n instanceof Node.Literal l && t == ValueType.TEXT
            ? "DATE('" + l.value().plain() + "')"
            : "";
    wrong(n, Said.of("rule.timesOnly", "function", c.function(), "found", t.said()), fix);
  }
}
