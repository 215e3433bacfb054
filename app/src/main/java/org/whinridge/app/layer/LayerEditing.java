package org.whinridge.app.layer;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Service;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldCheck;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Reshaping;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.UniqueValues;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/**
 * What is drawn at the desk: new features, other shapes, features taken away. All of one saving is
 * one act in the ledger, and is written whole or not at all.
 */
@Service
class LayerEditing {
  private static final int MOST_TOLD = 5;

  private static final int TRIES = 3;
  private final LayerChanges changes;
  private final Layers layers;
  private final ReadModels models;
  private final Setting setting;

  LayerEditing(LayerChanges changes, Layers layers, ReadModels models, Setting setting) {
    this.changes = changes;
    this.layers = layers;
    this.models = models;
    this.setting = setting;
  }

  private record Edit(
      UUID id,
      boolean isNew,
      boolean removed,
      long version,
      Map<String, Value> set,
      Optional<Geometry> geometry,
      Optional<UUID> like) {}

  /** The layer was changed between reading its values and locking it. */
  private static final class Moved extends Exception {
    private static final long serialVersionUID = 1;
  }

  /** Writes edits as the page sends them, once for each act. */
  LayerChanges.Done write(Layer seen, SentEdits sent, String person) {
    List<Edit> edits = sent.edits().stream().map(e -> edit(seen.schema(), e)).toList();
    try {
      for (int i = 1; ; i++)
        try {
          Layer layer = layers.byId(seen.id());
          return changes.write(
              seen, sent.act(), "desk", summary(edits), person, new Writing(layer, edits)::write);
        } catch (Moved e) {
          if (i == TRIES) throw Refusal.busy();
        }
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("writing failed, nothing was changed", e);
    }
  }

  private static Said summary(List<Edit> edits) {
    long made = edits.stream().filter(Edit::isNew).count();
    long gone = edits.stream().filter(Edit::removed).count();
    long other = edits.size() - made - gone;
    List<Said> parts = new ArrayList<>();
    if (made > 0) parts.add(Said.of("ledger.made", "n", made));
    if (other > 0) parts.add(Said.of("ledger.changed", "n", other));
    if (gone > 0) parts.add(Said.of("ledger.takenAway", "n", gone));
    return Said.of("ledger.atTheDesk", "what", Said.inARow(parts, "list.then"));
  }

  /** One try of writing, with the layer's values as they were just before its lock. */
  private final class Writing {
    private final Layer layer;
    private final List<Edit> edits;
    private final NewFeature.Setting now;
    private final Optional<LayerColumns> columns;
    private final Map<String, Map<Value, String>> given = new LinkedHashMap<>();

    Writing(Layer layer, List<Edit> edits) {
      this.layer = layer;
      this.edits = edits;
      now = setting.now(layer.projectId());
      // read before the lock: a transaction has one connection, and the model may need it
      boolean unique = layer.schema().fields().stream().anyMatch(Field::unique);
      columns = unique ? Optional.of(models.of(layer)) : Optional.empty();
    }

    void write(ChangeBatch batch) throws Moved {
      if (columns.isPresent() && batch.revision() != layer.revision()) throw new Moved();
      List<UUID> read = new ArrayList<>();
      for (Edit e : edits) {
        if (!e.isNew) read.add(e.id);
        e.like.ifPresent(read::add);
      }
      Map<String, Feature> there = batch.features(read);
      for (Edit e : edits) {
        Feature f = there.get(e.id.toString());
        if (!e.isNew && (f == null || f.version() != e.version))
          throw Refusal.conflict(
              f == null ? "refused.featureGone" : "refused.featureChanged",
              "feature",
              f == null ? e.id : layer.schema().caption(f.values()));
        check(layer.schema(), e, f);
        if (e.isNew) batch.add(fresh(e, e.like.map(id -> there.get(id.toString()))));
        else if (e.removed) batch.remove(e.id);
        else {
          allowed(e, e.set, Optional.of(f));
          batch.set(e.id, e.set, e.geometry);
        }
      }
    }

    /**
     * A new feature; split off another one it has that one's values, but for those that are its
     * alone.
     */
    private Feature fresh(Edit e, Optional<Feature> like) {
      Map<String, Value> inherited =
          like.map(f -> NewFeature.splitOff(f, layer.schema())).orElse(Map.of());
      Map<String, Value> values = new LinkedHashMap<>(inherited);
      values.putAll(e.set);
      values.values().removeIf(Value::isEmpty);
      Feature f =
          NewFeature.begun(
              new Feature(e.id.toString(), e.geometry, values, 1), layer.schema(), now);
      Map<String, Value> all = new LinkedHashMap<>();
      for (Field x : layer.schema().fields()) all.put(x.name(), f.value(x.name()));
      // what came from the other part stood there already, be it listed or not
      allowed(e, all, like.map(x -> new Feature(f.id(), Optional.empty(), inherited, 1)));
      return f;
    }

    private void allowed(Edit e, Map<String, Value> values, Optional<Feature> before) {
      Schema schema = layer.schema();
      List<FieldCheck.Fault> faults = new ArrayList<>(FieldCheck.byHand(schema, e.set));
      faults.addAll(FieldCheck.of(schema, values, before, (f, v) -> isTaken(e, f, v)));
      if (faults.isEmpty()) {
        note(e, values);
        return;
      }
      String caption = schema.caption(e.isNew ? values : before.orElseThrow().values());
      throw Refusal.refused(
          "refused.cantWrite",
          "feature",
          !e.isNew
              ? Said.text("“" + caption + "”")
              : caption.isEmpty()
                  ? Said.of("told.aNewFeature")
                  : Said.of("told.theNewFeature", "caption", caption),
          "faults",
          Said.row(
              faults.stream()
                  .limit(MOST_TOLD)
                  .map(
                      x ->
                          Said.of(
                              "claim.fault",
                              "field",
                              schema.field(x.field()).orElseThrow().label(),
                              "why",
                              x.message()))
                  .toList(),
              "list.also",
              "list.also"));
    }

    private boolean isTaken(Edit e, Field f, Value v) {
      String by = given.getOrDefault(f.name(), Map.of()).get(v);
      if (by != null && !by.equals(e.id.toString())) return true;
      LayerColumns c = columns.orElseThrow();
      return UniqueValues.taken(
          c, f.name(), v, row -> c.id(row).equals(e.id.toString()) || leaves(c, row, f, v));
    }

    /** Whether a feature gives this value up in this same act; to set it anew is to keep it. */
    private boolean leaves(LayerColumns c, int row, Field f, Value v) {
      for (Edit e : edits)
        if (!e.isNew && e.id.toString().equals(c.id(row)))
          return e.removed || e.set.containsKey(f.name()) && !v.equals(e.set.get(f.name()));
      return false;
    }

    private void note(Edit e, Map<String, Value> values) {
      for (Field f : layer.schema().fields())
        if (f.unique() && !values.getOrDefault(f.name(), Value.EMPTY).isEmpty())
          given
              .computeIfAbsent(f.name(), x -> new LinkedHashMap<>())
              .put(values.get(f.name()), e.id.toString());
    }
  }

  /** A shape with a fault is refused, unless the feature had one before. */
  private static void check(Schema schema, Edit e, Feature before) {
    if (e.removed || e.geometry.isEmpty()) return;
    Optional<Reshaping.Fault> fault =
        Reshaping.refused(
            e.geometry.get(),
            Optional.ofNullable(before).flatMap(Feature::geometry),
            schema.kind());
    if (fault.isPresent())
      throw Refusal.refused(
          "refused.cantWrite",
          "feature",
          before == null
              ? Said.of("told.aNewFeature")
              : Said.text("“" + schema.caption(before.values()) + "”"),
          "faults",
          fault
              .get()
              .at()
              .map(
                  c ->
                      Said.of(
                          "told.faultAt",
                          "fault",
                          fault.get().message(),
                          "lat",
                          Said.number(Numbers.round(c.y, 5)),
                          "lon",
                          Said.number(Numbers.round(c.x, 5))))
              .orElse(fault.get().message()));
  }

  private static Edit edit(Schema schema, SentEdits.One sent) {
    Map<String, Value> values = new LinkedHashMap<>();
    if (sent.set() != null)
      schema
          .readValues(sent.set())
          .forEach(
              (name, v) -> {
                Field f =
                    schema
                        .field(name)
                        .orElseThrow(
                            () -> Refusal.refused("refused.layerNoFieldNothing", "name", name));
                values.put(name, f.fit(v));
              });
    Optional<Geometry> geometry = Optional.ofNullable(sent.geometry()).map(LayerEditing::geometry);
    if (sent.isNew() && geometry.isEmpty() && schema.kind() != GeometryKind.TABLE)
      throw Refusal.refused("refused.newFeatureNoShape");
    return new Edit(
        sent.id(),
        sent.isNew(),
        sent.removed(),
        sent.version(),
        values,
        geometry,
        Optional.ofNullable(sent.like()));
  }

  private static Geometry geometry(JsonObject g) {
    try {
      return GeometryJson.readOrSay(g);
    } catch (IllegalArgumentException | UnsupportedOperationException e) {
      throw Refusal.refused("refused.shapeCantBeRead", "why", Refusal.said(e));
    }
  }
}
