package org.whinridge.app.daybook;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "hand_in")
class HandInEntity {
  @Id UUID id;
  @Version Long rowVersion;
  String person;
  String device;
  String broughtBy;
  Instant receivedAt;
  int visits;
  long bytes;
}
