package org.whinridge.core.visit;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.OneFeature;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Value;

/** What a look-up's filter sees: one feature of the other layer, and the visit behind it. */
final class FeatureSituation implements Situation {
  private final Feature feature;
  private final Situation visit;

  FeatureSituation(Feature feature, Situation visit) {
    this.feature = feature;
    this.visit = visit;
  }

  @Override
  public Value value(String name) {
    if (name.startsWith(LookUp.ANSWERS))
      return visit.value(name.substring(LookUp.ANSWERS.length()));
    return OneFeature.value(feature, name);
  }

  @Override
  public LocalDate today() {
    return visit.today();
  }

  @Override
  public Instant now() {
    return visit.now();
  }

  @Override
  public String label(String name, Value code) {
    return name.startsWith(LookUp.ANSWERS)
        ? visit.label(name.substring(LookUp.ANSWERS.length()), code)
        : code.plain();
  }

  @Override
  public Optional<Coordinate> project(Coordinate wgs84) {
    return visit.project(wgs84);
  }
}
