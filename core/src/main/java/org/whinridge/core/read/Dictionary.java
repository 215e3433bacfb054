package org.whinridge.core.read;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import org.whinridge.core.value.Value;

/**
 * Distinct values by number, 0 for the empty one. It only ever grows, so that all states of a read
 * model share it: a number once given keeps its meaning. Values are added by one thread at a time,
 * that of the newest state; readers of older states read numbers that were there before.
 */
final class Dictionary {
  private volatile Value[] values = new Value[16];
  private int size = 1;
  private long bytes;
  private Map<Value, Integer> numbers;

  Dictionary() {
    values[0] = Value.EMPTY;
  }

  /** A dictionary as it was read from a file; the first value is the empty one. */
  Dictionary(Value[] values) {
    this.values = values;
    this.size = values.length;
    for (Value v : values) bytes += weight(v);
  }

  int size() {
    return size;
  }

  Value value(int number) {
    return values[number];
  }

  /** The number of a value, a new one when it was not here yet. */
  int number(Value v) {
    if (numbers == null) {
      numbers = new LinkedHashMap<>();
      for (int i = 0; i < size; i++) numbers.put(values[i], i);
    }
    Integer at = numbers.get(v);
    if (at != null) return at;
    Value[] all = values;
    if (size == all.length) all = Arrays.copyOf(all, size + size / 2);
    all[size] = v;
    values = all;
    numbers.put(v, size);
    bytes += weight(v);
    return size++;
  }

  /**
   * Forgets how values are found, which only whoever adds needs; it is made again when asked for.
   */
  void rest() {
    if (size > 4096) numbers = null;
  }

  private static long weight(Value v) {
    return 60 + 2L * v.plain().length();
  }

  long bytes() {
    return bytes + (numbers == null ? 0 : 60L * size);
  }
}
