package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

/** What is told of a visit without reading its document. */
record VisitHead(
    UUID id, VisitState state, boolean clash, Said reason, String hash, Instant receivedAt) {
  static VisitHead of(VisitEntity v) {
    return new VisitHead(v.id, v.state, v.clash, v.reason, v.documentHash, v.receivedAt);
  }
}
