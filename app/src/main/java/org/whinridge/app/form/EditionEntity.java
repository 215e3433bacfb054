package org.whinridge.app.form;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "edition")
class EditionEntity {
  @Id UUID id;
  UUID formId;
  int number;
  @Lob String content;

  @Lob
  @Column(name = "layer_schema")
  String schema;

  Instant publishedAt;
  String publishedBy;
}
