package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Component;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.FormFile;
import org.whinridge.app.form.FormFiles;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.PackSize;
import org.whinridge.app.round.Round;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Reach;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.travel.Cells;
import org.whinridge.core.travel.Outdoors;
import org.whinridge.core.travel.PackPart;
import tools.jackson.databind.json.JsonMapper;

/** Of which parts a round's pack is made, what they hold, and what is left out of them. */
@Component
class PackParts {
  /**
   * Look-up layers are clipped to the stops' box and this much around it, in metres, since a pin
   * may be moved; as far as the form's look-ups reach comes on top.
   */
  private static final double AROUND_M = 2000;

  /** What the names of parts begin with. */
  private static final String FILE = "file-";

  private static final String FORM = "form-";
  private static final String LAST = "last-";
  private static final String FEATURES = "features-";
  private static final String LOOK_UP = "lookup-";
  private static final String CELL = "cell-";
  private static final String TILES = "tiles-";

  /** So many features of a layer that is looked up travel in one part. */
  private static final int IN_A_CELL = 500;

  /** The most features of a layer that travel where any asset may be visited. */
  private static final int MOST_ASSETS = 5000;

  private final Forms forms;
  private final Layers layers;
  private final LayerQueries queries;
  private final Projects projects;
  private final LastVisits visits;
  private final PackMap map;
  private final FormFiles files;
  private final Looks looks;
  private final JsonMapper json;

  PackParts(
      Forms forms,
      Layers layers,
      LayerQueries queries,
      Projects projects,
      LastVisits visits,
      PackMap map,
      FormFiles files,
      Looks looks,
      JsonMapper json) {
    this.forms = forms;
    this.layers = layers;
    this.queries = queries;
    this.projects = projects;
    this.visits = visits;
    this.map = map;
    this.files = files;
    this.looks = looks;
    this.json = json;
  }

  /** The parts of a round as they are now. */
  Making of(Round round) {
    return new Making(round);
  }

  private Edition edition(UUID form) {
    return forms.newest(form).orElseThrow(() -> Refusal.refused("refused.formRoundNoPublished"));
  }

  /** The parts of one round as they are now; what several of them need is found once. */
  final class Making {
    private final Round round;
    private final Map<UUID, LookedUp> lookedUp = new LinkedHashMap<>();
    private final Envelope box;

    /** What is told of the parts that were made. */
    private final List<PackSize.Of> told = new ArrayList<>();

    Making(Round round) {
      this.round = round;
      this.box = PackParts.this.box(round);
    }

    Set<String> names() {
      Set<String> out = new LinkedHashSet<>(List.of("round", "basemap", "map", "ground"));
      for (UUID l : map.tiled(round.projectId(), box)) out.add(TILES + l);
      for (Layer l : layersOf(round)) out.add(FEATURES + l.id());
      Set<String> there = files.pictures(round.projectId(), round.pictures());
      round.pictures().stream().filter(there::contains).forEach(p -> out.add(FILE + p));
      for (UUID id : round.forms()) {
        out.add(FORM + id);
        out.add(LAST + id);
        Form form = outdoorsForm(edition(id));
        for (String layer : form.otherLayers().keySet()) {
          out.add(LOOK_UP + layer);
          int cells = lookedUp(UUID.fromString(layer)).cells.size();
          for (int i = 0; i < cells; i++) out.add(cell(layer, i));
        }
        for (String file : form.files())
          if (files.has(round.projectId(), file)) out.add(FILE + file);
      }
      return out;
    }

    byte[] part(String name) {
      if (name.equals("basemap"))
        return projects.basemap(round.projectId()).getBytes(StandardCharsets.UTF_8);
      if (name.startsWith(FILE)) return file(round, name.substring(FILE.length()));
      return json.writeValueAsBytes(content(name));
    }

    /** A part with what is told of it. */
    byte[] toldPart(String name) {
      if (name.equals("basemap") || name.startsWith(FILE)) {
        byte[] bytes = part(name);
        PackPart of = name.startsWith(FILE) ? PackPart.PICTURES : PackPart.BASEMAP;
        told.add(PackSize.Of.one(of, "", bytes.length));
        return bytes;
      }
      Object content = content(name);
      byte[] bytes = json.writeValueAsBytes(content);
      told.add(said(name, content, bytes.length));
      return bytes;
    }

    /** What there is to tell of the parts that were made so far. */
    List<PackSize.Of> told() {
      return PackSize.together(told);
    }

    private PackSize.Of said(String name, Object content, int bytes) {
      if (content instanceof Pack.Work w)
        return PackSize.Of.one(PackPart.FORMS, w.form().getString("title", ""), bytes);
      if (content instanceof Pack.Features f)
        return new PackSize.Of(
            PackPart.ASSETS,
            f.name(),
            bytes,
            f.features().size(),
            layers.byId(f.layer()).count(),
            f.cut());
      if (content instanceof Pack.MapAround m)
        return new PackSize.Of(
            PackPart.MAP,
            "",
            bytes,
            m.layers().stream().mapToInt(l -> l.features().size()).sum(),
            0,
            m.layers().stream().anyMatch(Pack.MapLayer::cut));
      if (content instanceof Pack.Ground g)
        return new PackSize.Of(PackPart.BASEMAP, g.name(), bytes, g.tiles().size(), 0, g.cut());
      if (content instanceof Pack.Tiles t)
        return new PackSize.Of(
            PackPart.TILES, layers.byId(id(name, TILES)).name(), bytes, t.tiles().size(), 0, false);
      if (name.startsWith(LAST))
        return new PackSize.Of(
            PackPart.LAST_VISITS, "", bytes, ((Map<?, ?>) content).size(), 0, false);
      if (name.startsWith(LOOK_UP)) {
        LookedUp l = lookedUp(id(name, LOOK_UP));
        int there = l.cells.stream().mapToInt(c -> c.features().size()).sum();
        return new PackSize.Of(
            PackPart.LOOK_UPS,
            l.layer.map(Layer::name).orElse(""),
            bytes,
            there,
            l.layer.map(Layer::count).orElse(0),
            false);
      }
      if (name.startsWith(CELL))
        return PackSize.Of.one(
            PackPart.LOOK_UPS,
            lookedUp(UUID.fromString(name.substring(CELL.length()).split("_")[0]))
                .layer
                .map(Layer::name)
                .orElse(""),
            bytes);
      return PackSize.Of.one(PackPart.PLAN, "", bytes);
    }

    private Object content(String name) {
      if (name.startsWith(FORM)) return work(round, id(name, FORM));
      if (name.startsWith(LAST)) return lastVisits(round, id(name, LAST));
      if (name.startsWith(TILES)) return map.tiles(layers.byId(id(name, TILES)), box);
      if (name.startsWith(FEATURES)) return features(round, layers.byId(id(name, FEATURES)));
      if (name.startsWith(CELL)) {
        String[] of = name.substring(CELL.length()).split("_");
        LookedUp l = lookedUp(UUID.fromString(of[0]));
        Schema schema = l.layer.orElseThrow().schema();
        return l.cells.get(Integer.parseInt(of[1])).features().stream()
            .map(f -> Outdoors.json(f, schema))
            .toList();
      }
      return switch (name) {
        case "round" -> plan(round);
        case "map" -> map.map(round.projectId(), box);
        case "ground" -> map.ground(round.projectId(), box).orElse(null);
        default -> lookup(id(name, LOOK_UP));
      };
    }

    private LookedUp lookedUp(UUID id) {
      LookedUp known = lookedUp.get(id);
      if (known == null) lookedUp.put(id, known = find(round, id, box));
      return known;
    }

    private Object lookup(UUID id) {
      LookedUp l = lookedUp(id);
      if (l.layer.isEmpty()) return new Pack.Missing(true);
      List<Pack.Cell> cells = new ArrayList<>();
      for (Cells.Cell c : l.cells)
        cells.add(new Pack.Cell(cell(id.toString(), cells.size()), box(c.box())));
      return new Pack.LookUp(
          id,
          l.layer.get().name(),
          Outdoors.schemaJson(l.layer.get().schema()),
          l.known.isEmpty() ? null : box(l.known.get(0)),
          l.known.size() < 2 ? null : box(l.known.get(1)),
          l.reachM,
          cells);
    }
  }

  /**
   * What a round looks up in a layer, if there is such a layer.
   *
   * @param known the boxes of which all features are there, two over the date line; none for the
   *     whole layer
   */
  private record LookedUp(
      Optional<Layer> layer, List<Envelope> known, double reachM, List<Cells.Cell> cells) {}

  private static String cell(String layer, int number) {
    return CELL + layer + "_" + number;
  }

  /** The layers on which its forms are filled. */
  List<Layer> layersOf(Round round) {
    return round.forms().stream()
        .map(f -> forms.get(round.projectId(), f).layerId())
        .distinct()
        .map(layers::byId)
        .toList();
  }

  private static UUID id(String name, String before) {
    return UUID.fromString(name.substring(before.length()));
  }

  /** A file that travels with the form, as text as all parts are. */
  private byte[] file(Round round, String id) {
    FormFile f =
        files.of(round.projectId(), id).orElseThrow(() -> Refusal.notFound("thing.partOfThisPack"));
    return json.writeValueAsBytes(
        new Pack.File(f.name(), f.mediaType(), Base64.getEncoder().encodeToString(f.content())));
  }

  private Pack.Plan plan(Round round) {
    Project p = projects.byId(round.projectId());
    return new Pack.Plan(
        new Pack.Round(
            round.id(),
            round.name(),
            round.note().text(),
            round.note().pictures(),
            round.due().map(Object::toString).orElse(""),
            round.people(),
            round.allows().id(),
            round.when().expected(),
            round.area().map(GeometryJson::write).orElse(null),
            round.tellsPosition()),
        new Pack.Project(p.key(), p.name(), p.units().id()),
        round.forms().stream().map(f -> head(round, f)).toList(),
        round.stops().stream()
            .map(
                s ->
                    new Pack.Stop(s.featureId(), s.layerId(), s.note().text(), s.note().pictures()))
            .toList());
  }

  private Pack.FormHead head(Round round, UUID form) {
    Edition e = edition(form);
    return new Pack.FormHead(
        form, e.form().title(), e.number(), forms.get(round.projectId(), form).layerId());
  }

  private Pack.Work work(Round round, UUID form) {
    return work(round, edition(form));
  }

  /** What a visit with an edition is begun with. */
  Pack.Work work(Round round, Edition e) {
    UUID form = e.formId();
    Project p = projects.byId(round.projectId());
    Layer layer = layers.byId(forms.get(p.id(), form).layerId());
    return new Pack.Work(
        form,
        new Pack.System(p.systemCode(), p.systemDefinition()),
        new Pack.Named(layer.id(), layer.name()),
        e.number(),
        Outdoors.formJson(e.form(), e.schema()),
        Outdoors.schemaJson(e.schema()));
  }

  private static Form outdoorsForm(Edition e) {
    return Outdoors.form(e.form(), e.schema());
  }

  private List<Feature> stops(Round round, Layer layer) {
    return queries.some(
        layer,
        round.stops().stream()
            .filter(s -> s.layerId().equals(layer.id()))
            .map(Round.Stop::featureId)
            .toList());
  }

  /** The stops, and what else may be visited around them. */
  private Pack.Features features(Round round, Layer layer) {
    Schema schema = layer.schema();
    Map<String, Feature> all = new LinkedHashMap<>();
    for (Feature f : stops(round, layer)) all.put(f.id(), f);
    boolean cut = false;
    if (round.allows().isAnyAsset()) {
      List<Feature> around = assets(round, layer);
      cut = around.size() > MOST_ASSETS;
      around.stream().limit(MOST_ASSETS).forEach(f -> all.putIfAbsent(f.id(), f));
    }
    return new Pack.Features(
        layer.id(),
        layer.name(),
        Outdoors.schemaJson(schema),
        Outdoors.lookJson(looks.of(layer).look(), schema),
        cut,
        all.values().stream()
            .map(f -> Outdoors.json(f, schema).add("caption", Outdoors.caption(f, schema)))
            .toList());
  }

  /** One more than may be taken along when there are more. */
  private List<Feature> assets(Round round, Layer layer) {
    if (layer.schema().kind() == GeometryKind.TABLE)
      return queries.inOrder(layer, 0, MOST_ASSETS + 1);
    Optional<Geometry> area = round.area();
    if (area.isPresent() && queries.near(layer, area.get(), 0) <= MOST_ASSETS)
      return queries.within(layer, area.get(), 0);
    Envelope box = box(round);
    return box.isNull()
        ? queries.inOrder(layer, 0, MOST_ASSETS + 1)
        : queries.around(layer, box, AROUND_M, MOST_ASSETS);
  }

  /**
   * Where the round is: the narrowest box around its area and its stops, also over the date line.
   */
  private Envelope box(Round round) {
    List<Envelope> all = new ArrayList<>();
    // an area over the line has a part on each side
    round
        .area()
        .ifPresent(
            a -> {
              for (int i = 0; i < a.getNumGeometries(); i++)
                all.add(a.getGeometryN(i).getEnvelopeInternal());
            });
    for (Layer l : layersOf(round))
      for (Feature f : stops(round, l))
        f.geometry().ifPresent(g -> all.add(g.getEnvelopeInternal()));
    // one that is neither says nothing of where it is: it is wherever its layers are
    if (all.isEmpty() && round.allows().isAnyAsset())
      for (Layer l : layersOf(round)) l.extent().ifPresent(all::add);
    return Reach.narrowest(all);
  }

  private LookedUp find(Round round, UUID id, Envelope box) {
    Optional<Layer> other =
        layers.list(round.projectId()).stream().filter(l -> l.id().equals(id)).findFirst();
    if (other.isEmpty()) return new LookedUp(other, List.of(), 0, List.of());
    double reach = 0;
    for (UUID f : round.forms()) reach = Math.max(reach, edition(f).form().reachM());
    List<Envelope> boxes = Reach.boxes(box, AROUND_M + reach);
    List<Feature> there = queries.around(other.get(), box, AROUND_M + reach);
    return new LookedUp(
        other,
        there.size() == other.get().count() ? List.of() : boxes,
        reach,
        Cells.of(there, IN_A_CELL));
  }

  private static JsonArray box(Envelope e) {
    return new JsonArray()
        .add(Numbers.json(e.getMinX()))
        .add(Numbers.json(e.getMinY()))
        .add(Numbers.json(e.getMaxX()))
        .add(Numbers.json(e.getMaxY()));
  }

  private Map<UUID, Pack.LastVisit> lastVisits(Round round, UUID form) {
    Edition e = edition(form);
    Layer layer = layers.byId(forms.get(round.projectId(), form).layerId());
    return visits.of(
        new LastVisits.Asked(form, e.form(), e.schema(), layer),
        round.stops().stream()
            .filter(s -> s.layerId().equals(layer.id()))
            .map(Round.Stop::featureId)
            .toList());
  }
}
