package org.whinridge.app.form;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "form_file")
class FormFileEntity {
  @Id UUID id;
  UUID projectId;
  String name;
  String mediaType;
  String sha256;
  long bytes;
  @Lob byte[] content;
  Instant keptAt;
  String keptBy;
}
