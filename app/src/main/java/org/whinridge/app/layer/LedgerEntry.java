package org.whinridge.app.layer;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.said.Said;

/** One change in the ledger: who, when, why, and each field before and after, ready to be read. */
public record LedgerEntry(
    UUID id,
    Optional<UUID> featureId,
    long version,
    Instant at,
    String person,
    String cause,
    Optional<UUID> visitId,
    Said summary,
    List<FieldChange> fields,
    boolean canBeTakenBack,
    boolean takenBack) {
  /** One field before and after, in the words of its labels. */
  public record FieldChange(String field, String label, Said before, Said after) {}
}
