package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;

/**
 * A visit as it was handed in.
 *
 * @param document the whole visit as the device sent it
 * @param findings what the server's own run of the rules found, in words; empty when it agrees with
 *     the device
 * @param state waiting, clash, accepted, sent back or set aside
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
    JsonObject document,
    List<String> findings,
    String state,
    String reason,
    Optional<Instant> decidedAt,
    Optional<String> decidedBy) {
  /** Whether it is a past visit that came in a file, and not from a device. */
  public boolean cameInAFile() {
    return edition == 0;
  }
}
