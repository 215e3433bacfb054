package org.whinridge.app.daybook;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.form.Edition;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.core.travel.Outdoors;
import org.whinridge.core.value.Value;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.OpenPoint;
import org.whinridge.core.visit.VisitStart;

/**
 * Runs a visit's rules again at the server, with the visit's own inputs; nothing is looked up
 * again.
 */
@Component
class VisitCheck {
  private final LayerQueries queries;

  VisitCheck(LayerQueries queries) {
    this.queries = queries;
  }

  /**
   * Holds the answers of unique questions against the whole layer, too. What the server's run says:
   * what the reviewer should know, nothing when it agrees with the device.
   */
  List<Said> findings(SentVisit visit, Edition edition, Project project, Layer layer) {
    Schema schema = Outdoors.schema(edition.schema());
    Optional<ExecutableForm> form =
        FormCompiler.compile(Outdoors.form(edition.form(), edition.schema()), schema).form();
    if (form.isEmpty())
      return List.of(Said.of("visitFinding.cantRun", "edition", edition.number()));
    List<Said> out = new ArrayList<>();
    Set<String> unchecked = new LinkedHashSet<>();
    VisitStart start =
        VisitStart.read(
                visit.start(),
                base(visit, schema),
                Map.of(),
                CoordinateSystem.of(project.systemCode(), project.systemDefinition()),
                form.get())
            .with((field, value, self) -> isTaken(layer, field, value, self, unchecked));
    Filling again = Filling.resume(form.get(), start, visit.state());
    for (OpenPoint p : again.points())
      if (p.kind().holdsBack())
        out.add(
            form.get()
                .form()
                .question(p.question())
                .map(q -> Said.of("claim.fault", "field", q.label(), "why", p.message()))
                .orElse(p.message()));
    if (!schema.writeValues(again.forLayer()).equals(visit.set()))
      out.add(Said.of("visitFinding.otherValues"));
    unchecked.forEach(f -> out.add(Said.of("visitFinding.notLookedUp", "field", f)));
    return out;
  }

  /** A layer too large to be looked through turns no visit away; the reviewer is told instead. */
  private boolean isTaken(
      Layer layer, String field, Value value, String self, Set<String> unchecked) {
    try {
      return queries.isTaken(layer, field, value, self);
    } catch (Refusal e) {
      unchecked.add(layer.schema().field(field).map(Field::label).orElse(field));
      return false;
    }
  }

  private static Optional<Feature> base(SentVisit visit, Schema schema) {
    SentVisit.Base base = visit.base();
    if (base.isNew()) return Optional.empty();
    return Optional.of(
        new Feature(
            visit.feature().map(UUID::toString).orElse(""),
            base.geometry(),
            schema.readValues(base.values()),
            base.version()));
  }
}
