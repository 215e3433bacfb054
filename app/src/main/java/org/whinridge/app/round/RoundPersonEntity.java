package org.whinridge.app.round;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "round_person")
class RoundPersonEntity {
  @Id UUID id;
  UUID roundId;
  String person;
  Instant takenOffAt;
}
