package org.whinridge.core.layer;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Value;

/**
 * What rules over a layer see of one feature: its values, its place under {@link LayerScope#PLACE},
 * and the moment. It knows no project system.
 */
public record OneFeature(Feature feature, Schema schema, LocalDate today, Instant now)
    implements Situation {
  /** A value of a feature as rules name it. */
  public static Value value(Feature feature, String name) {
    return name.equals(LayerScope.PLACE)
        ? feature.geometry().<Value>map(Value.Place::new).orElse(Value.EMPTY)
        : feature.value(name);
  }

  @Override
  public Value value(String name) {
    return value(feature, name);
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
