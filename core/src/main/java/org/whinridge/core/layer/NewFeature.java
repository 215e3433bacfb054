package org.whinridge.core.layer;

import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Value;

/** What a new feature of a layer begins with: its fields' defaults where it has no value itself. */
public final class NewFeature {
  private NewFeature() {}

  /**
   * The feature with defaults filled in, in the order of the fields, so that a formula sees those
   * before it. A field of unique ids gets the feature's own id.
   *
   * @param today the day that {@code today()} gives
   * @param now the moment that {@code now()} gives
   */
  public static Feature begun(Feature f, Schema schema, LocalDate today, Instant now) {
    Map<String, Value> values = new LinkedHashMap<>(f.values());
    LayerScope scope = new LayerScope(schema);
    for (Field field : schema.fields()) {
      if (!values.getOrDefault(field.name(), Value.EMPTY).isEmpty()) continue;
      Value v = Value.EMPTY;
      if (field.type() == FieldType.UNIQUE_ID) v = Value.text(f.id());
      else if (field.start() instanceof Start.Fixed x)
        v = Reading.PLAIN.read(Value.text(x.text()), field.type());
      else if (field.start() instanceof Start.Formula x)
        v =
            Rules.formula(x.text(), scope, field.type().valueType())
                .rule()
                .map(r -> r.evaluate(new Begun(values, f.geometry(), schema, today, now)))
                .orElse(Value.EMPTY);
      if (!v.isEmpty()) values.put(field.name(), v);
    }
    return new Feature(f.id(), f.geometry(), values, f.version());
  }

  /** The values of a feature that is split off another one: all but those that are its alone. */
  public static Map<String, Value> splitOff(Feature from, Schema schema) {
    Map<String, Value> values = new LinkedHashMap<>(from.values());
    for (Field f : schema.fields())
      if (f.unique() || f.type() == FieldType.UNIQUE_ID) values.remove(f.name());
    return values;
  }

  private record Begun(
      Map<String, Value> values,
      Optional<Geometry> place,
      Schema schema,
      LocalDate today,
      Instant now)
      implements Situation {
    @Override
    public Value value(String name) {
      return name.equals(LayerScope.PLACE)
          ? place.<Value>map(Value.Place::new).orElse(Value.EMPTY)
          : values.getOrDefault(name, Value.EMPTY);
    }

    @Override
    public String label(String name, Value code) {
      return schema.field(name).map(f -> f.labelOf(code)).orElse(code.plain());
    }

    @Override
    public Optional<Coordinate> project(Coordinate wgs84) {
      return Optional.empty();
    }
  }
}
