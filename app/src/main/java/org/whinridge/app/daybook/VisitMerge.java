package org.whinridge.app.daybook;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Claims;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** A visit's document made ready for core's merge with the feature as it is on the layer now. */
public final class VisitMerge {
  private VisitMerge() {}

  /**
   * What comes of a visit.
   *
   * @param problems what it says of the layer that does not hold, in words
   */
  public record Outcome(Merge.Result result, List<Said> problems) {}

  /**
   * The merge of a visit into a feature.
   *
   * @param then the feature as the layer held it at the version that the visit was taken out with
   */
  public static Outcome of(SentVisit visit, Layer layer, Feature now, Optional<Feature> then) {
    Schema schema = layer.schema();
    Map<String, Value> b = new LinkedHashMap<>(schema.readValues(visit.base().values()));
    Map<String, Value> set = new LinkedHashMap<>(schema.readValues(visit.set()));
    visit.base().geometry().ifPresent(g -> b.put(Merge.GEOMETRY, new Value.Place(g)));
    visit.geometry().ifPresent(g -> set.put(Merge.GEOMETRY, new Value.Place(g)));
    Function<String, SameValue> same = same(visit, layer);
    Claims claims = Claims.check(b, set, visit.base().version(), then, schema, same);
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

  /**
   * The merge of a visit that makes its feature; another one may have made it before.
   *
   * @param now the feature as it is on the layer; empty while nobody made it
   */
  public static Outcome ofNew(SentVisit visit, Layer layer, Optional<Feature> now) {
    Map<String, Value> set = new LinkedHashMap<>(layer.schema().readValues(visit.set()));
    visit.geometry().ifPresent(g -> set.put(Merge.GEOMETRY, new Value.Place(g)));
    Claims claims = Claims.ofNew(set, layer.schema());
    Map<String, Value> l = new LinkedHashMap<>();
    now.ifPresent(
        f -> {
          for (String name : claims.set().keySet()) l.put(name, f.value(name));
          f.geometry().ifPresent(g -> l.put(Merge.GEOMETRY, new Value.Place(g)));
        });
    return new Outcome(
        Merge.threeWay(Map.of(), l, claims.set(), same(visit, layer)),
        claims.problems().stream().map(Claims.Problem::message).toList());
  }

  /** A visit says which of its answers are rankings, since the layer's fields hold plain lists. */
  private static Function<String, SameValue> same(SentVisit visit, Layer layer) {
    Function<String, SameValue> plain = SameValue.in(layer.schema(), layer.decimals());
    return f -> plain.apply(f).ranked(visit.ranked().contains(f));
  }
}
