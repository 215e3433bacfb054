package org.whinridge.core.rules;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.value.Value;

/**
 * What a rule is evaluated against: the answers, and the clock and coordinate system of the visit.
 */
public interface Situation {
  /** The value of a name; {@link Value#EMPTY} when it has none. */
  Value value(String name);

  /** The value of a name by its slot, for rules that were bound to slots ({@link Rule#bound}). */
  default Value slot(int slot) {
    throw new IllegalStateException("this situation knows names only");
  }

  /**
   * Called when something came out that can't be kept, though all that it was made of was there: a
   * division by zero, a date beyond the calendar, a relation of shapes that can't be judged.
   */
  default void notFinite() {}

  /** The day at the device when the visit began. */
  LocalDate today();

  /** The moment when the visit began. */
  Instant now();

  /** The label of a code of a question or field; the code itself when it has none. */
  String label(String name, Value code);

  /**
   * Easting and northing of a WGS 84 position in the project's system; empty when there is none.
   */
  Optional<Coordinate> project(Coordinate wgs84);
}
