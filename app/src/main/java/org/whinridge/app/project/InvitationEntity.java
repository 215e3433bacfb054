package org.whinridge.app.project;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "invitation")
class InvitationEntity {
  @Id UUID id;
  UUID projectId;
  String tokenHash;
  String name;
  String roles;
  String madeBy;
  Instant madeAt;
  Instant expiresAt;
  Instant usedAt;
  String usedBy;
}
