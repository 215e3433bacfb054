package org.whinridge.core.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.value.Value;

/** Values of any kind by their place in a dictionary of the distinct ones; place 0 is empty. */
public final class DictionaryColumn implements Column {
  private int[] places = new int[1024];
  private final List<Value> dictionary = new ArrayList<>();
  private final Map<Value, Integer> placeOf = new LinkedHashMap<>();
  private long valueBytes;

  /** An empty column. */
  public DictionaryColumn() {
    dictionary.add(Value.EMPTY);
    placeOf.put(Value.EMPTY, 0);
  }

  /** The place of each row's value. */
  public int[] places() {
    return places;
  }

  /** The distinct values that were ever here; some may be used by no row any more. */
  public List<Value> dictionary() {
    return dictionary;
  }

  @Override
  public Value value(int row) {
    return dictionary.get(places[row]);
  }

  @Override
  public void set(int row, Value v) {
    if (row >= places.length) places = Arrays.copyOf(places, row + row / 2 + 1);
    Integer at = placeOf.get(v);
    if (at == null) {
      at = dictionary.size();
      dictionary.add(v);
      placeOf.put(v, at);
      valueBytes += 120 + 2L * v.plain().length();
    }
    places[row] = at;
  }

  @Override
  public long bytes() {
    return 4L * places.length + valueBytes;
  }

  @Override
  public void trim(int rows) {
    if (places.length > rows + rows / 8 + 16) places = Arrays.copyOf(places, rows);
  }
}
