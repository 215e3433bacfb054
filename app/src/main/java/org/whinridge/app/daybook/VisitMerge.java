package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.Map;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

/** A visit's document made ready for core's merge with the feature as it is on the layer now. */
public final class VisitMerge {
  private VisitMerge() {}

  /** The merge of a visit into a feature. */
  public static Merge.Result of(JsonObject visit, Layer layer, Feature now) {
    Schema schema = layer.schema();
    JsonObject base = VisitCheck.object(visit, "base");
    Map<String, Value> b =
        new LinkedHashMap<>(schema.readValues(VisitCheck.object(base, "values")));
    Map<String, Value> set =
        new LinkedHashMap<>(schema.readValues(VisitCheck.object(visit, "set")));
    Map<String, Value> l = new LinkedHashMap<>();
    // fields that never travelled (office only) are not in the base and must not count as removed
    schema
        .fields()
        .forEach(
            f -> {
              if (b.containsKey(f.name()) || set.containsKey(f.name()))
                l.put(f.name(), now.value(f.name()));
            });
    set.keySet().removeIf(name -> schema.field(name).isEmpty());
    b.keySet().removeIf(name -> schema.field(name).isEmpty());
    place(base.get("geometry"), b);
    place(visit.get("geometry"), set);
    now.geometry().ifPresent(g -> l.put(Merge.GEOMETRY, new Value.Place(g)));
    if (!b.containsKey(Merge.GEOMETRY))
      now.geometry().ifPresent(g -> b.put(Merge.GEOMETRY, new Value.Place(g)));
    return Merge.threeWay(b, l, set, layer.decimals());
  }

  private static void place(JsonValue v, Map<String, Value> to) {
    if (v != null && v.isObject())
      GeometryJson.read(v.asObject()).ifPresent(g -> to.put(Merge.GEOMETRY, new Value.Place(g)));
  }
}
