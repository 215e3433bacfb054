package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Function;
import org.whinridge.core.value.Value;

/**
 * Whether conditions can hold at all, by what each name may be: ranges of numbers, sets of codes,
 * yes or no, nothing. A condition is unfolded into the cases in which it is yes, no or unknown; a
 * comparison of a name with a literal narrows the name, everything else narrows nothing. So "can't
 * hold" is proven, and "can hold" only means that nothing speaks against it.
 */
public final class Possible {
  /** With more cases than this nothing is claimed. */
  private static final int MOST_CASES = 256;

  /**
   * What a name may be.
   *
   * @param from the smallest number, with {@code fromOpen} not it itself; no limit is -∞
   * @param to the largest number, with {@code toOpen} not it itself; no limit is ∞
   * @param codes the values known, when {@code listed}
   * @param others whether it may be a value that is not among {@code codes}
   * @param nothing whether it may be empty
   * @param something whether it may have a value
   */
  public record Domain(
      double from,
      boolean fromOpen,
      double to,
      boolean toOpen,
      boolean listed,
      Set<Value> codes,
      boolean others,
      boolean nothing,
      boolean something) {
    private static Domain of(double from, double to, boolean listed, Set<Value> codes) {
      return new Domain(from, false, to, false, listed, codes, true, false, true);
    }

    /** Anything at all, or nothing. */
    public static Domain any() {
      return of(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, false, Set.of()).orEmpty();
    }

    /** Nothing. */
    public static Domain empty() {
      Domain d = any();
      return new Domain(d.from, false, d.to, false, false, Set.of(), false, true, false);
    }

    /** A number of a range. */
    public static Domain numbers(OptionalDouble from, OptionalDouble to) {
      return of(
          from.orElse(Double.NEGATIVE_INFINITY),
          to.orElse(Double.POSITIVE_INFINITY),
          false,
          Set.of());
    }

    /** One of some values, or another that is not among them. */
    public static Domain codes(Set<Value> codes) {
      return of(
          Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, true, new LinkedHashSet<>(codes));
    }

    /** Yes or no. */
    public static Domain yesNo() {
      return new Domain(
          Double.NEGATIVE_INFINITY,
          false,
          Double.POSITIVE_INFINITY,
          false,
          true,
          Set.of(Value.YES, Value.NO),
          false,
          false,
          true);
    }

    /** The same, or nothing. */
    public Domain orEmpty() {
      return new Domain(from, fromOpen, to, toOpen, listed, codes, others, true, something);
    }

    boolean isPossible() {
      boolean range = from < to || (from == to && !fromOpen && !toOpen);
      boolean value = something && range && (!listed || others || !codes.isEmpty());
      return nothing || value;
    }

    private Domain filled() {
      return new Domain(from, fromOpen, to, toOpen, listed, codes, others, false, something);
    }

    private Domain onlyNothing() {
      return new Domain(from, fromOpen, to, toOpen, listed, codes, others, nothing, false);
    }

    private Domain among(Set<Value> values, boolean in) {
      Set<Value> left = new LinkedHashSet<>();
      if (listed) {
        for (Value v : codes) if (values.contains(v) == in) left.add(v);
        if (in && others) for (Value v : values) if (!codes.contains(v)) left.add(v);
      } else if (in) left.addAll(values);
      boolean known = listed || in;
      return new Domain(
          from, fromOpen, to, toOpen, known, left, in ? false : others, false, something);
    }

    private Domain within(String op, double d) {
      Domain n = filled();
      boolean open = op.equals("<") || op.equals(">");
      if (op.startsWith("<") && (d < n.to || (d == n.to && open)))
        return new Domain(
            n.from, n.fromOpen, d, open, n.listed, keep(op, d), n.others, false, something);
      if (op.startsWith(">") && (d > n.from || (d == n.from && open)))
        return new Domain(
            d, open, n.to, n.toOpen, n.listed, keep(op, d), n.others, false, something);
      return new Domain(
          n.from, n.fromOpen, n.to, n.toOpen, n.listed, keep(op, d), n.others, false, something);
    }

    private Set<Value> keep(String op, double d) {
      Set<Value> left = new LinkedHashSet<>();
      for (Value v : codes)
        if (!(v instanceof Value.Num)
            || Comparison.of(Comparison.code(op), v, Value.of(d)).equals(Value.YES)) left.add(v);
      return left;
    }
  }

  private enum Truth {
    YES,
    NO,
    UNKNOWN
  }

  /** Thrown when there are too many cases to go on; nothing is claimed then. */
  private static final class TooMany extends RuntimeException {
    private static final long serialVersionUID = 1;

    TooMany() {
      super("too many cases", null, false, false);
    }
  }

  private final Function<String, Domain> domains;

  private Possible(Function<String, Domain> domains) {
    this.domains = domains;
  }

  /** Whether all conditions can say yes at once, as far as can be told. */
  public static boolean allYes(List<Node> conditions, Function<String, Domain> domains) {
    return new Possible(domains).any(conditions, List.of(Truth.YES));
  }

  /**
   * Whether none of the conditions need say no, as far as can be told: unknown counts as holding.
   */
  public static boolean notBroken(List<Node> conditions, Function<String, Domain> domains) {
    return new Possible(domains).any(conditions, List.of(Truth.YES, Truth.UNKNOWN));
  }

  private boolean any(List<Node> conditions, List<Truth> wanted) {
    try {
      List<Map<String, Domain>> cases = List.of(Map.of());
      for (Node n : conditions) {
        List<Map<String, Domain>> next = new ArrayList<>();
        for (Truth t : wanted) next.addAll(unfold(n, t, cases));
        cases = limited(next);
      }
      return !cases.isEmpty();
    } catch (TooMany e) {
      return true;
    }
  }

  private static List<Map<String, Domain>> limited(List<Map<String, Domain>> cases) {
    if (cases.size() > MOST_CASES) throw new TooMany();
    return cases;
  }

  /** The cases, out of those given, in which a condition has that truth. */
  private List<Map<String, Domain>> unfold(Node n, Truth truth, List<Map<String, Domain>> cases) {
    if (cases.isEmpty()) return cases;
    if (n instanceof Node.Not not)
      return unfold(
          not.operand(),
          truth == Truth.YES ? Truth.NO : truth == Truth.NO ? Truth.YES : truth,
          cases);
    if (n instanceof Node.Logic l) return logic(l, truth, cases);
    List<Map<String, Domain>> out = new ArrayList<>();
    for (Map<String, Domain> c : cases) atom(n, truth, c, out);
    return limited(out);
  }

  private List<Map<String, Domain>> logic(
      Node.Logic l, Truth truth, List<Map<String, Domain>> cases) {
    Truth strong = l.and() ? Truth.NO : Truth.YES; // one such side decides
    Truth weak = l.and() ? Truth.YES : Truth.NO;
    if (truth == weak) return unfold(l.right(), weak, unfold(l.left(), weak, cases));
    List<Map<String, Domain>> out = new ArrayList<>();
    if (truth == strong) {
      out.addAll(unfold(l.left(), strong, cases));
      out.addAll(unfold(l.right(), strong, cases));
    } else {
      List<Map<String, Domain>> unknown = unfold(l.left(), Truth.UNKNOWN, cases);
      out.addAll(unfold(l.right(), Truth.UNKNOWN, unknown));
      out.addAll(unfold(l.right(), weak, unknown));
      out.addAll(unfold(l.right(), Truth.UNKNOWN, unfold(l.left(), weak, cases)));
    }
    return limited(out);
  }

  private void atom(Node n, Truth truth, Map<String, Domain> c, List<Map<String, Domain>> out) {
    if (n instanceof Node.Literal l) {
      Truth is =
          l.value().isEmpty() ? Truth.UNKNOWN : l.value().equals(Value.YES) ? Truth.YES : Truth.NO;
      if (is == truth) out.add(c);
      return;
    }
    if (n instanceof Node.IsNull i && i.value() instanceof Node.Name name) {
      boolean nothing = (truth == Truth.YES) != i.not();
      if (truth != Truth.UNKNOWN)
        narrow(name, c, nothing ? Domain::onlyNothing : Domain::filled, out);
      return;
    }
    Narrowing yes = narrowing(n, true);
    Narrowing no = narrowing(n, false);
    if (yes == null || no == null) {
      out.add(c);
      return;
    }
    if (truth == Truth.UNKNOWN) narrow(yes.name, c, Domain::onlyNothing, out);
    else
      for (Function<Domain, Domain> f : (truth == Truth.YES ? yes : no).ways)
        narrow(yes.name, c, f, out);
  }

  private void narrow(
      Node.Name name,
      Map<String, Domain> c,
      Function<Domain, Domain> how,
      List<Map<String, Domain>> out) {
    Domain was = c.containsKey(name.name()) ? c.get(name.name()) : domains.apply(name.name());
    Domain now = how.apply(was);
    if (!now.isPossible()) return;
    Map<String, Domain> next = new LinkedHashMap<>(c);
    next.put(name.name(), now);
    out.add(next);
  }

  /** How a comparison with literals narrows its name: one of several ways. */
  private record Narrowing(Node.Name name, List<Function<Domain, Domain>> ways) {}

  private static Narrowing narrowing(Node n, boolean yes) {
    if (n instanceof Node.Name name)
      return new Narrowing(name, List.of(d -> d.among(Set.of(Value.of(yes)), true)));
    if (n instanceof Node.Compare c) {
      if (c.left() instanceof Node.Name name && c.right() instanceof Node.Literal l)
        return compare(name, yes ? c.op() : Node.Compare.opposite(c.op()), l.value());
      if (c.right() instanceof Node.Name name && c.left() instanceof Node.Literal l)
        return compare(
            name, Node.Compare.turned(yes ? c.op() : Node.Compare.opposite(c.op())), l.value());
      return null;
    }
    if (n instanceof Node.Between b
        && b.value() instanceof Node.Name name
        && b.low() instanceof Node.Literal low
        && b.high() instanceof Node.Literal high
        && low.value() instanceof Value.Num x
        && high.value() instanceof Value.Num y) {
      if (yes != b.not())
        return new Narrowing(name, List.of(d -> d.within(">=", x.value()).within("<=", y.value())));
      return new Narrowing(
          name, List.of(d -> d.within("<", x.value()), d -> d.within(">", y.value())));
    }
    if (n instanceof Node.In in && in.value() instanceof Node.Name name) {
      Set<Value> values = new LinkedHashSet<>();
      for (Node item : in.items()) {
        if (!(item instanceof Node.Literal l) || l.value().isEmpty()) return null;
        values.add(l.value());
      }
      return among(name, values, yes != in.not());
    }
    return null;
  }

  private static Narrowing among(Node.Name name, Set<Value> values, boolean in) {
    List<Function<Domain, Domain>> ways = new ArrayList<>();
    if (in && values.stream().allMatch(Value.Num.class::isInstance))
      for (Value v : values) {
        double d = ((Value.Num) v).value();
        ways.add(x -> x.among(Set.of(v), true).within(">=", d).within("<=", d));
      }
    else ways.add(d -> d.among(values, in));
    return new Narrowing(name, ways);
  }

  private static Narrowing compare(Node.Name name, String op, Value v) {
    if (op.equals("=") || op.equals("<>"))
      return v.isEmpty() ? null : among(name, Set.of(v), op.equals("="));
    return v instanceof Value.Num n
        ? new Narrowing(name, List.of(d -> d.within(op, n.value())))
        : null;
  }
}
