package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.BitSet;
import java.util.Iterator;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.JobProblem;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.read.LayerColumns;

/** What the desk's maps and cards read. */
@RestController
class LayerApi {
  /**
   * Vectors on the map up to this number; larger layers come as tiles later, and until then the
   * first ones are drawn and the rest is told.
   */
  static final int MOST_DRAWN = 20_000;

  private final Projects projects;
  private final Layers layers;
  private final LayerQueries queries;

  LayerApi(Projects projects, Layers layers, LayerQueries queries) {
    this.projects = projects;
    this.layers = layers;
    this.queries = queries;
  }

  private Layer layer(String project, UUID id) {
    return layers.get(projects.byKey(project).id(), id);
  }

  @GetMapping(value = "/api/p/{project}/layers/{id}/features", produces = "application/geo+json")
  ResponseEntity<String> features(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String filter,
      @RequestParam(defaultValue = "false") boolean outside) {
    Layer layer = layer(project, id);
    // without a filter the first ones come from the store, so that a large layer opens at once
    if (filter.isBlank() && !outside)
      return ResponseEntity.ok(
          collection(layer, layers.first(layer, MOST_DRAWN).iterator(), layer.count()));
    return ResponseEntity.ok(
        queries.where(
            layer,
            outside ? LayerQueries.outsideFilter(layer) : filter,
            (c, rows) -> collection(layer, c, rows)));
  }

  private static String collection(Layer layer, LayerColumns c, BitSet rows) {
    return collection(layer, rows.stream().mapToObj(c::feature).iterator(), rows.cardinality());
  }

  private static String collection(Layer layer, Iterator<Feature> some, int count) {
    StringBuilder b = new StringBuilder();
    int n = 0;
    while (some.hasNext() && n < MOST_DRAWN) {
      Feature f = some.next();
      b.append(n++ == 0 ? "" : ",")
          .append(f.json(layer.schema()).add("caption", layer.schema().caption(f.values())));
    }
    return "{\"type\":\"FeatureCollection\",\"drawn\":"
        + n
        + ",\"count\":"
        + count
        + ",\"features\":["
        + b
        + "]}";
  }

  /** The layer drawn small; its address has the revision, so that a browser may keep it. */
  @GetMapping(value = "/api/p/{project}/layers/{id}/shape.svg", produces = "image/svg+xml")
  ResponseEntity<String> shape(@PathVariable String project, @PathVariable UUID id) {
    Layer layer = layer(project, id);
    return ResponseEntity.ok()
        .header("Cache-Control", "private, max-age=604800")
        .body(LayerShape.svg(layer, layers.first(layer, 500)));
  }

  @GetMapping(
      value = "/api/p/{project}/layers/{id}/features/{feature}",
      produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<String> card(
      @PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layer(project, id);
    Feature f = layers.feature(layer, feature).orElseThrow(() -> JobProblem.notFound("feature"));
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
