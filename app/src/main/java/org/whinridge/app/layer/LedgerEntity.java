package org.whinridge.app.layer;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "ledger_entry")
class LedgerEntity {
  @Id UUID id;
  UUID layerId;
  UUID featureId;
  long version;
  Instant at;
  String person;
  String cause;
  UUID visitId;
  String summary;
  UUID groupId;
  UUID takenBackBy;

  @Lob
  @Column(name = "before_values")
  String beforeValues;

  @Lob
  @Column(name = "after_values")
  String afterValues;
}
