package org.whinridge.app.form;

import java.time.Instant;
import java.util.Collection;
import java.util.Map;
import java.util.UUID;

/** How many visits there are of a form, told by the module that keeps them. */
public interface VisitsOfForms {
  /**
   * The visits of each form that began at a moment or after it, whatever became of them; a form
   * without any is not told.
   */
  Map<UUID, Long> since(Collection<UUID> forms, Instant from);
}
