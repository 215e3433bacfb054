package org.whinridge.app.own;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "device_pairing")
class PairingEntity {
  @Id UUID id;
  String codeHash;
  String account;
  Instant madeAt;
  Instant expiresAt;
  Instant usedAt;
}
