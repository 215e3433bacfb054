package org.whinridge.app.review;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.daybook.Visit;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.Projects;
import org.whinridge.core.layer.Field;
import org.whinridge.core.value.ValueJson;

/** What stands on a feature's card beside its values: its pictures and its visits. */
@RestController
class FeatureVisitsController {
  /** The newest visits told on a card. */
  private static final int MOST = 20;

  private final Projects projects;
  private final Layers layers;
  private final Visits visits;
  private final Photos photos;

  FeatureVisitsController(Projects projects, Layers layers, Visits visits, Photos photos) {
    this.projects = projects;
    this.layers = layers;
    this.visits = visits;
    this.photos = photos;
  }

  @GetMapping(
      value = "/api/p/{project}/layers/{id}/features/{feature}/visits",
      produces = MediaType.APPLICATION_JSON_VALUE)
  String visits(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    List<Visit> newest = visits.ofFeature(layer.id(), feature, MOST);
    List<Photo> pictures = new ArrayList<>(photos.ofFeatures(layer.id(), List.of(feature)));
    pictures.addAll(photos.of(newest.stream().map(Visit::id).toList()));
    JsonArray told = new JsonArray();
    for (Visit v : newest) told.add(visit(v, layer));
    JsonArray shown = new JsonArray();
    for (Photo p : pictures) if (p.received()) shown.add(picture(p));
    return new JsonObject().add("pictures", shown).add("visits", told).toString();
  }

  private static JsonObject visit(Visit v, Layer layer) {
    JsonArray answers = new JsonArray();
    if (v.cameInAFile())
      for (JsonObject.Member m : v.sent().kept())
        answers.add(
            new JsonObject()
                .add(
                    "label",
                    layer.schema().field(m.getName()).map(Field::label).orElse(m.getName()))
                .add("shown", shown(layer, m)));
    return new JsonObject()
        .add("id", v.id().toString())
        .add("at", v.endedAt().toString())
        .add("future", v.endedAt().isAfter(Layers.now()))
        .add("person", v.person())
        .add("file", v.cameInAFile() ? v.reason() : "")
        .add("answers", answers);
  }

  private static String shown(Layer layer, JsonObject.Member m) {
    return layer
        .schema()
        .field(m.getName())
        .map(f -> f.shown(ValueJson.read(m.getValue(), f.type().valueType())))
        .orElseGet(
            () -> m.getValue().isString() ? m.getValue().asString() : m.getValue().toString());
  }

  private static JsonObject picture(Photo p) {
    JsonObject o =
        new JsonObject()
            .add("id", p.id().toString())
            .add("at", p.takenAt())
            .add("facts", p.facts())
            .add("visit", p.visitId().map(v -> Json.value(v.toString())).orElse(Json.NULL));
    JsonObject tag = Json.parse(p.geotag()).asObject();
    for (String k : List.of("lat", "lon", "direction"))
      if (tag.get(k) != null && tag.get(k).isNumber()) o.add(k, tag.get(k));
    return o;
  }
}
