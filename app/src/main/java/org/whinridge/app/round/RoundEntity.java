package org.whinridge.app.round;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;

@Entity
@Table(name = "round")
class RoundEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID projectId;
  UUID layerId;
  UUID formId;
  String name;
  String note;
  LocalDate due;
  String person;
  Instant madeAt;
  String madeBy;
  boolean tellsPosition;
}
