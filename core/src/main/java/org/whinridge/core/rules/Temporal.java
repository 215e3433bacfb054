package org.whinridge.core.rules;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.whinridge.core.value.Value;

/**
 * The temporal operators of OGC 21-065 (clause 7.5, after the relations of ISO 19108) between
 * dates, moments and intervals, with closed ends. Where a date or an interval of dates meets a
 * moment, a date is the whole of its UTC day; among dates it is one point.
 */
final class Temporal {
  /** Open ends lie further out than any date that can be written. */
  static final Instant NEVER_BEGUN = Instant.parse("-100000-01-01T00:00:00Z");

  static final Instant NEVER_ENDS = Instant.parse("+100000-01-01T00:00:00Z");

  private interface Relation {
    boolean holds(Instant a0, Instant a1, Instant b0, Instant b1);
  }

  private static final Map<String, Relation> ALL = new TreeMap<>();

  static {
    ALL.put("T_AFTER", (a0, a1, b0, b1) -> a0.isAfter(b1));
    ALL.put("T_BEFORE", (a0, a1, b0, b1) -> a1.isBefore(b0));
    ALL.put("T_CONTAINS", (a0, a1, b0, b1) -> a0.isBefore(b0) && a1.isAfter(b1));
    ALL.put("T_DISJOINT", (a0, a1, b0, b1) -> a0.isAfter(b1) || a1.isBefore(b0));
    ALL.put("T_DURING", (a0, a1, b0, b1) -> a0.isAfter(b0) && a1.isBefore(b1));
    ALL.put("T_EQUALS", (a0, a1, b0, b1) -> a0.equals(b0) && a1.equals(b1));
    ALL.put("T_FINISHEDBY", (a0, a1, b0, b1) -> a0.isBefore(b0) && a1.equals(b1));
    ALL.put("T_FINISHES", (a0, a1, b0, b1) -> a0.isAfter(b0) && a1.equals(b1));
    ALL.put("T_INTERSECTS", (a0, a1, b0, b1) -> !a0.isAfter(b1) && !a1.isBefore(b0));
    ALL.put("T_MEETS", (a0, a1, b0, b1) -> a1.equals(b0));
    ALL.put("T_METBY", (a0, a1, b0, b1) -> a0.equals(b1));
    ALL.put(
        "T_OVERLAPPEDBY", (a0, a1, b0, b1) -> a0.isAfter(b0) && a0.isBefore(b1) && a1.isAfter(b1));
    ALL.put("T_OVERLAPS", (a0, a1, b0, b1) -> a0.isBefore(b0) && a1.isAfter(b0) && a1.isBefore(b1));
    ALL.put("T_STARTEDBY", (a0, a1, b0, b1) -> a0.equals(b0) && a1.isAfter(b1));
    ALL.put("T_STARTS", (a0, a1, b0, b1) -> a0.equals(b0) && a1.isBefore(b1));
  }

  private Temporal() {}

  static Iterable<String> names() {
    return ALL.keySet();
  }

  /** The relation of two values; unknown when one of them is no time. */
  static Value relate(String name, Value a, Value b) {
    boolean moments = ofMoments(a) || ofMoments(b);
    Value.Interval x = span(a, moments);
    Value.Interval y = span(b, moments);
    return x == null || y == null
        ? Value.EMPTY
        : Value.of(ALL.get(name).holds(x.from(), x.to(), y.from(), y.to()));
  }

  private static boolean ofMoments(Value v) {
    return v instanceof Value.Moment || (v instanceof Value.Interval i && !i.days());
  }

  private static Value.Interval span(Value v, boolean moments) {
    if (v instanceof Value.Moment m) return new Value.Interval(m.value(), m.value(), false);
    if (v instanceof Value.Day d)
      return new Value.Interval(
          start(d.value()), moments ? end(d.value()) : start(d.value()), true);
    if (!(v instanceof Value.Interval i)) return null;
    return i.days() && moments && !i.to().equals(NEVER_ENDS)
        ? new Value.Interval(i.from(), i.to().plusSeconds(86_400).minusNanos(1), false)
        : i;
  }

  private static Instant start(LocalDate d) {
    return d.atStartOfDay(ZoneOffset.UTC).toInstant();
  }

  private static Instant end(LocalDate d) {
    return start(d).plusSeconds(86_400).minusNanos(1);
  }

  /**
   * An interval of two ends: dates, moments, or the text ".." for an open one. Empty when an end is
   * empty or the ends are the wrong way round.
   */
  static Value interval(List<Value> ends) {
    Value a = ends.get(0);
    Value b = ends.get(1);
    boolean days = !(a instanceof Value.Moment) && !(b instanceof Value.Moment);
    Instant from = end(a, true);
    Instant to = end(b, false);
    if (from == null || to == null || from.isAfter(to)) return Value.EMPTY;
    return new Value.Interval(from, to, days);
  }

  private static Instant end(Value v, boolean first) {
    if (v instanceof Value.Moment m) return m.value();
    if (v instanceof Value.Day d) return start(d.value());
    if (v instanceof Value.Text t && t.value().equals(".."))
      return first ? NEVER_BEGUN : NEVER_ENDS;
    return null;
  }
}
