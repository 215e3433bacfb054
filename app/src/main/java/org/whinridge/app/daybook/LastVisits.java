package org.whinridge.app.daybook;

import java.time.ZoneId;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.project.Projects;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.travel.Outdoors;

/** What a form may know of the last visits to features: no more than goes outdoors. */
@Component
class LastVisits {
  private final Visits visits;
  private final Projects projects;

  LastVisits(Visits visits, Projects projects) {
    this.visits = visits;
    this.projects = projects;
  }

  /**
   * For which form.
   *
   * @param form as it is filled now, with the schema that it is filled with
   */
  record Asked(UUID formId, Form form, Schema schema, Layer layer) {}

  /** The last visit of each feature that has one. */
  Map<UUID, Pack.LastVisit> of(Asked asked, Collection<UUID> features) {
    ZoneId zone = projects.byId(asked.layer.projectId()).zone();
    Map<UUID, Pack.LastVisit> out = new LinkedHashMap<>();
    visits
        .last(asked.formId, asked.layer.id(), features)
        .forEach(
            (feature, v) ->
                out.put(
                    feature,
                    new Pack.LastVisit(
                        v.endedAt().atZone(zone).toLocalDate(),
                        v.person(),
                        Outdoors.pastAnswers(
                            v.sent().answers(),
                            v.sent().kept(),
                            asked.form,
                            asked.schema,
                            asked.layer.schema()))));
    return out;
  }
}
