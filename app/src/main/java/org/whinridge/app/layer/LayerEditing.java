package org.whinridge.app.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
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
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.Reshaping;
import org.whinridge.core.read.Clock;
import org.whinridge.core.value.Value;

/**
 * What is drawn at the desk: new features, other shapes, features taken away. All of one saving is
 * one act in the ledger, and is written whole or not at all.
 */
@Service
class LayerEditing {
  /** The most features of one saving. */
  static final int MOST = 500;

  /** The longest request, in characters. */
  static final int LONGEST = 20_000_000;

  private final LayerChanges changes;

  LayerEditing(LayerChanges changes) {
    this.changes = changes;
  }

  private record Edit(
      UUID id,
      boolean isNew,
      boolean removed,
      long version,
      Map<String, Value> set,
      Optional<Geometry> geometry,
      Optional<UUID> like) {}

  /**
   * Writes edits as the page sends them: {edits: [{id, isNew, removed, version, set, geometry}]}.
   */
  LayerChanges.Done write(Layer layer, String body, String person) {
    List<Edit> edits = read(layer.schema(), body);
    try {
      return changes.write(
          layer, "desk", summary(edits), person, batch -> write(layer, edits, batch));
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("writing failed, nothing was changed", e);
    }
  }

  private static String summary(List<Edit> edits) {
    long made = edits.stream().filter(Edit::isNew).count();
    long gone = edits.stream().filter(Edit::removed).count();
    long other = edits.size() - made - gone;
    List<String> parts = new ArrayList<>();
    if (made > 0) parts.add(made + " made");
    if (other > 0) parts.add(other + " reshaped");
    if (gone > 0) parts.add(gone + " taken away");
    return "drawn at the desk: " + String.join(", ", parts);
  }

  private void write(Layer layer, List<Edit> edits, ChangeBatch batch) {
    List<UUID> read = new ArrayList<>();
    for (Edit e : edits) {
      if (!e.isNew) read.add(e.id);
      e.like.ifPresent(read::add);
    }
    Map<String, Feature> now = batch.features(read);
    for (Edit e : edits) {
      Feature f = now.get(e.id.toString());
      if (!e.isNew && (f == null || f.version() != e.version))
        throw Refusal.conflict(
            "“"
                + (f == null ? e.id : layer.schema().caption(f.values()))
                + "” was "
                + (f == null ? "taken away" : "changed")
                + " by somebody else meanwhile. Nothing was written and your drawing is still on this page: undo the change to that feature, or load the page to see theirs.");
      check(layer.schema(), e, f);
      if (e.isNew) batch.add(fresh(layer.schema(), e, e.like.map(id -> now.get(id.toString()))));
      else if (e.removed) batch.remove(e.id);
      else batch.set(e.id, e.set, e.geometry);
    }
  }

  /**
   * A new feature; split off another one it has that one's values, but for those that are its
   * alone.
   */
  private static Feature fresh(Schema schema, Edit e, Optional<Feature> like) {
    Map<String, Value> values = new LinkedHashMap<>();
    like.ifPresent(f -> values.putAll(NewFeature.splitOff(f, schema)));
    values.putAll(e.set);
    values.values().removeIf(Value::isEmpty);
    Clock clock = LayerQueries.clock();
    return NewFeature.begun(
        new Feature(e.id.toString(), e.geometry, values, 1), schema, clock.today(), clock.now());
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
          "“"
              + (before == null ? "A new feature" : schema.caption(before.values()))
              + "” can't be written: "
              + fault.get().message()
              + fault
                  .get()
                  .at()
                  .map(c -> String.format(java.util.Locale.ROOT, " at %.5f, %.5f", c.y, c.x))
                  .orElse("")
              + ". Nothing was written; mend it and write again.");
  }

  private static List<Edit> read(Schema schema, String body) {
    if (body.length() > LONGEST)
      throw Refusal.refused(
          "This is more than can be written at once. Nothing was written; write in parts.");
    JsonValue v;
    try {
      v = Json.parse(body);
    } catch (ParseException e) {
      throw Refusal.refused("This is not JSON: " + e.getMessage() + ". Nothing was written.");
    }
    JsonValue edits = v.isObject() ? v.asObject().get("edits") : null;
    if (edits == null || !edits.isArray() || edits.asArray().isEmpty())
      throw Refusal.refused("There is nothing to write.");
    if (edits.asArray().size() > MOST)
      throw Refusal.refused(
          "At most "
              + MOST
              + " features are written at once. Nothing was written; write in parts.");
    List<Edit> out = new ArrayList<>();
    for (JsonValue e : edits.asArray()) out.add(edit(schema, e));
    return out;
  }

  private static Edit edit(Schema schema, JsonValue v) {
    try {
      JsonObject o = v.asObject();
      JsonValue g = o.get("geometry");
      JsonValue set = o.get("set");
      Map<String, Value> values =
          set == null || !set.isObject() ? Map.of() : schema.readValues(set.asObject());
      for (String name : values.keySet())
        if (schema.field(name).isEmpty())
          throw Refusal.refused("The layer has no field “" + name + "”. Nothing was written.");
      Map<String, Value> fitted = new LinkedHashMap<>();
      values.forEach(
          (name, x) -> fitted.put(name, schema.field(name).map((Field f) -> f.fit(x)).orElse(x)));
      Optional<Geometry> geometry =
          g == null || !g.isObject()
              ? Optional.empty()
              : Optional.of(GeometryJson.readOrSay(g.asObject()));
      Edit e =
          new Edit(
              UUID.fromString(o.getString("id", "")),
              o.getBoolean("isNew", false),
              o.getBoolean("removed", false),
              o.getLong("version", 0),
              fitted,
              geometry,
              o.get("like") == null || !o.get("like").isString()
                  ? Optional.empty()
                  : Optional.of(UUID.fromString(o.get("like").asString())));
      if (e.isNew && geometry.isEmpty())
        throw Refusal.refused("A new feature has no shape. Nothing was written.");
      return e;
    } catch (IllegalArgumentException | UnsupportedOperationException e) {
      throw Refusal.refused("A change can't be read: " + e.getMessage() + ". Nothing was written.");
    }
  }
}
