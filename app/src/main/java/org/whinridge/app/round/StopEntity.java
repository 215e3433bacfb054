package org.whinridge.app.round;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;

@Entity
@Table(name = "stop")
class StopEntity {
  @Id UUID id;
  UUID roundId;
  UUID featureId;
  int placeInRound;
  String state;
  String reason;
}
