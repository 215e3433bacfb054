package org.whinridge.core.layer;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.Span;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
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

  /** A filter that could be asked of a layer, for people who have not written one yet. */
  public static String example(Schema schema) {
    for (Field f : schema.fields())
      if (!f.codes().isEmpty()) return asked(f, "=", Value.text(f.codes().get(0).code()));
    for (Field f : schema.fields())
      if (f.type().valueType() == ValueType.NUMBER) return asked(f, ">=", Value.of(10));
    return schema.fields().isEmpty() ? "TRUE" : asked(schema.fields().get(0), "=", Value.text("…"));
  }

  private static String asked(Field f, String op, Value v) {
    Span nowhere = new Span(0, 0);
    Node.Name name = new Node.Name(f.name(), nowhere);
    boolean number = f.type().valueType() == ValueType.NUMBER;
    Value with =
        number && v instanceof Value.Text ? ValueJson.readText(v.plain(), ValueType.NUMBER) : v;
    return Printer.print(new Node.Compare(op, name, new Node.Literal(with, nowhere), nowhere));
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
