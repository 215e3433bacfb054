package org.whinridge.core.layer;

import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/** What a new feature of a layer begins with: its fields' defaults where it has no value itself. */
public final class NewFeature {
  private NewFeature() {}

  /**
   * What defaults are worked out with.
   *
   * @param today the day that {@code today()} gives
   * @param now the moment that {@code now()} gives
   * @param system the project's coordinate system, for {@code easting(place)} and {@code
   *     northing(place)}; without one they give nothing
   */
  public record Setting(LocalDate today, Instant now, Optional<CoordinateSystem> system) {}

  /**
   * The feature with defaults filled in, in the order of the fields, so that a formula sees those
   * before it. A field of unique ids gets the feature's own id.
   */
  public static Feature begun(Feature f, Schema schema, Setting setting) {
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
            rule(field, x, scope)
                .map(r -> kept(field, r.evaluate(new Begun(values, f.geometry(), schema, setting))))
                .orElse(Value.EMPTY);
      if (!v.isEmpty()) values.put(field.name(), v);
    }
    return new Feature(f.id(), f.geometry(), values, f.version());
  }

  /**
   * What follows when a feature has got another place: the read only fields whose formula reads the
   * place, each with its new value, empty where it has none there.
   *
   * @param moved the feature with its new place and all values that are written with it
   */
  public static Map<String, Value> followed(Feature moved, Schema schema, Setting setting) {
    Map<String, Value> values = new LinkedHashMap<>(moved.values());
    Map<String, Value> out = new LinkedHashMap<>();
    LayerScope scope = new LayerScope(schema);
    for (Field field : schema.fields()) {
      if (!field.readOnly() || !(field.start() instanceof Start.Formula x)) continue;
      Optional<Rule> rule =
          rule(field, x, scope)
              .filter(
                  r ->
                      r.names().contains(LayerScope.PLACE)
                          || r.names().stream().anyMatch(out::containsKey));
      if (rule.isEmpty()) continue;
      Value v =
          kept(field, rule.get().evaluate(new Begun(values, moved.geometry(), schema, setting)));
      if (v.isEmpty()) values.remove(field.name());
      else values.put(field.name(), v);
      out.put(field.name(), v);
    }
    return out;
  }

  private static Optional<Rule> rule(Field field, Start.Formula x, LayerScope scope) {
    return Rules.formula(x.text(), scope, field.type().valueType()).rule();
  }

  /** What is worked out, as the field can keep it: a whole number where only those are kept. */
  private static Value kept(Field field, Value v) {
    return field.type() == FieldType.WHOLE && v instanceof Value.Num n
        ? Value.of(Numbers.round(n.value(), 0))
        : v;
  }

  /** The values of a feature that is split off another one: all but those that are its alone. */
  public static Map<String, Value> splitOff(Feature from, Schema schema) {
    Map<String, Value> values = new LinkedHashMap<>(from.values());
    for (Field f : schema.fields())
      if (f.unique() || f.type() == FieldType.UNIQUE_ID) values.remove(f.name());
    return values;
  }

  private record Begun(
      Map<String, Value> values, Optional<Geometry> place, Schema schema, Setting setting)
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
    public LocalDate today() {
      return setting.today();
    }

    @Override
    public Instant now() {
      return setting.now();
    }

    @Override
    public Optional<Coordinate> project(Coordinate wgs84) {
      return setting.system().flatMap(s -> s.project(wgs84));
    }
  }
}
