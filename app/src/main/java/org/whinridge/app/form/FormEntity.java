package org.whinridge.app.form;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "form")
class FormEntity {
  @Id UUID id;
  @Version Long rowVersion;
  UUID projectId;
  UUID layerId;
  @Lob String draft;
  long revision;
  Instant changedAt;
  String changedBy;
  Instant publishesAt;
  Instant retiredAt;
  String retiredBy;

  /** What the file hashes to that it was begun from, see {@link FormsOfFiles}; null for none. */
  String fromFile;
}
