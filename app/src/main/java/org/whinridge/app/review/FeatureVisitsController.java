package org.whinridge.app.review;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
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
import org.whinridge.app.shell.Needs;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Said;
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

  /** A picture of a feature, with where it was taken as far as that is known. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Picture(
      UUID id, String at, Said facts, UUID visit, Double lat, Double lon, Double direction) {
    static Picture of(Photo p) {
      JsonObject tag = Json.parse(p.geotag()).asObject();
      return new Picture(
          p.id(),
          p.takenAt(),
          p.facts(),
          p.visitId().orElse(null),
          number(tag, "lat"),
          number(tag, "lon"),
          number(tag, "direction"));
    }

    private static Double number(JsonObject tag, String member) {
      return tag.get(member) != null && tag.get(member).isNumber()
          ? tag.get(member).asDouble()
          : null;
    }
  }

  /** An answer as people read it. */
  record Answer(String label, Said shown) {}

  /** A visit of a feature; {@code file} is "" for one that came from a device. */
  record Told(UUID id, String at, boolean future, String person, Said file, List<Answer> answers) {}

  /** What is known of a feature's visits. */
  record All(List<Picture> pictures, List<Told> visits) {}

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layers/{id}/features/{feature}/visits")
  All visits(@PathVariable String project, @PathVariable UUID id, @PathVariable UUID feature) {
    Layer layer = layers.get(projects.byKey(project).id(), id);
    List<Visit> newest = visits.ofFeature(layer.id(), feature, MOST);
    List<Photo> pictures = new ArrayList<>(photos.ofFeatures(layer.id(), List.of(feature)));
    pictures.addAll(photos.of(newest.stream().map(Visit::id).toList()));
    return new All(
        pictures.stream().filter(Photo::received).map(Picture::of).toList(),
        newest.stream().map(v -> told(v, layer)).toList());
  }

  private static Told told(Visit v, Layer layer) {
    List<Answer> answers = new ArrayList<>();
    if (v.cameInAFile())
      for (JsonObject.Member m : v.sent().kept())
        answers.add(
            new Answer(
                layer.schema().field(m.getName()).map(Field::label).orElse(m.getName()),
                shown(layer, m)));
    return new Told(
        v.id(),
        v.endedAt().toString(),
        v.endedAt().isAfter(Layers.now()),
        v.person(),
        v.cameInAFile() ? v.reason() : Said.NONE,
        answers);
  }

  private static Said shown(Layer layer, JsonObject.Member m) {
    return layer
        .schema()
        .field(m.getName())
        .map(f -> f.shown(ValueJson.read(m.getValue(), f.type().valueType())))
        .orElseGet(
            () ->
                Said.text(
                    m.getValue().isString() ? m.getValue().asString() : m.getValue().toString()));
  }
}
