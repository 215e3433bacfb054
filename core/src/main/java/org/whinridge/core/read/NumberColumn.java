package org.whinridge.core.read;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
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
  private double[] numbers = new double[1024];
  private final Map<Integer, Value> others = new TreeMap<>();

  /** A column of numbers, dates or moments. */
  public NumberColumn(ValueType type) {
    this.type = type;
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

  /** The numbers by row; beyond the layer's rows it has no meaning. */
  public double[] numbers() {
    return numbers;
  }

  /** Whether all values of the column's own type are in the array, so that it can be compared. */
  boolean isWhole() {
    for (Value v : others.values()) if (v.type() == type) return false;
    return true;
  }

  @Override
  public Value value(int row) {
    double d = numbers[row];
    return Double.isNaN(d) && !others.isEmpty() ? others.getOrDefault(row, Value.EMPTY) : of(d);
  }

  @Override
  public void set(int row, Value v) {
    if (row >= numbers.length) numbers = Arrays.copyOf(numbers, row + row / 2 + 1);
    numbers[row] = number(v, type);
    if (Double.isNaN(numbers[row]) && !v.isEmpty()) others.put(row, v);
    else if (!others.isEmpty()) others.remove(row);
  }

  @Override
  public long bytes() {
    return 8L * numbers.length + 120L * others.size();
  }

  @Override
  public void trim(int rows) {
    if (numbers.length > rows + rows / 8 + 16) numbers = Arrays.copyOf(numbers, rows);
  }
}
