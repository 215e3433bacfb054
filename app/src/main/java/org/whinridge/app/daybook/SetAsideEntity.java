package org.whinridge.app.daybook;

import jakarta.persistence.Convert;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.said.Said;

@Entity
@Table(name = "set_aside")
class SetAsideEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID handInId;
  UUID projectId;
  String sentId;
  String person;
  String device;
  String deviceId;
  Instant receivedAt;
  @Lob String document;
  Said reason;

  @Convert(converter = SetAside.FateInTheStore.class)
  SetAside.Fate fate = SetAside.Fate.OPEN;

  String fateReason = "";
  String givenTo;
  Instant decidedAt;
  String decidedBy;
}
