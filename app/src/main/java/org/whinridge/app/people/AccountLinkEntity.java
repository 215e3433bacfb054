package org.whinridge.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "account_link")
class AccountLinkEntity {
  @Id UUID id;
  String kind;
  String account;
  String tokenHash;
  String email;
  String madeBy;
  Instant madeAt;
  Instant expiresAt;
  Instant usedAt;
}
