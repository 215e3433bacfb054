package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.form.VisitsOfForms;

/** Tells how many visits of a form there are. */
@Component
class VisitsCounted implements VisitsOfForms {
  private final VisitRepository visits;

  VisitsCounted(VisitRepository visits) {
    this.visits = visits;
  }

  @Override
  public long since(UUID form, Instant from) {
    return visits.countByFormIdAndStartedAtGreaterThanEqual(form, from);
  }
}
