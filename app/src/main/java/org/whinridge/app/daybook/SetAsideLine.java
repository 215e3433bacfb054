package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.said.Said;

/** A row of {@link SetAside} as the store gives it, without the text. */
record SetAsideLine(
    UUID id,
    String sentId,
    String person,
    String device,
    Instant receivedAt,
    Said reason,
    SetAside.Fate fate,
    String fateReason,
    String givenTo,
    Instant decidedAt,
    String decidedBy) {
  SetAside said() {
    return new SetAside(
        id,
        sentId,
        person,
        device,
        receivedAt,
        reason,
        fate,
        fateReason,
        Optional.ofNullable(givenTo),
        Optional.ofNullable(decidedAt),
        Optional.ofNullable(decidedBy));
  }
}
