package org.whinridge.core.visit;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/** The values that features have in the unique fields of their layer: those of a pack, say. */
public final class TakenValues implements VisitStart.Taken {
  private final Map<String, Map<Value, Set<String>>> byField = new LinkedHashMap<>();

  /** The values of the unique fields of a schema over some features. */
  public TakenValues(Schema schema, List<Feature> features) {
    for (Field f : schema.fields()) {
      if (!f.unique()) continue;
      Map<Value, Set<String>> taken = new LinkedHashMap<>();
      for (Feature x : features) {
        Value v = x.value(f.name());
        if (!v.isEmpty()) taken.computeIfAbsent(v, k -> new LinkedHashSet<>()).add(x.id());
      }
      byField.put(f.name(), taken);
    }
  }

  @Override
  public boolean by(String field, Value value, String self) {
    Set<String> ids = byField.getOrDefault(field, Map.of()).getOrDefault(value, Set.of());
    return ids.size() > 1 || (ids.size() == 1 && !ids.contains(self));
  }
}
