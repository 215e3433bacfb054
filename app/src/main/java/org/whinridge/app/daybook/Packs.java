package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.LocalPlane;

/** What a device takes offline for a round: content-hashed parts and a manifest that names them. */
@Service
@Transactional(readOnly = true)
class Packs {
  /**
   * Look-up layers are clipped to the stops' box and this much around it, in metres, since a pin
   * may be moved; as far as the form's look-ups reach comes on top.
   */
  private static final double AROUND_M = 2000;

  private final Rounds rounds;
  private final Forms forms;
  private final Layers layers;
  private final Projects projects;
  private final Visits visits;
  private final PackMap map;

  Packs(Rounds rounds, Forms forms, Layers layers, Projects projects, Visits visits, PackMap map) {
    this.map = map;
    this.rounds = rounds;
    this.forms = forms;
    this.layers = layers;
    this.projects = projects;
    this.visits = visits;
  }

  /** The manifest: [{name, hash, bytes}] and what the parts hold in numbers. */
  JsonObject manifest(UUID roundId, String person) {
    Round round = rounds.forPerson(roundId, person);
    JsonArray parts = new JsonArray();
    long bytes = 0;
    for (String name : names(round)) {
      byte[] content = part(round, name);
      bytes += content.length;
      parts.add(
          new JsonObject()
              .add("name", name)
              .add("hash", Sha256.of(content))
              .add("bytes", content.length));
    }
    return new JsonObject()
        .add("round", round.id().toString())
        .add("madeAt", Layers.now().toString())
        .add("bytes", bytes)
        .add("parts", parts);
  }

  /** One part's bytes. */
  byte[] part(UUID roundId, String name, String person) {
    Round round = rounds.forPerson(roundId, person);
    if (!names(round).contains(name)) throw Refusal.notFound("part of this pack");
    return part(round, name);
  }

  private Edition edition(Round round) {
    return forms
        .newest(round.formId())
        .orElseThrow(() -> Refusal.refused("The form of this round has no published edition."));
  }

  private Set<String> names(Round round) {
    Set<String> out =
        new LinkedHashSet<>(List.of("work", "features", "last-visits", "basemap", "map", "ground"));
    for (String layer : edition(round).form().outdoors().otherLayers().keySet())
      out.add("lookup-" + layer);
    return out;
  }

  private byte[] part(Round round, String name) {
    Layer layer = layers.byId(round.layerId());
    String json =
        switch (name) {
          case "work" -> work(round, layer).toString();
          case "features" -> features(layer.schema().outdoors(), stops(round, layer)).toString();
          case "last-visits" -> lastVisits(round).toString();
          case "basemap" -> projects.basemap(round.projectId());
          case "map" -> map.map(round.projectId(), box(stops(round, layer))).toString();
          case "ground" ->
              map.ground(round.projectId(), box(stops(round, layer)))
                  .map(JsonObject::toString)
                  .orElse("null");
          default ->
              lookup(round, layer, UUID.fromString(name.substring("lookup-".length()))).toString();
        };
    return json.getBytes(StandardCharsets.UTF_8);
  }

  private List<Feature> stops(Round round, Layer layer) {
    return layers.some(layer, round.stops().stream().map(Round.Stop::featureId).toList());
  }

  private JsonObject work(Round round, Layer layer) {
    Edition e = edition(round);
    Project p = projects.byId(round.projectId());
    JsonObject r =
        new JsonObject()
            .add("id", round.id().toString())
            .add("name", round.name())
            .add("note", round.note())
            .add("due", round.due().map(Object::toString).orElse(""))
            .add("person", round.person());
    return new JsonObject()
        .add("round", r)
        .add("project", new JsonObject().add("key", p.key()).add("name", p.name()))
        .add(
            "system",
            new JsonObject().add("code", p.systemCode()).add("definition", p.systemDefinition()))
        .add("layer", new JsonObject().add("id", layer.id().toString()).add("name", layer.name()))
        .add("edition", e.number())
        .add("form", e.form().outdoors().json())
        .add("schema", e.schema().outdoors().json());
  }

  private static JsonObject features(Schema schema, List<Feature> all) {
    JsonArray fs = new JsonArray();
    for (Feature f : all)
      fs.add(travelling(f, schema).json(schema).add("caption", schema.caption(f.values())));
    return new JsonObject().add("schema", schema.json()).add("features", fs);
  }

  /** The feature without what the schema does not have: office only fields stay in the office. */
  static Feature travelling(Feature f, Schema schema) {
    Map<String, org.whinridge.core.value.Value> values = new LinkedHashMap<>(f.values());
    values.keySet().removeIf(name -> schema.field(name).isEmpty());
    return new Feature(f.id(), f.geometry(), values, f.version());
  }

  private static Envelope box(List<Feature> stops) {
    Envelope box = new Envelope();
    stops.forEach(f -> f.geometry().ifPresent(g -> box.expandToInclude(g.getEnvelopeInternal())));
    return box;
  }

  private JsonObject lookup(Round round, Layer layer, UUID id) {
    Optional<Layer> other =
        layers.list(round.projectId()).stream().filter(l -> l.id().equals(id)).findFirst();
    if (other.isEmpty()) return new JsonObject().add("missing", true);
    Envelope box = box(stops(round, layer));
    LocalPlane plane = new LocalPlane(box.isNull() ? new Coordinate() : box.centre());
    double aroundM = AROUND_M + edition(round).form().reachM();
    box.expandBy(plane.degreesEast(aroundM), plane.degreesNorth(aroundM));
    JsonArray fs = new JsonArray();
    Schema schema = other.get().schema().outdoors();
    layers.each(
        other.get(),
        f -> {
          if (f.geometry().filter(g -> g.getEnvelopeInternal().intersects(box)).isPresent())
            fs.add(travelling(f, schema).json(schema));
        });
    return new JsonObject()
        .add("layer", id.toString())
        .add("name", other.get().name())
        .add("schema", schema.json())
        .add("features", fs);
  }

  private JsonObject lastVisits(Round round) {
    JsonObject out = new JsonObject();
    visits
        .last(round.formId(), round.stops().stream().map(Round.Stop::featureId).toList())
        .forEach(
            (feature, v) -> {
              JsonObject answers = new JsonObject();
              for (JsonObject.Member m :
                  VisitCheck.object(VisitCheck.object(v.document(), "state"), "answers"))
                if (m.getValue().isObject())
                  answers.add(m.getName(), m.getValue().asObject().get("value"));
              for (JsonObject.Member rows : VisitCheck.object(v.document(), "kept"))
                if (rows.getValue().isArray() && answers.get(rows.getName()) == null)
                  answers.add(rows.getName(), rows.getValue());
              out.add(
                  feature.toString(),
                  new JsonObject()
                      .add(
                          "day",
                          v.endedAt().atOffset(java.time.ZoneOffset.UTC).toLocalDate().toString())
                      .add("person", v.person())
                      .add("answers", answers));
            });
    return out;
  }
}
