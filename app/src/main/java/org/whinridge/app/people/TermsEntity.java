package org.whinridge.app.people;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;

@Entity
@Table(name = "terms")
class TermsEntity {
  @Id int version;
  @Lob String content;
  String madeBy;
  Instant madeAt;
}
