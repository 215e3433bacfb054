package org.whinridge.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "terms_accepted")
class TermsAcceptedEntity {
  @Id UUID id;
  String account;
  int version;
  Instant acceptedAt;
}
