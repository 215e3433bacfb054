package org.whinridge.core.read;

import java.time.Instant;
import java.time.LocalDate;
import java.util.function.IntPredicate;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.rules.Condition;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.Value;

/** Whether a value that must be unique is somebody's already. */
public final class UniqueValues {
  private static final Clock ANY = new Clock(LocalDate.EPOCH, Instant.EPOCH);

  private UniqueValues() {}

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
