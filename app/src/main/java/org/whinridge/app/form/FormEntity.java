package org.whinridge.app.form;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "form")
class FormEntity {
  @Id UUID id;
  UUID projectId;
  UUID layerId;
  @Lob String draft;
  long revision;
  Instant changedAt;
}
