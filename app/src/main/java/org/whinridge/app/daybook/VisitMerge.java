package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Claims;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

/** A visit's document made ready for core's merge with the feature as it is on the layer now. */
public final class VisitMerge {
  private VisitMerge() {}

  /**
   * What comes of a visit.
   *
   * @param problems what it says of the layer that does not hold, in words
   */
  public record Outcome(Merge.Result result, List<String> problems) {}

  /**
   * The merge of a visit into a feature.
   *
   * @param then the feature as the layer held it at the version that the visit was taken out with
   */
  public static Outcome of(JsonObject visit, Layer layer, Feature now, Optional<Feature> then) {
    Schema schema = layer.schema();
    JsonObject base = VisitCheck.object(visit, "base");
    Map<String, Value> b =
        new LinkedHashMap<>(schema.readValues(VisitCheck.object(base, "values")));
    Map<String, Value> set =
        new LinkedHashMap<>(schema.readValues(VisitCheck.object(visit, "set")));
    place(base.get("geometry"), b);
    place(visit.get("geometry"), set);
    Function<String, SameValue> same = same(visit, layer);
    Claims claims = Claims.look(b, set, version(visit), then, schema, same);
    Map<String, Value> held = new LinkedHashMap<>(claims.base());
    if (set.containsKey(Merge.GEOMETRY) && !held.containsKey(Merge.GEOMETRY))
      then.flatMap(Feature::geometry).ifPresent(g -> held.put(Merge.GEOMETRY, new Value.Place(g)));
    Map<String, Value> l = new LinkedHashMap<>();
    // fields that never travelled (office only) are not in the base and must not count as removed
    for (Field f : schema.fields())
      if (held.containsKey(f.name()) || claims.set().containsKey(f.name()))
        l.put(f.name(), now.value(f.name()));
    now.geometry().ifPresent(g -> l.put(Merge.GEOMETRY, new Value.Place(g)));
    return new Outcome(
        Merge.threeWay(held, l, claims.set(), same),
        claims.problems().stream().map(Claims.Problem::message).toList());
  }

  /** A visit says which of its answers are rankings, since the layer's fields hold plain lists. */
  private static Function<String, SameValue> same(JsonObject visit, Layer layer) {
    Set<String> ranked = new LinkedHashSet<>();
    if (visit.get("ranked") != null && visit.get("ranked").isArray())
      for (JsonValue v : visit.get("ranked").asArray()) if (v.isString()) ranked.add(v.asString());
    Function<String, SameValue> plain = SameValue.in(layer.schema(), layer.decimals());
    return f -> plain.apply(f).ranked(ranked.contains(f));
  }

  /** The feature's version that a visit says it was taken out with. */
  public static long version(JsonObject visit) {
    JsonValue v = VisitCheck.object(visit, "base").get("version");
    return v != null && v.isNumber() ? (long) v.asDouble() : 0;
  }

  private static void place(JsonValue v, Map<String, Value> to) {
    if (v != null && v.isObject())
      GeometryJson.read(v.asObject()).ifPresent(g -> to.put(Merge.GEOMETRY, new Value.Place(g)));
  }
}
