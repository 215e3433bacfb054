package org.whinridge.app.bringin;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Field;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * The rows of a layer that a file is compared with: by key, and which column goes into which field.
 */
final class ModelRows {
  private ModelRows() {}

  /** The fields of the layer that columns go into; columns that go nowhere are told. */
  static Map<String, Field> targets(Choice c, Layer layer, List<Said> leftOut) {
    Map<String, Field> out = new LinkedHashMap<>();
    for (Choice.ColumnChoice k : c.columns()) {
      Optional<Field> f = layer.schema().field(k.field().name());
      boolean key = k.column().source().equals(c.key());
      if (f.filter(Field::readOnly).isPresent() && !key)
        leftOut.add(
            Said.of(
                "told.columnFillsItself", "column", k.column().source(), "field", f.get().label()));
      else if (f.isPresent() && !Importing.isPlaceColumn(c, k))
        out.put(k.column().source(), f.get());
      else if (!Importing.isPlaceColumn(c, k)) leftOut.add(Said.text(k.column().source()));
    }
    if (!out.containsKey(c.key()))
      throw Refusal.refused("refused.chooseColumnTellsFeature", "name", layer.name());
    return out;
  }

  /** The row of each key; of features that share one the first counts. */
  static Map<String, Integer> byKey(LayerColumns columns, Field key) {
    Map<String, Integer> rowOf = new LinkedHashMap<>();
    var column = columns.column(key.name()).orElseThrow();
    for (int row = 0; row < columns.rows(); row++)
      if (columns.has(row) && !column.value(row).isEmpty())
        rowOf.putIfAbsent(column.value(row).plain().strip(), row);
    return rowOf;
  }

  /** The key that a row of a file has; "" for none. */
  static String key(Map<String, Value> values, Field key) {
    return values.getOrDefault(key.name(), Value.EMPTY).plain().strip();
  }
}
