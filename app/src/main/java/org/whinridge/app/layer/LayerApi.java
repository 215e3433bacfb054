package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.security.Principal;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;

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

  /** Writes what was drawn at the desk. */
  @PostMapping(
      value = "/api/p/{project}/layers/{id}/edits",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> edits(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestBody String body,
      Principal person) {
    LayerChanges.Done d = editing.write(layer(project, id), body, person.getName());
    return ResponseEntity.ok(new JsonObject().add("act", d.group().toString()).toString());
  }

  /** What became of an act, for a page whose answer was lost. */
  @GetMapping(
      value = "/api/p/{project}/layers/{id}/acts/{act}",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> act(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable UUID act,
      Principal person) {
    return ResponseEntity.ok(
        new JsonObject()
            .add("written", changes.isWritten(layer(project, id), act, person.getName()))
            .toString());
  }

  @GetMapping(
      value = "/api/p/{project}/layers/{id}/features/{feature}",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> card(
      @PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layer(project, id);
    Feature f = layers.feature(layer, feature).orElseThrow(() -> Refusal.notFound("feature"));
    JsonArray values = new JsonArray();
    layer
        .schema()
        .fields()
        .forEach(
            field ->
                values.add(
                    new JsonObject()
                        .add("label", field.label())
                        .add("name", field.name())
                        .add("shown", field.shown(f.value(field.name())))
                        .add("fits", field.holds(f.value(field.name())))));
    JsonArray history = new JsonArray();
    for (LedgerEntry e : layers.history(layer, feature)) {
      JsonArray fields = new JsonArray();
      e.fields()
          .forEach(
              c ->
                  fields.add(
                      new JsonObject()
                          .add("label", c.label())
                          .add("before", c.before())
                          .add("after", c.after())));
      history.add(
          new JsonObject()
              .add("at", e.at().toString())
              .add("person", e.person())
              .add("cause", e.cause())
              .add("summary", e.summary())
              .add("visit", e.visitId().map(v -> Json.value(v.toString())).orElse(Json.NULL))
              .add("fields", fields));
    }
    return ResponseEntity.ok(
        f.json(layer.schema())
            .add("caption", layer.schema().caption(f.values()))
            .add("values", values)
            .add("history", history)
            .toString());
  }
}
