package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;

/**
 * A visit in a list: all that a line shows, without the document.
 *
 * @param findings how many things the server's own look at it found
 */
public record VisitLine(
    UUID id,
    UUID layerId,
    UUID featureId,
    String person,
    Instant endedAt,
    Instant receivedAt,
    int findings,
    String state,
    Optional<Instant> decidedAt,
    Optional<String> decidedBy) {
  /** As the store gives it. */
  VisitLine(
      UUID id,
      UUID layerId,
      UUID featureId,
      String person,
      Instant endedAt,
      Instant receivedAt,
      String findings,
      String state,
      Instant decidedAt,
      String decidedBy) {
    this(
        id,
        layerId,
        featureId,
        person,
        endedAt,
        receivedAt,
        Json.parse(findings).asArray().size(),
        state,
        Optional.ofNullable(decidedAt),
        Optional.ofNullable(decidedBy));
  }
}
