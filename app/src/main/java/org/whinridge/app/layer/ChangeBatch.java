package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.hibernate.StatelessSession;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.merge.Standing;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.SamePlace;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Changes of one act on a layer, written by the thousand: rows are read, changed and entered into
 * the ledger in batches, within the transaction of {@link LayerChanges}.
 */
public final class ChangeBatch {
  private static final int BATCH = 500;
  private static final int MOST_TOLD = 50;

  /** One act is one transaction, and the store must hold it. */
  private static final int MOST_CHANGED = 200_000;

  private sealed interface Op {
    UUID feature();
  }

  private record Set(UUID feature, Map<String, Value> values, Optional<Geometry> geometry)
      implements Op {}

  private record Undo(UUID feature, Map<String, Value> before, Map<String, Value> after)
      implements Op {}

  private record Remove(UUID feature, boolean onlyUntouched) implements Op {}

  private record Restore(UUID feature) implements Op {}

  private final StatelessSession session;
  private final LayerEntity layer;
  private final LedgerEntity head;
  private final Map<UUID, Op> waiting = new LinkedHashMap<>();
  private final List<FeatureEntity> fresh = new ArrayList<>();
  private final List<Said> left = new ArrayList<>();
  private Schema schema;
  private final Schema schemaBefore;
  private final java.util.Set<UUID> touched = new LinkedHashSet<>();
  private final Optional<NewFeature.Setting> setting;
  private UUID takesBack;
  private int changed;
  private int added;
  private int removed;

  ChangeBatch(
      StatelessSession session,
      LayerEntity layer,
      UUID group,
      String cause,
      Said summary,
      String person,
      Instant at,
      Optional<NewFeature.Setting> setting) {
    this.setting = setting;
    this.session = session;
    this.layer = layer;
    this.schema = Schema.read(Json.parse(layer.schema).asObject());
    this.schemaBefore = schema;
    head = new LedgerEntity();
    head.id = group;
    head.groupId = group;
    head.layerId = layer.id;
    head.at = at;
    head.person = person;
    head.cause = cause;
    head.summary = summary;
    head.beforeValues = "{}";
    head.afterValues = "{}";
  }

  /** The layer's revision before this act. */
  public long revision() {
    return layer.revision;
  }

  /** The layer's schema before this act. */
  public Schema schemaBefore() {
    return schemaBefore;
  }

  /** All features as they are now, under the lock; changes of this act are not seen among them. */
  public void each(Consumer<Feature> use) {
    try (Stream<FeatureEntity> all = Layers.stream(session, layer.id)) {
      all.forEach(e -> use.accept(Layers.of(e, schemaBefore)));
    }
  }

  /** Some features as they are now, under the lock, by id; those that are not here are missing. */
  public Map<String, Feature> features(Collection<UUID> ids) {
    Map<String, Feature> out = new LinkedHashMap<>();
    if (!ids.isEmpty())
      rows(ids).stream()
          .filter(e -> !e.removed)
          .forEach(e -> out.put(e.id.toString(), Layers.of(e, schemaBefore)));
    return out;
  }

  private List<FeatureEntity> rows(Collection<UUID> ids) {
    return session
        .createSelectionQuery(
            "from FeatureEntity f where f.layerId = :layer and f.id in (:ids) order by f.id",
            FeatureEntity.class)
        .setParameter("layer", layer.id)
        .setParameterList("ids", ids)
        .getResultList();
  }

  /** Says which act this one takes back. */
  void takesBack(UUID act) {
    takesBack = act;
    head.takesBack = act;
  }

  UUID group() {
    return head.id;
  }

  /** The schema that values are written by: the new one once {@link #schema} was called. */
  Schema schemaOfValues() {
    return schema;
  }

  /** What the act does. */
  Said summary() {
    return head.summary;
  }

  /** Says what the act did, when that is only known at its end. */
  public void summary(Said s) {
    head.summary = s;
  }

  /** Gives the layer another schema; the ledger keeps the one before. */
  public void schema(Schema s) {
    head.beforeValues = new JsonObject().add(LayerChanges.SCHEMA, schemaBefore.json()).toString();
    head.afterValues = new JsonObject().add(LayerChanges.SCHEMA, s.json()).toString();
    schema = s;
    layer.schema = s.json().toString();
  }

  /** Sets values, and the geometry when one is given, of a feature. */
  public void set(UUID feature, Map<String, Value> values, Optional<Geometry> geometry) {
    queue(new Set(feature, values, geometry));
  }

  /** Adds a feature. */
  public void add(Feature f) {
    FeatureEntity e = FeatureEntity.fresh(layer, f, schema, head.id, head.at, head.person);
    e.placeInLayer = layer.featureCount++;
    fresh.add(e);
    added++;
    counted();
    touched.add(e.id);
    if (fresh.size() == BATCH) flushFresh();
  }

  /** Removes a feature; the ledger keeps it. */
  public void remove(UUID feature) {
    queue(new Remove(feature, false));
  }

  void removeIfUntouched(UUID feature) {
    queue(new Remove(feature, true));
  }

  void restore(UUID feature) {
    queue(new Restore(feature));
  }

  void undo(UUID feature, Map<String, Value> before, Map<String, Value> after) {
    queue(new Undo(feature, before, after));
  }

  private void counted() {
    if (changed + added + removed > MOST_CHANGED)
      throw Refusal.refused("refused.wouldChangeMoreThan");
  }

  private void queue(Op op) {
    counted();
    if (waiting.containsKey(op.feature())) flush();
    waiting.put(op.feature(), op);
    touched.add(op.feature());
    if (waiting.size() == BATCH) flush();
  }

  private void flushFresh() {
    session.insertMultiple(fresh);
    fresh.clear();
  }

  private void flush() {
    if (waiting.isEmpty()) return;
    List<FeatureEntity> rows = rows(waiting.keySet());
    Map<UUID, java.util.Set<String>> standing = standing();
    List<FeatureEntity> out = new ArrayList<>();
    List<LedgerEntity> entries = new ArrayList<>();
    for (FeatureEntity e : rows)
      one(e, waiting.get(e.id), standing.getOrDefault(e.id, java.util.Set.of()))
          .ifPresent(
              entry -> {
                out.add(e);
                entries.add(entry);
              });
    session.updateMultiple(out);
    session.insertMultiple(entries);
    waiting.clear();
  }

  /** For each feature whose values are to return: the fields that still come from the act. */
  private Map<UUID, java.util.Set<String>> standing() {
    List<UUID> undone =
        waiting.values().stream().filter(o -> o instanceof Undo).map(Op::feature).toList();
    Map<UUID, List<Standing.Written>> ledgers = new LinkedHashMap<>();
    if (!undone.isEmpty())
      session
          .createSelectionQuery(
              "from LedgerEntity e where e.featureId in (:ids) order by e.version",
              LedgerEntity.class)
          .setParameterList("ids", undone)
          .getResultList()
          .forEach(
              e -> ledgers.computeIfAbsent(e.featureId, x -> new ArrayList<>()).add(e.written()));
    Map<UUID, java.util.Set<String>> out = new LinkedHashMap<>();
    ledgers.forEach((id, all) -> out.put(id, Standing.of(takesBack.toString(), all)));
    return out;
  }

  private Optional<LedgerEntity> one(FeatureEntity e, Op op, java.util.Set<String> standing) {
    if (op instanceof Set set)
      return e.removed ? Optional.empty() : write(e, set.values, set.geometry);
    if (op instanceof Undo u) return undo(e, u, standing);
    boolean remove = op instanceof Remove;
    if (e.removed == remove) return Optional.empty();
    if (op instanceof Remove r && r.onlyUntouched && e.version > 1) {
      leave(e, Said.of("left.changed"));
      return Optional.empty();
    }
    e.removed = remove;
    layer.featureCount += remove ? -1 : 1;
    if (remove) removed++;
    else added++;
    JsonObject was = new JsonObject().add(LayerChanges.REMOVED, !remove);
    return Optional.of(
        entry(e, was.toString(), new JsonObject().add(LayerChanges.REMOVED, remove).toString()));
  }

  private Optional<LedgerEntity> undo(FeatureEntity e, Undo u, java.util.Set<String> standing) {
    if (e.removed) {
      leave(e, Said.of("left.removed"));
      return Optional.empty();
    }
    Map<String, Value> now = new LinkedHashMap<>(schema.readValues(Json.parse(e.attrs).asObject()));
    if (e.geom != null) now.put(Merge.GEOMETRY, new Value.Place(e.geom));
    Map<String, Value> back =
        new LinkedHashMap<>(
            Merge.takeBack(u.before, u.after, now, standing, SameValue.in(schema, layer.decimals)));
    for (String f : u.after.keySet())
      if (!back.containsKey(f))
        leave(
            e,
            Said.of(
                "left.fieldChanged",
                "field",
                schema.field(f).map(x -> Said.text(x.label())).orElse(Said.of("sheet.place"))));
    Optional<Geometry> g = LayerChanges.geometry(back);
    return write(e, back, g);
  }

  private void leave(FeatureEntity e, Said why) {
    if (left.size() < MOST_TOLD)
      left.add(
          Said.of(
              "left.line",
              "feature",
              schema.caption(schema.readValues(Json.parse(e.attrs).asObject())),
              "why",
              why));
  }

  /** Values are read as they were stored, so that a change of type is seen as a change. */
  private Optional<LedgerEntity> write(
      FeatureEntity e, Map<String, Value> set, Optional<Geometry> geometry) {
    Map<String, Value> values =
        new LinkedHashMap<>(schemaBefore.readValues(Json.parse(e.attrs).asObject()));
    Map<String, Value> before = new LinkedHashMap<>();
    Map<String, Value> after = new LinkedHashMap<>();
    boolean moves =
        geometry.isPresent()
            && (e.geom == null || !SamePlace.asWritten(geometry.get(), e.geom, layer.decimals));
    Map<String, Value> all = new LinkedHashMap<>(set);
    if (moves && setting.isPresent()) {
      Map<String, Value> then = new LinkedHashMap<>(values);
      then.putAll(set);
      all.putAll(
          NewFeature.followed(
              new Feature(e.id.toString(), geometry, then, e.version), schema, setting.get()));
    }
    all.forEach(
        (name, v) -> {
          Value was = values.getOrDefault(name, Value.EMPTY);
          if (was.equals(v)) return;
          before.put(name, was);
          after.put(name, v);
          if (v.isEmpty()) values.remove(name);
          else values.put(name, v);
        });
    JsonObject beforeJson = schemaBefore.writeValues(before);
    JsonObject afterJson = schema.writeValues(after);
    if (moves) {
      beforeJson.add(Merge.GEOMETRY, e.geom == null ? Json.NULL : GeometryJson.write(e.geom));
      afterJson.add(Merge.GEOMETRY, GeometryJson.write(geometry.get()));
      e.geom = geometry.get();
      Layers.grow(layer, e.geom.getEnvelopeInternal());
    }
    if (afterJson.isEmpty()) return Optional.empty();
    e.attrs = schema.writeValues(values).toString();
    changed++;
    return Optional.of(entry(e, beforeJson.toString(), afterJson.toString()));
  }

  private LedgerEntity entry(FeatureEntity e, String before, String after) {
    e.version++;
    e.changedAt = head.at;
    e.changedBy = head.person;
    LedgerEntity l = new LedgerEntity();
    l.id = Ids.next();
    l.groupId = head.id;
    l.takesBack = takesBack;
    l.layerId = layer.id;
    l.featureId = e.id;
    l.version = e.version;
    l.at = head.at;
    l.person = head.person;
    l.cause = head.cause;
    l.summary = head.summary;
    l.beforeValues = before;
    l.afterValues = after;
    return l;
  }

  void end() {
    flush();
    if (!fresh.isEmpty()) flushFresh();
    layer.changedAt = head.at;
    session.insert(head);
  }

  /** All features that it was to change, whether it did or not. */
  java.util.Set<UUID> touched() {
    return touched;
  }

  boolean schemaChanged() {
    return schema != schemaBefore;
  }

  int changed() {
    return changed;
  }

  int added() {
    return added;
  }

  int removed() {
    return removed;
  }

  List<Said> left() {
    return List.copyOf(left);
  }
}
