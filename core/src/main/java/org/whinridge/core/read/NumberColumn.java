package org.whinridge.core.read;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.TreeMap;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * Numbers, days (as days since 1970) or moments (as milliseconds since 1970) in one array of
 * doubles; NaN is empty. Values of another kind, kept from older data, are held apart: to a
 * comparison they are unknown, as everywhere in the rules.
 */
public final class NumberColumn implements Column {
  private static final long EXACT = 1L << 53;
  private final ValueType type;
  private final Pages<double[]> numbers;
  private final Map<Integer, Value> others;

  /** A column of numbers, dates or moments. */
  NumberColumn(ValueType type) {
    this(type, Pages.ofNumbers(), new TreeMap<>());
  }

  NumberColumn(ValueType type, Pages<double[]> numbers, Map<Integer, Value> others) {
    this.type = type;
    this.numbers = numbers;
    this.others = others;
  }

  NumberColumn newer() {
    return new NumberColumn(type, numbers.newer(), new TreeMap<>(others));
  }

  /** The value of this type as a number; NaN when it is of another type or not exact so. */
  static double number(Value v, ValueType type) {
    if (v instanceof Value.Num n && type == ValueType.NUMBER) return n.value();
    if (v instanceof Value.Day d && type == ValueType.DATE) return d.value().toEpochDay();
    if (v instanceof Value.Moment m
        && type == ValueType.DATE_TIME
        && m.value().getNano() % 1_000_000 == 0
        && Math.abs(m.value().getEpochSecond()) < EXACT / 1000) return m.value().toEpochMilli();
    return Double.NaN;
  }

  /** A number of the array as a value of the column's type. */
  public Value of(double d) {
    if (Double.isNaN(d)) return Value.EMPTY;
    if (type == ValueType.DATE) return new Value.Day(LocalDate.ofEpochDay((long) d));
    if (type == ValueType.DATE_TIME) return new Value.Moment(Instant.ofEpochMilli((long) d));
    return new Value.Num(d);
  }

  ValueType type() {
    return type;
  }

  /** The number of a row; NaN where it has none. */
  public double number(int row) {
    return numbers.at(row)[Pages.in(row)];
  }

  Pages<double[]> numbers() {
    return numbers;
  }

  Map<Integer, Value> others() {
    return others;
  }

  /** Whether all values of the column's own type are in the array, so that it can be compared. */
  boolean isWhole() {
    for (Value v : others.values()) if (v.type() == type) return false;
    return true;
  }

  @Override
  public Value value(int row) {
    double d = number(row);
    return Double.isNaN(d) && !others.isEmpty() ? others.getOrDefault(row, Value.EMPTY) : of(d);
  }

  /** Puts a value into a row of a state that was not given away yet. */
  void set(int row, Value v) {
    double d = number(v, type);
    numbers.own(row)[Pages.in(row)] = d;
    if (Double.isNaN(d) && !v.isEmpty()) others.put(row, v);
    else others.remove(row);
  }

  void end(int rows) {
    numbers.end(rows);
  }

  @Override
  public long bytes(int rows) {
    return 8 * numbers.places(rows) + 120L * others.size();
  }
}
