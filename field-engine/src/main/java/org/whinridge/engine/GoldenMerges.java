package org.whinridge.engine;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Claims;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.merge.Standing;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.SamePlace;
import org.whinridge.core.travel.Outdoors;
import org.whinridge.core.value.Value;

/** Golden lines about claims, taking back and what travels. */
final class GoldenMerges {
  private GoldenMerges() {}

  /** {act, ledger: [[act, fields, takes back], …]} to the fields that still come from the act. */
  static String standing(JsonObject o) {
    List<Standing.Written> all = new ArrayList<>();
    for (JsonValue v : o.get("ledger").asArray()) {
      Set<String> fields = new LinkedHashSet<>();
      for (JsonValue f : v.asArray().get(1).asArray()) fields.add(f.asString());
      all.add(
          new Standing.Written(
              v.asArray().get(0).asString(), fields, v.asArray().get(2).asString()));
    }
    return String.join(" ", new TreeSet<>(Standing.of(o.getString("act", ""), all)));
  }

  /** {schema, base, set, version, then} to what may be written and what does not hold. */
  static String claims(JsonObject o) {
    Schema schema = Schema.read(o.get("schema").asObject());
    JsonValue then = o.get("then");
    Claims c =
        Claims.check(
            values(o.get("base").asObject(), schema),
            values(o.get("set").asObject(), schema),
            o.getLong("version", 0),
            then == null || then.isNull()
                ? Optional.empty()
                : Optional.of(Feature.read(then.asObject(), schema)),
            schema,
            f -> SameValue.of(schema.field(f), 8));
    StringBuilder b = new StringBuilder("set ").append(new TreeSet<>(c.set().keySet()));
    b.append(" base ").append(new TreeSet<>(c.base().keySet()));
    for (Claims.Problem p : c.problems()) b.append(" | ").append(p.message());
    return b.toString();
  }

  /** How a merge line's field is compared: by "types" {field: type} and "ranked" [field]. */
  static SameValue same(JsonObject o, String field) {
    JsonValue types = o.get("types");
    String type = types == null ? "" : types.asObject().getString(field, "");
    boolean ranked = false;
    if (o.get("ranked") != null)
      for (JsonValue v : o.get("ranked").asArray()) ranked |= v.asString().equals(field);
    return SameValue.of(FieldType.of(type).map(t -> Field.of("x", "X", t)), SamePlace.DECIMALS)
        .ranked(ranked);
  }

  private static Map<String, Value> values(JsonObject o, Schema schema) {
    Map<String, Value> out = new LinkedHashMap<>(schema.readValues(o));
    JsonValue g = o.get(Merge.GEOMETRY);
    if (g != null && g.isObject())
      GeometryJson.read(g.asObject()).ifPresent(x -> out.put(Merge.GEOMETRY, new Value.Place(x)));
    return out;
  }

  /** {schema, feature} to the feature as it travels, and its caption. */
  static String outdoors(JsonObject o) {
    Schema schema = Schema.read(o.get("schema").asObject());
    Feature f = Feature.read(o.get("feature").asObject(), schema);
    return Outdoors.caption(f, schema) + " " + Outdoors.json(f, schema).get("properties");
  }
}
