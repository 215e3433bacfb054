package org.whinridge.app.form;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

@Entity
@Table(name = "form_trial")
class FormTrialEntity {
  @Id UUID id;
  UUID formId;
  String name;
  @Lob String content;
  Instant keptAt;
  String keptBy;
}
