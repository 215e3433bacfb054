package org.whinridge.app.form;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Lob;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.form.edit.StepState;
import org.whinridge.core.said.Said;

@Entity
@Table(name = "form_step")
class FormStepEntity {
  @Id UUID id;
  UUID formId;
  long number;
  String person;
  Instant at;
  Said what;
  @Lob String delta;
  StepState state;
  long touched;
}
