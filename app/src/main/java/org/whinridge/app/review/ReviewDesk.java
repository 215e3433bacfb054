package org.whinridge.app.review;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.daybook.SentVisit;
import org.whinridge.app.daybook.Visit;
import org.whinridge.app.daybook.VisitLine;
import org.whinridge.app.daybook.VisitMerge;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.FeatureChange;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.StopState;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.visit.KeptRows;
import org.whinridge.core.visit.VisitState;

/**
 * Compares visits with their layers and decides them. The merge is shown when the visit is looked
 * at and computed again when it is accepted.
 */
@Service
@Transactional(readOnly = true)
class ReviewDesk {
  private final Visits visits;
  private final Layers layers;
  private final Forms forms;
  private final Photos photos;
  private final Rounds rounds;

  ReviewDesk(Visits visits, Layers layers, Forms forms, Photos photos, Rounds rounds) {
    this.visits = visits;
    this.layers = layers;
    this.forms = forms;
    this.photos = photos;
    this.rounds = rounds;
  }

  /** One field on the review desk. {@code outcome}: written, clash, agreed, layer kept. */
  record Change(
      String field, Said label, Said base, Said mine, Said layer, String outcome, Said from) {}

  /** An answer that is kept on the visit only. */
  record Kept(String label, Said value) {}

  /**
   * A visit beside its layer.
   *
   * @param makes whether its feature is made when it is accepted
   */
  record View(
      Visit visit,
      Layer layer,
      String caption,
      boolean makes,
      boolean featureGone,
      List<Change> changes,
      List<Kept> kept,
      List<Photo> photos,
      String places,
      String formTitle) {
    public long writes() {
      return changes.stream().filter(c -> c.outcome().equals("written")).count();
    }

    public long clashes() {
      return changes.stream().filter(c -> c.outcome().equals("clash")).count();
    }
  }

  /** One line of the list of hand-ins. */
  record Line(VisitLine visit, String layerName, Said caption, int photos, int photosHere) {}

  private Map<UUID, Layer> layersOf(UUID project) {
    Map<UUID, Layer> out = new LinkedHashMap<>();
    for (Layer l : layers.list(project)) out.put(l.id(), l);
    return out;
  }

  long waiting(UUID project) {
    return visits.count(layersOf(project).keySet(), Visits.OPEN);
  }

  /** A page of the visits in some states, newest first. */
  List<Line> list(UUID project, Collection<VisitState> states, int page, int size) {
    Map<UUID, Layer> byId = layersOf(project);
    List<VisitLine> all = visits.page(byId.keySet(), states, page, size);
    Map<UUID, List<Photo>> pictures =
        photos.of(all.stream().map(VisitLine::id).toList()).stream()
            .collect(java.util.stream.Collectors.groupingBy(p -> p.visitId().orElseThrow()));
    Map<String, Feature> features = new LinkedHashMap<>();
    byId.values()
        .forEach(
            l ->
                layers
                    .some(
                        l,
                        all.stream()
                            .filter(v -> v.layerId().equals(l.id()))
                            .map(VisitLine::featureId)
                            .toList())
                    .forEach(f -> features.put(f.id(), f)));
    return all.stream()
        .map(
            v -> {
              Layer l = byId.get(v.layerId());
              List<Photo> ps = pictures.getOrDefault(v.id(), List.of());
              Said caption =
                  Optional.ofNullable(features.get(v.featureId().toString()))
                      .map(f -> Said.text(l.schema().caption(f.values())))
                      .orElse(
                          Said.of(v.makes() && v.isOpen() ? "page.newFeature" : "page.removed"));
              return new Line(
                  v,
                  l.name(),
                  caption,
                  ps.size(),
                  (int) ps.stream().filter(Photo::received).count());
            })
        .toList();
  }

  /** How many visits there are in some states. */
  long count(UUID project, Collection<VisitState> states) {
    return visits.count(layersOf(project).keySet(), states);
  }

  /** The visits that wait above and below one. */
  Visits.Neighbours neighbours(UUID project, Visit v) {
    return visits.neighbours(v, layersOf(project).keySet(), Visits.OPEN);
  }

  /** The visit, if it belongs to a layer of the project. */
  public Visit visit(UUID project, UUID id) {
    Visit v = visits.get(id);
    // another project's is told like one that there is not
    if (!layers.isOf(project, v.layerId())) throw Refusal.notFound("thing.visit");
    return v;
  }

  View view(UUID project, UUID id) {
    Visit v = visit(project, id);
    Layer layer = layers.byId(v.layerId());
    Optional<Feature> now = layers.feature(layer, v.featureId());
    List<Change> changes = new ArrayList<>();
    merged(v, layer, now)
        .ifPresent(o -> o.result().fields().forEach(m -> changes.add(change(m, layer, v.sent()))));
    Optional<Edition> edition = forms.edition(v.formId(), v.edition());
    List<Kept> kept = new ArrayList<>();
    for (JsonObject.Member m : v.sent().kept()) {
      Optional<Section> list = edition.flatMap(e -> e.form().list(m.getName()));
      if (list.isPresent()) {
        for (Said row : KeptRows.said(list.get(), m.getValue()))
          kept.add(new Kept(list.get().title(), row));
        continue;
      }
      var q = edition.flatMap(e -> e.form().question(m.getName()));
      if (q.filter(x -> x.type().isMedia()).isPresent()) continue;
      Value answer =
          ValueJson.read(
              m.getValue(),
              q.map(x -> x.type().valueType()).orElse(org.whinridge.core.value.ValueType.TEXT));
      kept.add(
          new Kept(
              q.map(x -> x.label()).orElse(m.getName()),
              q.map(x -> x.shown(answer)).orElseGet(answer::said)));
    }
    String caption =
        layer
            .schema()
            .caption(
                now.map(Feature::values)
                    .orElseGet(
                        () ->
                            layer
                                .schema()
                                .readValues(
                                    v.sent().makes() ? v.sent().set() : v.sent().base().values())));
    return new View(
        v,
        layer,
        caption,
        now.isEmpty() && v.sent().makes() && v.isOpen(),
        now.isEmpty() && !(v.sent().makes() && v.isOpen()),
        changes,
        kept,
        photos.of(List.of(id)),
        places(v, now),
        edition.map(e -> e.form().title()).orElse(""));
  }

  /** The merge with what is on the layer; nothing where the feature is gone. */
  private Optional<VisitMerge.Outcome> merged(Visit v, Layer layer, Optional<Feature> now) {
    SentVisit sent = v.sent();
    if (sent.makes())
      return now.isEmpty() && !v.isOpen()
          ? Optional.empty()
          : Optional.of(VisitMerge.ofNew(sent, layer, now));
    return now.map(f -> VisitMerge.of(sent, layer, f, layers.at(layer, f, sent.base().version())));
  }

  private static Change change(Merge.FieldMerge m, Layer layer, SentVisit sent) {
    Optional<Field> f = layer.schema().field(m.field());
    String outcome = m.outcome().name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
    SentVisit.From from = sent.provenance().getOrDefault(m.field(), new SentVisit.From("", ""));
    return new Change(
        m.field(),
        label(f),
        shown(f, m.base()),
        shown(f, m.mine()),
        shown(f, m.layer()),
        outcome,
        from(from));
  }

  private static Said label(Optional<Field> f) {
    return f.map(x -> Said.text(x.label())).orElse(Said.of("sheet.place"));
  }

  private static Said from(SentVisit.From from) {
    if (from.from().isEmpty()) return Said.NONE;
    Said origin = Said.of("origin." + from.from());
    return from.detail().isEmpty() ? origin : Said.of("list.then", "a", origin, "b", from.detail());
  }

  private static Said shown(Optional<Field> f, Value v) {
    if (v instanceof Value.Place p) {
      Coordinate at = p.geometry().getCoordinate();
      return Said.of("value.degrees", "lat", Said.fixed(at.y, 6), "lon", Said.fixed(at.x, 6));
    }
    return f.map(x -> x.shown(v)).orElseGet(v::said);
  }

  /** For the map: the feature on the layer, where the visit puts it, and where the person stood. */
  private static String places(Visit v, Optional<Feature> now) {
    JsonObject o = new JsonObject();
    now.flatMap(Feature::geometry).ifPresent(g -> o.add("layer", GeometryJson.write(g)));
    v.sent().geometry().ifPresent(g -> o.add("field", GeometryJson.write(g)));
    v.sent()
        .position()
        .ifPresent(at -> o.add("person", GeometryJson.write(GeometryJson.WGS84.createPoint(at))));
    return o.toString();
  }

  /**
   * Accepts a visit as a whole: merges it anew, writes the layer with a ledger entry, marks it.
   *
   * @param decisions for each clash "mine" or "layer"
   * @return how many fields were written
   */
  @Writing
  public int accept(UUID project, UUID id, Map<String, String> decisions, String person) {
    Visit v = locked(project, id, Visits.OPEN);
    Said summary = Said.of("ledger.visitAccepted", "person", v.person(), "by", person);
    int n = written(v, decisions, summary, person);
    visits.decide(id, VisitState.ACCEPTED, "", person);
    return n;
  }

  /** Accepts a waiting visit that nobody has to decide on; what clashes by now is refused. */
  @Writing
  public void acceptByItself(UUID id) {
    Visit v = visits.lock(id, EnumSet.of(VisitState.WAITING));
    Said summary = Said.of("ledger.visitAcceptedByItself", "person", v.person());
    written(v, Map.of(), summary, v.person());
    visits.decide(id, VisitState.ACCEPTED, "", null);
  }

  /** Writes what a visit changes to its layer; gives how many fields that are. */
  private int written(Visit v, Map<String, String> decisions, Said summary, String person) {
    Layers.Locked locked = layers.lock(v.layerId(), v.featureId());
    Layer layer = locked.layer();
    Merge.Result merge =
        merged(v, layer, locked.feature())
            .orElseThrow(() -> Refusal.conflict("refused.featureGoneAtAccept"))
            .result();
    boolean makes = v.sent().makes() && locked.feature().isEmpty();
    Map<String, Value> writes = new LinkedHashMap<>(merge.writes());
    for (Merge.FieldMerge clash : merge.clashes()) {
      String decision = decisions.getOrDefault(clash.field(), "");
      if (decision.equals("mine")) writes.put(clash.field(), clash.mine());
      else if (!decision.equals("layer"))
        throw Refusal.refused(
            "refused.chooseValueFirst", "field", label(layer.schema().field(clash.field())));
    }
    Optional<Geometry> geometry =
        Optional.ofNullable(writes.remove(Merge.GEOMETRY)).map(g -> ((Value.Place) g).geometry());
    if (makes || !writes.isEmpty() || geometry.isPresent())
      layers.write(
          new FeatureChange(
              layer.id(),
              v.featureId(),
              makes,
              writes,
              geometry,
              person,
              "visit",
              Optional.of(v.id()),
              Optional.empty(),
              summary,
              Layers.now()));
    return writes.size() + (geometry.isPresent() ? 1 : 0);
  }

  /** Sends a visit back to the person who made it. */
  @Writing
  public void sendBack(UUID project, UUID id, String note, String person) {
    Visit v = locked(project, id, Visits.OPEN);
    if (note.isBlank()) throw Refusal.refused("refused.sayWhatShouldBe", "person", v.person());
    visits.decide(id, VisitState.SENT_BACK, note.strip(), person);
    v.roundId().ifPresent(r -> rounds.mark(r, v.featureId(), StopState.SENT_BACK, note.strip()));
  }

  /**
   * Takes an accepted visit back: earlier values return where nobody has changed them since, and
   * the visit waits again. Gives what could not be taken back.
   */
  @Writing
  public List<Said> takeBack(UUID project, UUID id, String person) {
    Visit v = locked(project, id, EnumSet.of(VisitState.ACCEPTED));
    if (v.cameInAFile()) throw Refusal.refused("refused.visitCameFileNever");
    Layers.Locked locked = layers.lock(v.layerId(), v.featureId());
    List<Said> left = new ArrayList<>();
    layers
        .written(locked.layer(), id)
        .ifPresent(
            w ->
                left.addAll(
                    takeBack(
                        v,
                        w,
                        locked.layer(),
                        locked
                            .feature()
                            .orElseThrow(() -> Refusal.conflict("refused.featureGoneAtTakeBack")),
                        person)));
    visits.decide(id, VisitState.WAITING, "", person);
    return left;
  }

  /** Restores what still comes from the visit; gives the labels of what does not. */
  private List<Said> takeBack(Visit v, Layers.Written w, Layer layer, Feature now, String person) {
    Said summary = Said.of("ledger.visitTakenBack", "person", v.person());
    if (w.made()) {
      // what others have written to it since would go with it
      boolean untouched = now.version() == w.version();
      if (untouched) layers.unmake(layer, v.featureId(), v.id(), w.entry(), summary, person);
      return untouched ? List.of() : List.of(Said.of("told.newFeatureStays"));
    }
    Map<String, Value> current = new LinkedHashMap<>(now.values());
    now.geometry().ifPresent(g -> current.put(Merge.GEOMETRY, new Value.Place(g)));
    Map<String, Value> back =
        new LinkedHashMap<>(
            Merge.takeBack(
                w.before(),
                w.after(),
                current,
                w.standing(),
                SameValue.in(layer.schema(), layer.decimals())));
    List<Said> left =
        w.after().keySet().stream()
            .filter(f -> !back.containsKey(f))
            .map(f -> label(layer.schema().field(f)))
            .toList();
    Optional<Geometry> geometry =
        back.remove(Merge.GEOMETRY) instanceof Value.Place p
            ? Optional.of(p.geometry())
            : Optional.empty();
    if (!back.isEmpty() || geometry.isPresent())
      layers.write(
          new FeatureChange(
              layer.id(),
              v.featureId(),
              false,
              back,
              geometry,
              person,
              "taken back",
              Optional.of(v.id()),
              Optional.of(w.entry()),
              summary,
              Layers.now()));
    return left;
  }

  /** The visit under its lock, if it is this project's and still in one of these states. */
  private Visit locked(UUID project, UUID id, Collection<VisitState> states) {
    visit(project, id);
    return visits.lock(id, states);
  }
}
