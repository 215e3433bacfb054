package org.whinridge.app.daybook;

import java.time.Instant;
import java.util.Collection;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
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
  public Map<UUID, Long> since(Collection<UUID> forms, Instant from) {
    return visits.countSince(forms, from).stream()
        .collect(Collectors.toMap(row -> (UUID) row[0], row -> (Long) row[1]));
  }
}
