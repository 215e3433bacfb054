package org.whinridge.core.rules.domain;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.whinridge.core.rules.Comparison;
import org.whinridge.core.rules.LikePattern;
import org.whinridge.core.value.Value;

/**
 * What a name may be, as far as it is known: nothing, or a value within bounds, out of a set, not
 * out of another, of a form; for a list what it has and has not. Immutable; each narrowing gives a
 * new one. "Not possible" is proven, "possible" only means that nothing speaks against it.
 *
 * @param nothing whether it may be empty
 * @param something whether it may have a value
 * @param whole whether its numbers are whole
 * @param from the least value; empty for no limit
 * @param to the greatest value; empty for no limit
 * @param only the values it is one of; empty when that is not known
 * @param except values that it is not
 * @param likes patterns that it is, or is not, like
 * @param list what it has when it is a list
 */
public record Domain(
    boolean nothing,
    boolean something,
    boolean whole,
    Optional<Bound> from,
    Optional<Bound> to,
    Optional<Set<Value>> only,
    Set<Value> except,
    List<Like> likes,
    Members list) {
  /** An end of what is possible; {@code open} when it is not possible itself. */
  public record Bound(Value value, boolean open) {}

  /** A pattern of LIKE, and whether it fits. */
  public record Like(String pattern, boolean fits) {}

  /**
   * What a list has.
   *
   * @param all what is in it
   * @param none what is not
   * @param within what everything in it is one of; empty when that is not known
   * @param beyond sets each of which leaves out something that is in it
   * @param other sets that it is not equal to
   */
  public record Members(
      Set<Value> all,
      Set<Value> none,
      Optional<Set<Value>> within,
      List<Set<Value>> beyond,
      List<Set<Value>> other) {
    static final Members ANY =
        new Members(Set.of(), Set.of(), Optional.empty(), List.of(), List.of());

    Members with(Set<Value> more) {
      return new Members(union(all, more), none, within, beyond, other);
    }

    Members without(Set<Value> more) {
      return new Members(all, union(none, more), within, beyond, other);
    }

    Members within(Set<Value> set) {
      Set<Value> both = new LinkedHashSet<>(set);
      within.ifPresent(both::retainAll);
      return new Members(all, none, Optional.of(both), beyond, other);
    }

    Members beyond(Set<Value> set) {
      return new Members(all, none, within, added(beyond, set), other);
    }

    Members otherThan(Set<Value> set) {
      return new Members(all, none, within, beyond, added(other, set));
    }

    boolean isPossible() {
      for (Value v : all)
        if (none.contains(v) || within.filter(w -> !w.contains(v)).isPresent()) return false;
      if (within.isEmpty()) return true;
      Set<Value> left = new LinkedHashSet<>(within.get());
      left.removeAll(none);
      if (left.isEmpty()) return false; // a list that is answered has something
      for (Set<Value> b : beyond) if (b.containsAll(left)) return false;
      // everything that may be in it is in it: then it is known
      for (Set<Value> o : other) if (all.containsAll(left) && o.equals(left)) return false;
      return true;
    }
  }

  private static <T> List<T> added(List<T> list, T one) {
    List<T> out = new ArrayList<>(list);
    out.add(one);
    return out;
  }

  private static Set<Value> union(Set<Value> a, Set<Value> b) {
    Set<Value> out = new LinkedHashSet<>(a);
    out.addAll(b);
    return out;
  }

  /** Anything at all, or nothing. */
  public static Domain any() {
    return new Domain(
        true,
        true,
        false,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Set.of(),
        List.of(),
        Members.ANY);
  }

  /** Nothing. */
  public static Domain empty() {
    return any().onlyNothing();
  }

  /** A number of a range. */
  public static Domain numbers(OptionalDouble from, OptionalDouble to, boolean whole) {
    Domain d = any();
    return new Domain(false, true, whole, bound(from), bound(to), d.only, d.except, d.likes, d.list)
        .rounded();
  }

  private static Optional<Bound> bound(OptionalDouble d) {
    return d.isPresent()
        ? Optional.of(new Bound(Value.of(d.getAsDouble()), false))
        : Optional.empty();
  }

  /** Yes or no. */
  public static Domain yesNo() {
    return any().filled().among(Set.of(Value.YES, Value.NO), true);
  }

  /** The same, or nothing. */
  public Domain orEmpty() {
    return new Domain(true, something, whole, from, to, only, except, likes, list);
  }

  Domain filled() {
    return new Domain(false, something, whole, from, to, only, except, likes, list);
  }

  Domain onlyNothing() {
    return new Domain(nothing, false, whole, from, to, only, except, likes, list);
  }

  /** Whether it is known to have a value. */
  boolean isFilled() {
    return !nothing;
  }

  Domain among(Set<Value> values, boolean in) {
    if (!in)
      return new Domain(
          false, something, whole, from, to, only, union(except, values), likes, list);
    Set<Value> both = new LinkedHashSet<>(values);
    only.ifPresent(both::retainAll);
    return new Domain(false, something, whole, from, to, Optional.of(both), except, likes, list);
  }

  Domain like(String pattern, boolean fits) {
    return new Domain(
        false,
        something,
        whole,
        from,
        to,
        only,
        except,
        added(likes, new Like(pattern, fits)),
        list);
  }

  Domain list(Members members) {
    return new Domain(false, something, whole, from, to, only, except, likes, members);
  }

  /** Under, over, at most or at least a value. */
  Domain within(String op, Value v) {
    Bound b = new Bound(v, op.equals("<") || op.equals(">"));
    boolean upper = op.startsWith("<");
    Optional<Bound> stood = upper ? to : from;
    boolean narrower =
        stood.isEmpty()
            || is(upper ? "<" : ">", v, stood.get().value)
            || (is("=", v, stood.get().value) && b.open);
    Optional<Bound> next = narrower ? Optional.of(b) : stood;
    return new Domain(
            false,
            something,
            whole,
            upper ? from : next,
            upper ? next : to,
            only,
            except,
            likes,
            list)
        .rounded();
  }

  /** Whole numbers and days have neighbours: over 5 is at least 6. */
  private Domain rounded() {
    return new Domain(
        nothing,
        something,
        whole,
        from.map(b -> stepped(b, 1)),
        to.map(b -> stepped(b, -1)),
        only,
        except,
        likes,
        list);
  }

  private Bound stepped(Bound b, int step) {
    if (b.value instanceof Value.Day d && b.open)
      return new Bound(new Value.Day(d.value().plusDays(step)), false);
    if (!whole || !(b.value instanceof Value.Num n)) return b;
    double edge = step > 0 ? Math.ceil(n.value()) : Math.floor(n.value());
    boolean next = b.open && edge == n.value() && Math.abs(edge) < 9007199254740991.0;
    return new Bound(Value.of(next ? edge + step : edge), b.open && edge == n.value() && !next);
  }

  private static boolean is(String op, Value a, Value b) {
    return Comparison.of(Comparison.code(op), a, b).equals(Value.YES);
  }

  boolean isPossible() {
    return nothing || (something && valuePossible() && list.isPossible());
  }

  private boolean valuePossible() {
    if (only.isPresent()) {
      for (Value v : only.get()) if (fits(v)) return true;
      return false;
    }
    if (from.isPresent() && to.isPresent()) {
      Value low = from.get().value;
      Value high = to.get().value;
      if (is(">", low, high)) return false;
      if (is("=", low, high)) return !from.get().open && !to.get().open && fits(low);
    }
    return formsAgree();
  }

  private boolean fits(Value v) {
    if (except.contains(v)) return false;
    if (from.isPresent() && !is(from.get().open ? ">" : ">=", v, from.get().value)) return false;
    if (to.isPresent() && !is(to.get().open ? "<" : "<=", v, to.get().value)) return false;
    if (whole && v instanceof Value.Num n && n.value() != Math.floor(n.value())) return false;
    for (Like l : likes)
      if (v instanceof Value.Text t && LikePattern.matches(l.pattern, t.value()) != l.fits)
        return false;
    return true;
  }

  /** Whether some text could fit all patterns: by how they begin and end, and which are denied. */
  private boolean formsAgree() {
    for (Like a : likes) {
      if (!a.fits) continue;
      for (Like b : likes) {
        if (b.fits && !(agree(head(a), head(b), true) && agree(tail(a), tail(b), false)))
          return false;
        if (!b.fits && implies(a.pattern, b.pattern)) return false;
      }
    }
    return true;
  }

  private static boolean agree(String a, String b, boolean start) {
    String longer = a.length() > b.length() ? a : b;
    String shorter = longer.equals(a) ? b : a;
    return start ? longer.startsWith(shorter) : longer.endsWith(shorter);
  }

  /** Whether what is like one pattern is like the other for certain. */
  private static boolean implies(String a, String b) {
    if (a.equals(b)) return true;
    boolean simple = b.indexOf('\\') < 0 && b.indexOf('_') < 0;
    String core = b.replace("%", "");
    if (!simple || !core.equals(b.replaceAll("^%|%$", ""))) return false;
    if (b.equals("%")) return true;
    String begin = head(new Like(a, true));
    String end = tail(new Like(a, true));
    boolean open = b.startsWith("%");
    if (!b.endsWith("%")) return open && end.endsWith(core);
    return open ? begin.contains(core) || end.contains(core) : begin.startsWith(core);
  }

  /** The letters that a pattern begins with; up to the first sign with a meaning of its own. */
  private static String head(Like l) {
    int i = 0;
    while (i < l.pattern.length() && "%_\\".indexOf(l.pattern.charAt(i)) < 0) i++;
    return l.pattern.substring(0, i);
  }

  private static String tail(Like l) {
    if (l.pattern.indexOf('\\') >= 0) return "";
    int i = l.pattern.length();
    while (i > 0 && "%_".indexOf(l.pattern.charAt(i - 1)) < 0) i--;
    return l.pattern.substring(i);
  }
}
