package org.whinridge.app.daybook;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.visit.VisitState;

@Entity
@Table(name = "visit")
class VisitEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID handInId;
  UUID roundId;
  UUID formId;
  int edition;
  UUID layerId;
  UUID featureId;
  boolean newFeature;
  String person;
  String device;
  Instant startedAt;
  Instant endedAt;
  Instant receivedAt;
  @Lob String document;
  String documentHash;
  @Lob String findings;
  VisitState state;
  boolean clash;
  Said reason;
  Instant decidedAt;
  String decidedBy;
}
