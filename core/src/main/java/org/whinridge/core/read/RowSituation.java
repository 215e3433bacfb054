package org.whinridge.core.read;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Value;

/** A row of a read model, or one value of a column, as what a rule is evaluated against. */
final class RowSituation implements Situation {
  private final LayerColumns layer;
  private final Clock clock;
  private int row = -1;
  private String name = "";
  private Value value = Value.EMPTY;

  RowSituation(LayerColumns layer, Clock clock) {
    this.layer = layer;
    this.clock = clock;
  }

  RowSituation at(int newRow) {
    row = newRow;
    return this;
  }

  RowSituation with(String newName, Value newValue) {
    row = -1;
    name = newName;
    value = newValue;
    return this;
  }

  @Override
  public Value value(String wanted) {
    if (row < 0) return wanted.equals(name) ? value : Value.EMPTY;
    if (wanted.equals(LayerScope.PLACE))
      return layer.geometry(row).<Value>map(Value.Place::new).orElse(Value.EMPTY);
    return layer.column(wanted).map(c -> c.value(row)).orElse(Value.EMPTY);
  }

  @Override
  public LocalDate today() {
    return clock.today();
  }

  @Override
  public Instant now() {
    return clock.now();
  }

  @Override
  public String label(String field, Value code) {
    return layer.schema().field(field).map(f -> f.labelOf(code)).orElse(code.plain());
  }

  @Override
  public Optional<Coordinate> project(Coordinate wgs84) {
    return Optional.empty(); // a layer's filter knows no project system
  }
}
