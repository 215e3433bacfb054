package org.whinridge.app.round;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.visit.VisitState;

/** What rounds ask of visits. Offered by whoever has them. */
public interface VisitsForRounds {
  /**
   * The features of a layer that were visited on a day or after it, as the project counts days; a
   * visit that was sent back is none.
   */
  Set<UUID> visitedSince(Layer layer, LocalDate day);

  /** A visit that was handed in for a round; {@code makes} when its feature is its own. */
  record Made(
      UUID id,
      UUID layer,
      UUID feature,
      boolean makes,
      String person,
      Instant endedAt,
      VisitState state) {}

  /** The visits of a round, the oldest first. */
  List<Made> visitsOf(UUID round);
}
