package org.whinridge.app.daybook;

import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.form.EditionHead;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.map.ProjectMaps;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Round;
import org.whinridge.app.shell.Sha256;

/**
 * Of what a round's pack is made, in short: while it is the same, the pack is. It is worked out at
 * each contact, and reads no feature.
 */
@Component
class PackStamp {
  private final Forms forms;
  private final Layers layers;
  private final Projects projects;
  private final ProjectMaps maps;
  private final VisitRepository visits;

  PackStamp(
      Forms forms, Layers layers, Projects projects, ProjectMaps maps, VisitRepository visits) {
    this.forms = forms;
    this.layers = layers;
    this.projects = projects;
    this.maps = maps;
    this.visits = visits;
  }

  String of(Round r) {
    Project p = projects.byId(r.projectId());
    StringBuilder b = new StringBuilder(64 + 80 * r.stops().size());
    part(b, p.key(), p.name(), p.units().id(), p.zone(), p.systemCode(), p.systemDefinition());
    part(b, Sha256.of(projects.basemap(p.id()).getBytes(StandardCharsets.UTF_8)));
    part(b, r.name(), r.note(), r.due(), r.people(), r.allows(), r.when().expected());
    part(b, r.area(), r.tellsPosition());
    for (Round.Stop s : r.stops()) part(b, s.featureId(), s.note());
    for (UUID f : r.forms()) {
      VisitRepository.Past past = visits.past(f, forms.get(p.id(), f).layerId());
      part(b, f, newest(f), past.getN(), past.getNewest());
    }
    for (Layer l : layers.list(r.projectId()))
      part(b, l.id(), l.name(), l.revision(), l.lookRevision());
    part(b, maps.of(r.projectId()));
    return Sha256.of(b.toString().getBytes(StandardCharsets.UTF_8)).substring(0, 32);
  }

  private int newest(UUID form) {
    return forms.editions(form).stream().mapToInt(EditionHead::number).max().orElse(0);
  }

  private static void part(StringBuilder b, Object... all) {
    for (Object o : all) b.append(o).append('\n');
  }
}
