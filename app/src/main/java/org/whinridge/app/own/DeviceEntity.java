package org.whinridge.app.own;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "device")
class DeviceEntity {
  @Id UUID id;
  @Version long rowVersion;
  String account;
  String ownId;
  String name;
  String tokenHash;
  Instant pairedAt;
  String pairedBy;
  String sessionId;
  Instant contactAt;
  String version = "";
  Long bytesLeft;
  int carriesVisits;
  int carriesPhotos;
  Long clockOffSeconds;
  Double lon;
  Double lat;
  Instant positionAt;
  Instant askedAt;
  String askedBy;
  Instant revokedAt;
  String revokedBy;
  Instant wipedAt;
}
