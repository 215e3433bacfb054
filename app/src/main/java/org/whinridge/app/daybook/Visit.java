package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

/**
 * A visit as it was handed in.
 *
 * @param sent the whole visit as the device sent it
 * @param findings what the server's own run of the rules found; empty when it agrees with the
 *     device
 * @param clash whether it waits and disagrees with the layer
 */
public record Visit(
    UUID id,
    Optional<UUID> roundId,
    UUID formId,
    int edition,
    UUID layerId,
    UUID featureId,
    String person,
    String device,
    Instant startedAt,
    Instant endedAt,
    Instant receivedAt,
    SentVisit sent,
    List<Said> findings,
    VisitState state,
    boolean clash,
    Said reason,
    Optional<Instant> decidedAt,
    Optional<String> decidedBy) {
  /** What stands for it in lists: its state, or that it clashes. */
  public String shown() {
    return VisitLine.shown(state, clash);
  }

  /** Whether somebody has to decide on it. */
  public boolean isOpen() {
    return Visits.OPEN.contains(state);
  }

  /** Whether it was accepted. */
  public boolean isAccepted() {
    return state == VisitState.ACCEPTED;
  }

  /** Whether it is a past visit that came in a file, and not from a device. */
  public boolean cameInAFile() {
    return edition == 0;
  }
}
