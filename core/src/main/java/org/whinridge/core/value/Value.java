package org.whinridge.core.value;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/**
 * One value of a field, an answer or a rule. Immutable; an absent value is {@link Empty}, never
 * null.
 */
public sealed interface Value {
  /** No value: an unanswered question, a null attribute, an unknown truth. */
  record Empty() implements Value {}

  /** A finite IEEE double, 0 for less than 2.3e-308 in size. Whole numbers are exact up to 2^53. */
  record Num(double value) implements Value {
    public Num {
      if (Double.isNaN(value) || Double.isInfinite(value))
        throw new IllegalArgumentException("a number must be finite");
      // -0 and 0 are one value; so is what is too small for every engine to read
      if (Math.abs(value) < Double.MIN_NORMAL) value = 0;
    }
  }

  /** Text, never empty after {@link #text(String)}. */
  record Text(String value) implements Value {}

  /** Yes or no. */
  record Bool(boolean value) implements Value {}

  /** A date without time and without zone. */
  record Day(LocalDate value) implements Value {}

  /** A moment in UTC. */
  record Moment(Instant value) implements Value {}

  /**
   * The time from one moment to another, both included.
   *
   * @param days whether both ends were given as dates without time (00:00 UTC stands for the day)
   */
  record Interval(Instant from, Instant to, boolean days) implements Value {}

  /** Several values: the codes of a many choice, or one column over the rows of a list section. */
  record Many(List<Value> values) implements Value {
    public Many {
      values = List.copyOf(values);
    }
  }

  /** A geometry in WGS 84 degrees. */
  record Place(Geometry geometry) implements Value {}

  /** The one empty value. */
  Empty EMPTY = new Empty();

  /** Yes. */
  Bool YES = new Bool(true);

  /** No. */
  Bool NO = new Bool(false);

  /** Whether there is no value. */
  default boolean isEmpty() {
    return this instanceof Empty;
  }

  /** Yes or no as a value. */
  static Bool of(boolean b) {
    return b ? YES : NO;
  }

  /** A number, or {@link #EMPTY} when it is not finite. */
  static Value of(double d) {
    return Double.isNaN(d) || Double.isInfinite(d) ? EMPTY : new Num(d);
  }

  /** Text, or {@link #EMPTY} for null and for text of no length. */
  static Value text(String s) {
    return s == null || s.isEmpty() ? EMPTY : new Text(s);
  }

  /** Many values, or {@link #EMPTY} for none. */
  static Value many(List<? extends Value> values) {
    return values.isEmpty() ? EMPTY : new Many(List.copyOf(values));
  }

  /** The kind of this value; {@link ValueType#EMPTY} for none. */
  default ValueType type() {
    if (this instanceof Num) return ValueType.NUMBER;
    if (this instanceof Text) return ValueType.TEXT;
    if (this instanceof Bool) return ValueType.YES_NO;
    if (this instanceof Day) return ValueType.DATE;
    if (this instanceof Moment) return ValueType.DATE_TIME;
    if (this instanceof Interval) return ValueType.INTERVAL;
    if (this instanceof Many) return ValueType.LIST;
    if (this instanceof Place) return ValueType.GEOMETRY;
    return ValueType.EMPTY;
  }

  /** The value for people, in the style of whoever reads: numbers, days and moments follow them. */
  default Said said() {
    if (this instanceof Num n) return Said.number(n.value());
    if (this instanceof Bool b) return Said.of(b.value() ? "value.yes" : "value.no");
    if (this instanceof Day d) return Said.day(d.value());
    if (this instanceof Moment m) return Said.moment(m.value());
    if (this instanceof Many m)
      return Said.inARow(m.values().stream().map(Value::said).toList(), "list.then");
    if (this instanceof Interval i)
      return Said.of("value.interval", "from", end(i.from(), i), "to", end(i.to(), i));
    return Said.text(plain());
  }

  private static Said end(Instant at, Interval i) {
    return i.days()
        ? Said.day(LocalDate.ofEpochDay(Math.floorDiv(at.getEpochSecond(), 86_400)))
        : Said.moment(at);
  }

  /**
   * The value as plain text, the same for everybody: numbers without trailing zeros, dates as in
   * ISO 8601, lists joined by ", ".
   */
  default String plain() {
    if (this instanceof Num n) return Numbers.plain(n.value());
    if (this instanceof Text t) return t.value();
    if (this instanceof Bool b) return b.value() ? "yes" : "no";
    if (this instanceof Day d) return d.value().toString();
    if (this instanceof Moment m) return m.value().toString();
    if (this instanceof Many m) {
      StringBuilder b = new StringBuilder();
      for (Value v : m.values()) b.append(b.length() == 0 ? "" : ", ").append(v.plain());
      return b.toString();
    }
    if (this instanceof Interval i) return i.from() + "/" + i.to();
    if (this instanceof Place p) return p.geometry().getGeometryType();
    return "";
  }
}
