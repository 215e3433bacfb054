package org.whinridge.core.layer;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.ValueType;

/**
 * The names that a filter or a default of a layer may use: its fields, and {@code place} for the
 * feature's own geometry.
 */
public final class LayerScope implements Scope {
  /** The name of the feature's geometry. */
  public static final String PLACE = "place";

  private final Map<String, Known> names = new LinkedHashMap<>();

  /** The names of a schema. */
  public LayerScope(Schema schema) {
    names.put(PLACE, new Known(PLACE, ValueType.GEOMETRY, Said.of("name.place"), List.of(), ""));
    for (Field f : schema.fields())
      names.put(
          f.name(),
          new Known(
              f.name(),
              f.type().valueType(),
              f.label(),
              f.codes().stream().map(c -> new CodeLabel(c.code(), c.label())).toList(),
              f.unit()));
  }

  @Override
  public Optional<Known> find(String name) {
    return Optional.ofNullable(names.get(name));
  }

  @Override
  public Collection<String> names() {
    return names.keySet();
  }
}
