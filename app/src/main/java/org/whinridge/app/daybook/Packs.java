package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.travel.Outdoors;

/** What a device takes offline for a round: content-hashed parts and a manifest that names them. */
@Service
class Packs {
  /**
   * Look-up layers are clipped to the stops' box and this much around it, in metres, since a pin
   * may be moved; as far as the form's look-ups reach comes on top.
   */
  private static final double AROUND_M = 2000;

  private static final long MOST_KEPT_BYTES = 64_000_000;
  private static final Duration KEPT = Duration.ofMinutes(15);

  private final Rounds rounds;
  private final Forms forms;
  private final Layers layers;
  private final LayerQueries queries;
  private final Projects projects;
  private final Visits visits;
  private final PackMap map;

  /** Parts as they were named in manifests a while ago, so that a device fetches what was named. */
  private final Cache<PartKey, byte[]> made =
      Caffeine.newBuilder()
          .maximumWeight(MOST_KEPT_BYTES)
          .weigher((PartKey key, byte[] content) -> content.length + 200)
          .expireAfterWrite(KEPT)
          .executor(Runnable::run)
          .build();

  private record PartKey(UUID round, String name, String hash) {}

  Packs(
      Rounds rounds,
      Forms forms,
      Layers layers,
      LayerQueries queries,
      Projects projects,
      Visits visits,
      PackMap map) {
    this.queries = queries;
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
      String hash = Sha256.of(content);
      made.put(new PartKey(roundId, name, hash), content);
      bytes += content.length;
      parts.add(new JsonObject().add("name", name).add("hash", hash).add("bytes", content.length));
    }
    return new JsonObject()
        .add("round", round.id().toString())
        .add("madeAt", Layers.now().toString())
        .add("bytes", bytes)
        .add("parts", parts);
  }

  /**
   * One part's bytes: those that a manifest named, as long as they are remembered, else as they are
   * now.
   */
  byte[] part(UUID roundId, String name, String hash, String person) {
    Round round = rounds.forPerson(roundId, person);
    byte[] named = made.getIfPresent(new PartKey(roundId, name, hash));
    if (named != null) return named;
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
    for (String layer : outdoorsForm(edition(round)).otherLayers().keySet())
      out.add("lookup-" + layer);
    return out;
  }

  private byte[] part(Round round, String name) {
    Layer layer = layers.byId(round.layerId());
    String json =
        switch (name) {
          case "work" -> work(round, layer).toString();
          case "features" -> features(layer.schema(), stops(round, layer)).toString();
          case "last-visits" -> lastVisits(round, layer).toString();
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
        .add("form", Outdoors.formJson(e.form(), e.schema()))
        .add("schema", Outdoors.schemaJson(e.schema()));
  }

  private static Form outdoorsForm(Edition e) {
    return Outdoors.form(e.form(), e.schema());
  }

  private static JsonObject features(Schema schema, List<Feature> all) {
    JsonArray fs = new JsonArray();
    for (Feature f : all)
      fs.add(Outdoors.json(f, schema).add("caption", Outdoors.caption(f, schema)));
    return new JsonObject().add("schema", Outdoors.schemaJson(schema)).add("features", fs);
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
    double aroundM = AROUND_M + edition(round).form().reachM();
    JsonArray fs = new JsonArray();
    Schema schema = other.get().schema();
    for (Feature f : queries.around(other.get(), box, aroundM)) fs.add(Outdoors.json(f, schema));
    return new JsonObject()
        .add("layer", id.toString())
        .add("name", other.get().name())
        .add("schema", Outdoors.schemaJson(schema))
        .add("features", fs);
  }

  private JsonObject lastVisits(Round round, Layer layer) {
    Edition e = edition(round);
    JsonObject out = new JsonObject();
    visits
        .last(
            round.formId(), layer.id(), round.stops().stream().map(Round.Stop::featureId).toList())
        .forEach(
            (feature, v) -> {
              JsonObject answers =
                  Outdoors.pastAnswers(
                      v.sent().answers(), v.sent().kept(), e.form(), e.schema(), layer.schema());
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
