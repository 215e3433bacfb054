package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.UUID;

/** What is told of a visit without reading its document. */
record VisitHead(UUID id, String state, String reason, String hash, Instant receivedAt) {
  static VisitHead of(VisitEntity v) {
    return new VisitHead(v.id, v.state, v.reason, v.documentHash, v.receivedAt);
  }
}
