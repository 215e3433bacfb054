package org.whinridge.app.layer;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import jakarta.validation.Valid;
import java.security.Principal;
import java.util.List;
import java.util.UUID;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** What the desk's cards read of a feature, and what was drawn at the desk. */
@RestController
class LayerApi {
  private final Projects projects;
  private final Layers layers;
  private final LayerEditing editing;
  private final LayerChanges changes;

  LayerApi(Projects projects, Layers layers, LayerEditing editing, LayerChanges changes) {
    this.changes = changes;
    this.projects = projects;
    this.layers = layers;
    this.editing = editing;
  }

  private Layer layer(String project, UUID id) {
    return layers.get(projects.byKey(project).id(), id);
  }

  /** The act under which something was written. */
  record Act(UUID act) {}

  /** Whether an act was written. */
  record Written(boolean written) {}

  /** Writes what was drawn at the desk. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/api/p/{project}/layers/{id}/edits")
  Act edits(
      @PathVariable String project,
      @PathVariable UUID id,
      @Valid @RequestBody SentEdits body,
      Principal person) {
    return new Act(editing.write(layer(project, id), body, person.getName()).group());
  }

  /** What became of an act, for a page whose answer was lost. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layers/{id}/acts/{act}")
  Written act(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable UUID act,
      Principal person) {
    return new Written(changes.isWritten(layer(project, id), act, person.getName()));
  }

  /** A value of a feature as people read it. */
  record Shown(String label, String name, Said shown, boolean fits) {}

  /** A field that an entry of the ledger changed. */
  record FieldChange(String label, Said before, Said after) {}

  /** An entry of a feature's ledger; {@code visit} is null when no visit caused it. */
  record Entry(
      String at, String person, String cause, Said summary, UUID visit, List<FieldChange> fields) {
    static Entry of(LedgerEntry e) {
      return new Entry(
          e.at().toString(),
          e.person(),
          e.cause(),
          e.summary(),
          e.visitId().orElse(null),
          e.fields().stream().map(c -> new FieldChange(c.label(), c.before(), c.after())).toList());
    }
  }

  /** A feature as GeoJSON (RFC 7946), with all that its card shows. */
  record Card(
      JsonValue type,
      JsonValue id,
      JsonValue geometry,
      JsonValue properties,
      JsonValue version,
      String caption,
      List<Shown> values,
      List<Entry> history) {}

  /** What the card of a feature shows. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layers/{id}/features/{feature}")
  Card card(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layer(project, id);
    Feature f = layers.feature(layer, feature).orElseThrow(() -> Refusal.notFound("thing.feature"));
    JsonObject own = f.json(layer.schema());
    return new Card(
        own.get("type"),
        own.get("id"),
        own.get("geometry"),
        own.get("properties"),
        own.get("version"),
        layer.schema().caption(f.values()),
        layer.schema().fields().stream()
            .map(
                field -> {
                  Value v = f.value(field.name());
                  return new Shown(field.label(), field.name(), field.shown(v), field.holds(v));
                })
            .toList(),
        layers.history(layer, feature).stream().map(Entry::of).toList());
  }
}
