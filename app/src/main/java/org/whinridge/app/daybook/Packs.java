package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.FormFile;
import org.whinridge.app.form.FormFiles;
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
import tools.jackson.databind.json.JsonMapper;

/** What a device takes offline for a round: content-hashed parts and a manifest that names them. */
@Service
class Packs {
  /**
   * Look-up layers are clipped to the stops' box and this much around it, in metres, since a pin
   * may be moved; as far as the form's look-ups reach comes on top.
   */
  private static final double AROUND_M = 2000;

  /** What the names of parts with files of the form begin with. */
  private static final String FILE = "file-";

  private static final long MOST_KEPT_BYTES = 64_000_000;
  private static final Duration KEPT = Duration.ofMinutes(15);

  private final Rounds rounds;
  private final Forms forms;
  private final Layers layers;
  private final LayerQueries queries;
  private final Projects projects;
  private final LastVisits visits;
  private final PackMap map;
  private final FormFiles files;
  private final JsonMapper json;

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
      LastVisits visits,
      PackMap map,
      FormFiles files,
      JsonMapper json) {
    this.json = json;
    this.queries = queries;
    this.map = map;
    this.files = files;
    this.rounds = rounds;
    this.forms = forms;
    this.layers = layers;
    this.projects = projects;
    this.visits = visits;
  }

  /** Which parts there are. */
  Pack.Manifest manifest(UUID roundId, String person) {
    Round round = rounds.forPerson(roundId, person);
    List<Pack.Part> parts = new ArrayList<>();
    long bytes = 0;
    for (String name : names(round)) {
      byte[] content = part(round, name);
      String hash = Sha256.of(content);
      made.put(new PartKey(roundId, name, hash), content);
      bytes += content.length;
      parts.add(new Pack.Part(name, hash, content.length));
    }
    return new Pack.Manifest(round.id(), Layers.now(), bytes, parts);
  }

  /**
   * One part's bytes: those that a manifest named, as long as they are remembered, else as they are
   * now.
   */
  byte[] part(UUID roundId, String name, String hash, String person) {
    Round round = rounds.forPerson(roundId, person);
    byte[] named = made.getIfPresent(new PartKey(roundId, name, hash));
    if (named != null) return named;
    if (!names(round).contains(name)) throw Refusal.notFound("thing.partOfThisPack");
    return part(round, name);
  }

  private Edition edition(Round round) {
    return forms
        .newest(round.formId())
        .orElseThrow(() -> Refusal.refused("refused.formRoundNoPublished"));
  }

  private Set<String> names(Round round) {
    Set<String> out =
        new LinkedHashSet<>(List.of("work", "features", "last-visits", "basemap", "map", "ground"));
    Form form = outdoorsForm(edition(round));
    for (String layer : form.otherLayers().keySet()) out.add("lookup-" + layer);
    for (String file : form.files()) if (files.has(round.projectId(), file)) out.add(FILE + file);
    return out;
  }

  private byte[] part(Round round, String name) {
    Layer layer = layers.byId(round.layerId());
    if (name.equals("basemap"))
      return projects.basemap(round.projectId()).getBytes(StandardCharsets.UTF_8);
    if (name.startsWith(FILE)) return file(round, name.substring(FILE.length()));
    Object content =
        switch (name) {
          case "work" -> work(round, layer);
          case "features" -> features(layer.schema(), stops(round, layer));
          case "last-visits" -> lastVisits(round, layer);
          case "map" -> map.map(round.projectId(), box(stops(round, layer)));
          case "ground" -> map.ground(round.projectId(), box(stops(round, layer))).orElse(null);
          default -> lookup(round, layer, UUID.fromString(name.substring("lookup-".length())));
        };
    return json.writeValueAsBytes(content);
  }

  /** A file that travels with the form, as text as all parts are. */
  private byte[] file(Round round, String id) {
    FormFile f =
        files.of(round.projectId(), id).orElseThrow(() -> Refusal.notFound("thing.partOfThisPack"));
    return json.writeValueAsBytes(
        new Pack.File(f.name(), f.mediaType(), Base64.getEncoder().encodeToString(f.content())));
  }

  private List<Feature> stops(Round round, Layer layer) {
    return layers.some(layer, round.stops().stream().map(Round.Stop::featureId).toList());
  }

  private Pack.Work work(Round round, Layer layer) {
    Edition e = edition(round);
    Project p = projects.byId(round.projectId());
    return new Pack.Work(
        new Pack.Round(
            round.id(),
            round.name(),
            round.note(),
            round.due().map(Object::toString).orElse(""),
            round.person(),
            round.tellsPosition()),
        new Pack.Project(p.key(), p.name(), p.units().id()),
        new Pack.System(p.systemCode(), p.systemDefinition()),
        new Pack.Named(layer.id(), layer.name()),
        e.number(),
        Outdoors.formJson(e.form(), e.schema()),
        Outdoors.schemaJson(e.schema()));
  }

  private static Form outdoorsForm(Edition e) {
    return Outdoors.form(e.form(), e.schema());
  }

  private static Pack.Features features(Schema schema, List<Feature> all) {
    return new Pack.Features(
        Outdoors.schemaJson(schema),
        all.stream()
            .map(f -> Outdoors.json(f, schema).add("caption", Outdoors.caption(f, schema)))
            .toList());
  }

  private static Envelope box(List<Feature> stops) {
    Envelope box = new Envelope();
    stops.forEach(f -> f.geometry().ifPresent(g -> box.expandToInclude(g.getEnvelopeInternal())));
    return box;
  }

  private Object lookup(Round round, Layer layer, UUID id) {
    Optional<Layer> other =
        layers.list(round.projectId()).stream().filter(l -> l.id().equals(id)).findFirst();
    if (other.isEmpty()) return new Pack.Missing(true);
    Envelope box = box(stops(round, layer));
    double aroundM = AROUND_M + edition(round).form().reachM();
    Schema schema = other.get().schema();
    List<JsonObject> there = new ArrayList<>();
    for (Feature f : queries.around(other.get(), box, aroundM)) there.add(Outdoors.json(f, schema));
    return new Pack.LookUp(id, other.get().name(), Outdoors.schemaJson(schema), there);
  }

  private Map<UUID, Pack.LastVisit> lastVisits(Round round, Layer layer) {
    Edition e = edition(round);
    return visits.of(
        new LastVisits.Asked(round.formId(), e.form(), e.schema(), layer),
        round.stops().stream().map(Round.Stop::featureId).toList());
  }
}
