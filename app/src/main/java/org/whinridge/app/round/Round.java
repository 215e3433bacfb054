package org.whinridge.app.round;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;

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
    List<Stop> stops) {
  /**
   * One feature to be visited: its state is "to do", "started", "done", "sent back", "no access" or
   * "gone".
   */
  public record Stop(UUID featureId, String state, String reason) {}

  /** How many stops are in that state. */
  public long in(String state) {
    return stops.stream().filter(s -> s.state().equals(state)).count();
  }
}
