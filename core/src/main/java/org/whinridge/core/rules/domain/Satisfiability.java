package org.whinridge.core.rules.domain;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.value.Value;

/**
 * Whether conditions can hold at all, by what each name may be ({@link Domain}). A condition is
 * unfolded into the cases in which it is yes, no or unknown; a comparison of a name with a literal
 * narrows the name, and of everything else only this is known, that it can't be yes in one place
 * and no in another. So "can't hold" is proven, and "can hold" only means that nothing speaks
 * against it.
 */
public final class Satisfiability {
  /** With more cases than this nothing is claimed. */
  private static final int MOST_CASES = 256;

  /** What is known of the names that conditions read. */
  public interface Names {
    /** What a name may be, before anything is asked of it. */
    Domain mayBe(String name);

    /** The condition that a name stands for, when it is a named rule. */
    default java.util.Optional<Node> rule(String name) {
      return java.util.Optional.empty();
    }

    /** What must be yes for a name to have a value at all. */
    default List<Node> needed(String name) {
      return List.of();
    }
  }

  private enum Truth {
    YES,
    NO,
    UNKNOWN;

    Truth turned() {
      return this == YES ? NO : this == NO ? YES : this;
    }
  }

  /** One way in which things may be: what the names are, and what other comparisons came to. */
  private record Case(Map<String, Domain> names, Map<String, Truth> said) {}

  /** Thrown when there are too many cases to go on; nothing is claimed then. */
  private static final class TooMany extends RuntimeException {
    private static final long serialVersionUID = 1;

    TooMany() {
      super("too many cases", null, false, false);
    }
  }

  private final Names names;

  private Satisfiability(Names names) {
    this.names = names;
  }

  /**
   * Whether some conditions can all say yes while none of the others says no, as far as can be
   * told: of the others unknown counts as holding.
   */
  public static boolean together(List<Node> yes, List<Node> notNo, Names names) {
    try {
      Satisfiability p = new Satisfiability(names);
      List<Case> cases = List.of(new Case(Map.of(), Map.of()));
      for (Node n : yes) cases = p.unfold(n, Truth.YES, cases);
      for (Node n : notNo) {
        List<Case> next = new ArrayList<>(p.unfold(n, Truth.YES, cases));
        next.addAll(p.unfold(n, Truth.UNKNOWN, cases));
        cases = limited(next);
      }
      for (Case c : cases) if (p.needsAreMet(c)) return true;
      return false;
    } catch (TooMany e) {
      return true;
    }
  }

  /** Whether a case stands when what its answered names need is asked for too. */
  private boolean needsAreMet(Case start) {
    List<Case> cases = List.of(start);
    Set<String> asked = new LinkedHashSet<>();
    for (boolean more = true; more && !cases.isEmpty(); ) {
      more = false;
      for (String name : new ArrayList<>(cases.get(0).names.keySet())) {
        boolean filled = cases.stream().allMatch(c -> isFilled(c, name));
        if (!filled || !asked.add(name)) continue;
        more = true;
        for (Node n : names.needed(name)) cases = unfold(n, Truth.YES, cases);
        if (cases.isEmpty()) return false;
      }
    }
    return !cases.isEmpty();
  }

  private static boolean isFilled(Case c, String name) {
    Domain m = c.names.get(name);
    return m != null && m.isFilled();
  }

  private static List<Case> limited(List<Case> cases) {
    if (cases.size() > MOST_CASES) throw new TooMany();
    return cases;
  }

  /** The cases, out of those given, in which a condition has that truth. */
  private List<Case> unfold(Node n, Truth truth, List<Case> cases) {
    if (cases.isEmpty()) return cases;
    if (n instanceof Node.Not not) return unfold(not.operand(), truth.turned(), cases);
    if (n instanceof Node.Logic l) return logic(l, truth, cases);
    if (n instanceof Node.Name name && names.rule(name.name()).isPresent())
      return unfold(names.rule(name.name()).get(), truth, cases);
    if (n instanceof Node.Compare c
        && c.left() instanceof Node.Name name
        && names.rule(name.name()).isPresent()
        && c.right() instanceof Node.Literal l
        && l.value() instanceof Value.Bool b)
      return unfold(name, b.value() == c.op().equals("=") ? truth : truth.turned(), cases);
    List<Case> out = new ArrayList<>();
    for (Case c : cases) atom(n, truth, c, out);
    return limited(out);
  }

  private List<Case> logic(Node.Logic l, Truth truth, List<Case> cases) {
    Truth strong = l.and() ? Truth.NO : Truth.YES; // one such side decides
    Truth weak = l.and() ? Truth.YES : Truth.NO;
    if (truth == weak) return unfold(l.right(), weak, unfold(l.left(), weak, cases));
    List<Case> out = new ArrayList<>();
    if (truth == strong) {
      out.addAll(unfold(l.left(), strong, cases));
      out.addAll(unfold(l.right(), strong, cases));
    } else {
      List<Case> unknown = unfold(l.left(), Truth.UNKNOWN, cases);
      out.addAll(unfold(l.right(), Truth.UNKNOWN, unknown));
      out.addAll(unfold(l.right(), weak, unknown));
      out.addAll(unfold(l.right(), Truth.UNKNOWN, unfold(l.left(), weak, cases)));
    }
    return limited(out);
  }

  private void atom(Node n, Truth truth, Case c, List<Case> out) {
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
    Narrowing yes = Narrowing.of(n, true);
    Narrowing no = Narrowing.of(n, false);
    if (yes == null || no == null) said(n, truth, c, out);
    else if (truth == Truth.UNKNOWN) narrow(yes.name(), c, Domain::onlyNothing, out);
    else
      for (UnaryOperator<Domain> f : (truth == Truth.YES ? yes : no).ways())
        narrow(yes.name(), c, f, out);
  }

  /** A comparison that narrows nothing: the same one can't come out in two ways. */
  private static void said(Node n, Truth truth, Case c, List<Case> out) {
    Node key = n;
    Truth is = truth;
    if (n instanceof Node.Compare x) {
      boolean turn = x.op().equals(">") || x.op().equals("<=");
      String op = turn ? Node.Compare.turned(x.op()) : x.op(); // only <, >=, = and <> are left
      Node left = turn ? x.right() : x.left();
      Node right = turn ? x.left() : x.right();
      boolean deny = op.equals(">=") || op.equals("<>");
      key = new Node.Compare(deny ? Node.Compare.opposite(op) : op, left, right, n.at());
      if (deny) is = truth.turned();
    }
    String text = Printer.print(key);
    Truth before = c.said.get(text);
    if (before != null && before != is) return;
    Map<String, Truth> next = new LinkedHashMap<>(c.said);
    next.put(text, is);
    out.add(new Case(c.names, next));
  }

  private void narrow(Node.Name name, Case c, Function<Domain, Domain> how, List<Case> out) {
    Domain was =
        c.names.containsKey(name.name()) ? c.names.get(name.name()) : names.mayBe(name.name());
    Domain now = how.apply(was);
    if (!now.isPossible()) return;
    Map<String, Domain> next = new LinkedHashMap<>(c.names);
    next.put(name.name(), now);
    out.add(new Case(next, c.said));
  }
}
