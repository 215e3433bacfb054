package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.visit.VisitState;

/**
 * A visit in a list: all that a line shows, without the document.
 *
 * @param makes whether it makes its feature
 * @param findings how many things the server's own look at it found
 */
public record VisitLine(
    UUID id,
    UUID layerId,
    UUID featureId,
    boolean makes,
    String person,
    Instant endedAt,
    Instant receivedAt,
    int findings,
    VisitState state,
    boolean clash,
    Optional<Instant> decidedAt,
    Optional<String> decidedBy) {
  /** As the store gives it. */
  VisitLine(
      UUID id,
      UUID layerId,
      UUID featureId,
      boolean makes,
      String person,
      Instant endedAt,
      Instant receivedAt,
      String findings,
      VisitState state,
      boolean clash,
      Instant decidedAt,
      String decidedBy) {
    this(
        id,
        layerId,
        featureId,
        makes,
        person,
        endedAt,
        receivedAt,
        Json.parse(findings).asArray().size(),
        state,
        clash,
        Optional.ofNullable(decidedAt),
        Optional.ofNullable(decidedBy));
  }

  /** Whether somebody has to decide on it. */
  public boolean isOpen() {
    return Visits.OPEN.contains(state);
  }

  /** What stands for it in the list: its state, or that it clashes. */
  public String shown() {
    return shown(state, clash);
  }

  static String shown(VisitState state, boolean clash) {
    return clash && state == VisitState.WAITING ? "clash" : state.id();
  }
}
