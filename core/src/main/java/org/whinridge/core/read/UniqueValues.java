package org.whinridge.core.read;

import java.util.function.IntPredicate;
import org.whinridge.core.layer.Field;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.place.SamePlace;
import org.whinridge.core.value.Value;

/** Whether a value that must be unique is somebody's already. */
public final class UniqueValues {
  private UniqueValues() {}

  /**
   * Whether another feature of the layer has the value in the field, as merging tells values apart.
   * A field that the layer does not have holds nobody's value.
   *
   * @param own rows that don't count: the feature's own, and those that give the value up
   */
  public static boolean taken(LayerColumns layer, Field field, Value v, IntPredicate own) {
    Column c = layer.column(field.name()).orElse(null);
    if (c == null || v.isEmpty()) return false;
    for (int row = 0; row < layer.rows(); row++)
      if (layer.has(row) && Merge.same(c.value(row), v, SamePlace.DECIMALS) && !own.test(row))
        return true;
    return false;
  }
}
