package org.whinridge.app.round;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.round.StopState;

/** A planned piece of field work with its stops. */
public record Round(
    UUID id,
    UUID projectId,
    UUID layerId,
    UUID formId,
    String name,
    String note,
    Optional<LocalDate> due,
    String person,
    Instant madeAt,
    String madeBy,
    List<Stop> stops,
    boolean tellsPosition) {
  /** One feature to be visited. */
  public record Stop(UUID featureId, StopState state, String reason) {}

  /** How many stops are done. */
  public long done() {
    return stops.stream().filter(s -> s.state() == StopState.DONE).count();
  }
}
