package org.whinridge.app.form;

import java.time.Instant;
import java.util.UUID;

/** How many visits there are of a form, told by the module that keeps them. */
public interface VisitsOfForms {
  /** The visits of a form that began at a moment or after it, whatever became of them. */
  long since(UUID form, Instant from);
}
