package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.hibernate.StatelessSession;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.merge.Standing;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * Layers, their features, and the one way to change a feature: {@link #write}, which keeps the
 * ledger.
 */
@Service
@Transactional(readOnly = true)
public class Layers {
  static final String HERE = "here";
  static final String TAKEN_BACK = "taken back";
  private static final int MOST_ACTS = 60;
  private final LayerRepository layers;
  private final FeatureRepository features;
  private final LedgerRepository ledger;
  private final Connections connections;
  private final Locks locks;
  private final LayerNews news;
  private final Setting setting;

  Layers(
      LayerRepository layers,
      FeatureRepository features,
      LedgerRepository ledger,
      Connections connections,
      Locks locks,
      LayerNews news,
      Setting setting) {
    this.setting = setting;
    this.layers = layers;
    this.features = features;
    this.ledger = ledger;
    this.connections = connections;
    this.locks = locks;
    this.news = news;
  }

  static Layer of(LayerEntity e) {
    Optional<Envelope> extent =
        e.west == null
            ? Optional.empty()
            : Optional.of(new Envelope(e.west, e.east, e.south, e.north));
    return new Layer(
        e.id,
        e.projectId,
        e.name,
        Schema.read(Json.parse(e.schema).asObject()),
        e.decimals,
        e.revision,
        e.featureCount,
        extent,
        e.source,
        e.madeAt,
        e.madeBy,
        e.changedAt,
        e.summary,
        e.tags.isBlank() ? List.of() : List.of(e.tags.split(",")),
        e.systemCode,
        e.expectedArea == null ? "" : e.expectedArea,
        e.lookRevision);
  }

  static Feature of(FeatureEntity e, Schema schema) {
    return new Feature(
        e.id.toString(),
        Optional.ofNullable(e.geom),
        schema.readValues(Json.parse(e.attrs).asObject()),
        e.version);
  }

  /** A project's layers by name. */
  public List<Layer> list(UUID project) {
    return layers.findByProjectIdAndStateOrderByName(project, HERE).stream()
        .map(Layers::of)
        .toList();
  }

  /** How many layers a project has. */
  public long count(UUID project) {
    return layers.countByProjectIdAndState(project, HERE);
  }

  /** A layer of a project. */
  public Layer get(UUID project, UUID id) {
    return layers
        .findByIdAndProjectId(id, project)
        .filter(e -> e.state.equals(HERE))
        .map(Layers::of)
        .orElseThrow(() -> Refusal.notFound("thing.layer"));
  }

  /** Whether a layer is one of a project's. */
  public boolean isOf(UUID project, UUID id) {
    return layers.findByIdAndProjectId(id, project).filter(e -> e.state.equals(HERE)).isPresent();
  }

  /** A layer by its id alone, for modules that have checked the project already. */
  public Layer byId(UUID id) {
    return layers.findById(id).map(Layers::of).orElseThrow(() -> Refusal.notFound("thing.layer"));
  }

  /** All features of a layer, one at a time; memory stays flat however many there are. */
  @Transactional(propagation = Propagation.SUPPORTS)
  public void each(Layer layer, Consumer<Feature> use) {
    connections.with(
        s -> {
          try (Stream<FeatureEntity> all = stream(s, layer.id())) {
            all.forEach(e -> use.accept(of(e, layer.schema())));
          }
          return null;
        });
  }

  static Stream<FeatureEntity> stream(StatelessSession s, UUID layer) {
    return s.createSelectionQuery(
            "from FeatureEntity f where f.layerId = :layer and f.removed = false order by f.placeInLayer",
            FeatureEntity.class)
        .setParameter("layer", layer)
        .setReadOnly(true)
        .setFetchSize(1000)
        .getResultStream();
  }

  /** The first features of a layer, at most {@code most}. */
  public List<Feature> first(Layer layer, int most) {
    return features.firstInLayer(layer.id(), Limit.of(most)).stream()
        .map(e -> of(e, layer.schema()))
        .toList();
  }

  /** Some features by id, in the layer's order; ids that the layer does not have are left out. */
  public List<Feature> some(Layer layer, Collection<UUID> ids) {
    return ids.isEmpty()
        ? List.of()
        : features.findByLayerIdAndIdInOrderByPlaceInLayer(layer.id(), ids).stream()
            .filter(e -> !e.removed)
            .map(e -> of(e, layer.schema()))
            .toList();
  }

  /** One feature of a layer, if it is there. */
  public Optional<Feature> feature(Layer layer, UUID id) {
    return features
        .findByIdAndLayerId(id, layer.id())
        .filter(e -> !e.removed)
        .map(e -> of(e, layer.schema()));
  }

  /** A feature's whole history, newest first; the import or visit that made it stands last. */
  public List<LedgerEntry> history(Layer layer, UUID feature) {
    return ledger.ofFeature(feature).stream()
        .filter(e -> e.layerId.equals(layer.id()))
        .map(e -> entry(e, layer.schema()))
        .toList();
  }

  /** The newest acts on a layer, at most 60: an import or a tidy is one. */
  public List<LedgerEntry> history(Layer layer) {
    return history(layer, MOST_ACTS);
  }

  /** The newest acts on a layer, at most so many. */
  public List<LedgerEntry> history(Layer layer, int most) {
    return ledger.acts(layer.id(), Limit.of(most)).stream()
        .map(e -> entry(e, layer.schema()))
        .toList();
  }

  private static LedgerEntry entry(LedgerEntity e, Schema schema) {
    JsonObject before = Json.parse(e.beforeValues).asObject();
    JsonObject after = Json.parse(e.afterValues).asObject();
    List<LedgerEntry.FieldChange> fields = new ArrayList<>();
    for (JsonObject.Member m : after) {
      if (m.getName().startsWith("$")) continue; // what the act itself needs to be taken back
      Optional<Field> f = schema.field(m.getName());
      fields.add(
          new LedgerEntry.FieldChange(
              m.getName(),
              f.map(Field::label).orElse(m.getName()),
              shown(f, before.get(m.getName())),
              shown(f, m.getValue())));
    }
    return new LedgerEntry(
        e.id,
        Optional.ofNullable(e.featureId),
        e.version,
        e.at,
        e.person,
        e.cause,
        Optional.ofNullable(e.visitId),
        e.summary,
        fields,
        e.id.equals(e.groupId) && e.takenBackBy == null && !e.cause.equals(LayerChanges.TAKEN_BACK),
        e.takenBackBy != null);
  }

  private static Said shown(Optional<Field> f, com.eclipsesource.json.JsonValue v) {
    if (v == null || v.isNull()) return Said.NONE;
    if (f.isEmpty())
      return v.isObject()
          ? Said.of("told.moved")
          : Said.text(v.isString() ? v.asString() : v.toString());
    return f.get().shown(ValueJson.read(v, f.get().type().valueType()));
  }

  /**
   * What an act of a visit wrote: each field before and after, geometry under {@link
   * Merge#GEOMETRY}.
   *
   * @param entry the ledger entry
   * @param made whether it made the feature
   * @param version the feature's version by it
   * @param standing the fields whose value still comes from it
   */
  public record Written(
      UUID entry,
      boolean made,
      long version,
      Map<String, Value> before,
      Map<String, Value> after,
      Set<String> standing) {}

  /** What a visit's newest ledger entry that was not taken back wrote. */
  public Optional<Written> written(Layer layer, UUID visit) {
    return ledger
        .findFirstByVisitIdAndCauseAndTakenBackByIsNullOrderByVersionDesc(visit, "visit")
        .map(
            e ->
                new Written(
                    e.id,
                    features
                        .findById(e.featureId)
                        .filter(f -> e.id.equals(f.madeByEntry))
                        .isPresent(),
                    e.version,
                    layer.schema().readValues(Json.parse(e.beforeValues).asObject()),
                    layer.schema().readValues(Json.parse(e.afterValues).asObject()),
                    Standing.of(
                        e.act().toString(),
                        ledger.after(e.featureId, e.version - 1).stream()
                            .map(LedgerEntity::written)
                            .toList())));
  }

  /**
   * A feature as the layer held it at a version, told from the ledger; empty when it never had that
   * version.
   */
  public Optional<Feature> at(Layer layer, Feature now, long version) {
    if (version < 1 || version > now.version()) return Optional.empty();
    Map<String, Value> values = new LinkedHashMap<>(now.values());
    now.geometry().ifPresent(g -> values.put(Merge.GEOMETRY, new Value.Place(g)));
    List<LedgerEntity> since = ledger.after(UUID.fromString(now.id()), version);
    for (int i = since.size() - 1; i >= 0; i--)
      values.putAll(layer.schema().readValues(Json.parse(since.get(i).beforeValues).asObject()));
    Optional<Geometry> g =
        values.remove(Merge.GEOMETRY) instanceof Value.Place p
            ? Optional.of(p.geometry())
            : Optional.empty();
    values.values().removeIf(Value::isEmpty);
    return Optional.of(new Feature(now.id(), g, values, version));
  }

  /**
   * A layer and one of its features under their locks, in this order, until the transaction ends.
   */
  public record Locked(Layer layer, Optional<Feature> feature) {}

  /** Locks a layer and then a feature of it, for merging into it. */
  @Transactional
  public Locked lock(UUID layer, UUID feature) {
    Layer l = of(locked(layer));
    return new Locked(
        l, lockedFeature(layer, feature).filter(e -> !e.removed).map(e -> of(e, l.schema())));
  }

  private LayerEntity locked(UUID layer) {
    return locks.lock(LayerEntity.class, layer).orElseThrow(() -> Refusal.notFound("thing.layer"));
  }

  private Optional<FeatureEntity> lockedFeature(UUID layer, UUID feature) {
    return locks.lock(FeatureEntity.class, feature).filter(e -> e.layerId.equals(layer));
  }

  /** Writes a change and its ledger entry; gives the feature's new version. */
  @Transactional
  public long write(FeatureChange change) {
    LayerEntity layer = locked(change.layerId());
    Schema schema = of(layer).schema();
    FeatureEntity e =
        change.isNew()
            ? fresh(layer, change)
            : lockedFeature(change.layerId(), change.featureId())
                .orElseThrow(() -> Refusal.notFound("thing.feature"));
    Map<String, Value> values =
        new LinkedHashMap<>(schema.readValues(Json.parse(e.attrs).asObject()));
    Map<String, Value> set = filled(change, layer, schema, values);
    Map<String, Value> before = new LinkedHashMap<>();
    set.forEach((name, v) -> before.put(name, values.getOrDefault(name, Value.EMPTY)));
    JsonObject beforeJson = schema.writeValues(before);
    JsonObject afterJson = schema.writeValues(set);
    change
        .geometry()
        .ifPresent(
            g -> {
              beforeJson.add(
                  Merge.GEOMETRY, e.geom == null ? Json.NULL : GeometryJson.write(e.geom));
              afterJson.add(Merge.GEOMETRY, GeometryJson.write(g));
              e.geom = g;
              grow(layer, g.getEnvelopeInternal());
            });
    set.forEach(
        (name, v) -> {
          if (v.isEmpty()) values.remove(name);
          else values.put(name, v);
        });
    e.attrs = schema.writeValues(values).toString();
    e.version++;
    e.changedAt = change.at();
    e.changedBy = change.person();
    layer.revision++;
    layer.changedAt = change.at();
    LedgerEntity l = new LedgerEntity();
    l.id = change.isNew() ? e.madeByEntry : UUID.randomUUID();
    l.layerId = layer.id;
    l.featureId = e.id;
    l.version = e.version;
    l.at = change.at();
    l.person = change.person();
    l.cause = change.cause();
    l.visitId = change.visitId().orElse(null);
    l.summary = change.summary();
    l.beforeValues = beforeJson.toString();
    l.afterValues = afterJson.toString();
    change.takesBack().ifPresent(taken -> takeBack(taken, l));
    ledger.save(l);
    features.save(e);
    news.tell(LayerChanged.one(layer.id, layer.revision, layer.changedAt, of(e, schema)));
    return e.version;
  }

  /** What is set, with the defaults of a new feature, or with what follows another place. */
  private Map<String, Value> filled(
      FeatureChange change, LayerEntity layer, Schema schema, Map<String, Value> values) {
    if (change.takesBack().isPresent() || !change.isNew() && change.geometry().isEmpty())
      return change.set();
    Map<String, Value> then = new LinkedHashMap<>(values);
    then.putAll(change.set());
    then.values().removeIf(Value::isEmpty);
    Feature f = new Feature(change.featureId().toString(), change.geometry(), then, 1);
    NewFeature.Setting now = setting.now(layer.projectId);
    if (change.isNew()) return NewFeature.begun(f, schema, now).values();
    Map<String, Value> out = new LinkedHashMap<>(change.set());
    out.putAll(NewFeature.followed(f, schema, now));
    return out;
  }

  private void takeBack(UUID entry, LedgerEntity by) {
    LedgerEntity e =
        ledger.findById(entry).orElseThrow(() -> Refusal.notFound("thing.ledgerEntry"));
    by.takesBack = e.act();
    e.takenBackBy = by.id;
  }

  /** A new row, or the one that was taken away again with a visit which made it. */
  private FeatureEntity fresh(LayerEntity layer, FeatureChange change) {
    Optional<FeatureEntity> there = locks.lock(FeatureEntity.class, change.featureId());
    if (there.filter(f -> !f.removed || !f.layerId.equals(layer.id)).isPresent())
      throw Refusal.conflict("refused.featureIdOnLayer");
    // one that was removed otherwise was removed by somebody who knew it
    if (there.isPresent() && !wasTakenBack(change.featureId()))
      throw Refusal.conflict("refused.featureGoneAtAccept");
    FeatureEntity e = there.orElseGet(FeatureEntity::new);
    e.id = change.featureId();
    e.layerId = layer.id;
    e.attrs = "{}";
    e.geom = null;
    e.removed = false;
    e.madeByEntry = UUID.randomUUID();
    if (there.isEmpty()) e.placeInLayer = layer.featureCount;
    layer.featureCount++;
    return e;
  }

  /** Whether the last that was done to a feature was taking something back. */
  private boolean wasTakenBack(UUID feature) {
    List<LedgerEntity> all = ledger.after(feature, 0);
    return !all.isEmpty() && all.get(all.size() - 1).cause.equals(LayerChanges.TAKEN_BACK);
  }

  /**
   * Takes a feature away again that a visit made.
   *
   * @param entry the ledger entry by which it was made
   */
  @Transactional
  public void unmake(Layer of, UUID feature, UUID visit, UUID entry, Said summary, String person) {
    LayerEntity layer = locked(of.id());
    FeatureEntity e =
        lockedFeature(of.id(), feature)
            .filter(f -> !f.removed)
            .orElseThrow(() -> Refusal.notFound("thing.feature"));
    Instant at = now();
    e.removed = true;
    e.version++;
    e.changedAt = at;
    e.changedBy = person;
    layer.featureCount--;
    layer.revision++;
    layer.changedAt = at;
    LedgerEntity l = new LedgerEntity();
    l.id = UUID.randomUUID();
    l.layerId = layer.id;
    l.featureId = e.id;
    l.version = e.version;
    l.at = at;
    l.person = person;
    l.cause = LayerChanges.TAKEN_BACK;
    l.visitId = visit;
    l.summary = summary;
    l.beforeValues = new JsonObject().add(LayerChanges.REMOVED, false).toString();
    l.afterValues = new JsonObject().add(LayerChanges.REMOVED, true).toString();
    takeBack(entry, l);
    ledger.save(l);
    features.save(e);
    news.tell(
        new LayerChanged(
            layer.id,
            layer.revision,
            at,
            Optional.of(new LayerChanged.Few(List.of(), List.of(e.id.toString())))));
  }

  static void grow(LayerEntity l, Envelope e) {
    if (e.isNull()) return;
    l.west = l.west == null ? e.getMinX() : Math.min(l.west, e.getMinX());
    l.east = l.east == null ? e.getMaxX() : Math.max(l.east, e.getMaxX());
    l.south = l.south == null ? e.getMinY() : Math.min(l.south, e.getMinY());
    l.north = l.north == null ? e.getMaxY() : Math.max(l.north, e.getMaxY());
  }

  /** The moment of now at the precision that the store keeps. */
  public static Instant now() {
    return Instant.now().truncatedTo(java.time.temporal.ChronoUnit.MILLIS);
  }
}
