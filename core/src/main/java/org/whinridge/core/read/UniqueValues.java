package org.whinridge.core.read;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.function.IntPredicate;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.rules.Condition;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.Value;

/** Whether a value that must be unique is somebody's already. */
public final class UniqueValues {
  /** By hash of the value, and row. */
  private final long[] hashes;

  private final LayerColumns layer;
  private final Column column;

  private static final Clock ANY = new Clock(LocalDate.EPOCH, Instant.EPOCH);

  /**
   * A field made ready for many questions one after another.
   *
   * @param field one that the layer has
   */
  public UniqueValues(LayerColumns layer, String field) {
    this.layer = layer;
    column = layer.column(field).orElseThrow();
    hashes =
        layer.all().stream()
            .filter(row -> !column.value(row).isEmpty())
            .mapToLong(row -> (long) column.value(row).hashCode() << 32 | row)
            .sorted()
            .toArray();
  }

  /** Whether a feature other than one of that id has just that value. */
  public boolean isTaken(Value v, String self) {
    int at = Arrays.binarySearch(hashes, (long) v.hashCode() << 32);
    for (int i = at < 0 ? -at - 1 : at; i < hashes.length; i++) {
      if (hashes[i] >> 32 != v.hashCode()) return false;
      int row = (int) hashes[i];
      if (column.value(row).equals(v) && !layer.id(row).equals(self)) return true;
    }
    return false;
  }

  /**
   * Whether another feature of the layer has the value in the field. A value that the field's type
   * can't be compared with, and a field that the layer does not have, is nobody's.
   *
   * @param own rows that don't count: the feature's own, and those that give the value up
   */
  public static boolean taken(LayerColumns layer, String field, Value v, IntPredicate own) {
    Rules.Outcome rule = Condition.is(field, v).in(new LayerScope(layer.schema()));
    return rule.rule().isPresent()
        && Filter.rows(rule.rule().get(), layer, ANY).stream().anyMatch(row -> !own.test(row));
  }
}
