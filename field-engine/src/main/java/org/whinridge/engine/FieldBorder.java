package org.whinridge.engine;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldCheck;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.Start;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/** Values that people type into a layer's fields, across the border. */
final class FieldBorder {
  private FieldBorder() {}

  /**
   * By {@code op}: <i>check</i> (schema, typed: text or list of texts by field, stood: the values
   * that a feature has, left out for a new one) gives {@code values} as the fields keep them and
   * {@code faults} by field, in words; <i>name</i> (label) gives the storage name. What can't be
   * done gives {@code {}}.
   */
  static JsonObject run(JsonObject o) {
    return switch (o.getString("op", "")) {
      case "check" -> check(o);
      case "name" -> new JsonObject().add("name", Field.nameFrom(o.getString("label", "")));
      default -> new JsonObject();
    };
  }

  private static JsonObject check(JsonObject o) {
    Schema schema = Schema.read(o.get("schema").asObject());
    Map<String, Value> set = new LinkedHashMap<>();
    for (JsonObject.Member m : o.get("typed").asObject())
      schema.field(m.getName()).ifPresent(f -> set.put(f.name(), typed(f, m.getValue())));
    JsonValue stood = o.get("stood");
    Optional<Feature> before =
        stood == null || !stood.isObject()
            ? Optional.empty()
            : Optional.of(
                new Feature("", Optional.empty(), schema.readValues(stood.asObject()), 1));
    JsonObject faults = new JsonObject();
    // whether another feature has a value, and what fills itself, only the layer's store knows
    for (FieldCheck.Fault f : FieldCheck.of(schema, set, before, (x, v) -> false))
      if (set.containsKey(f.field()) || !begins(schema, f.field()))
        faults.add(f.field(), f.message().json());
    JsonObject values = new JsonObject();
    set.forEach((name, v) -> values.add(name, ValueJson.write(v)));
    return new JsonObject().add("values", values).add("faults", faults);
  }

  /** Whether a field that is left empty is filled by its default. */
  private static boolean begins(Schema schema, String field) {
    return schema.field(field).filter(f -> f.start() == Start.NOTHING).isEmpty();
  }

  private static Value typed(Field f, JsonValue v) {
    if (!(v instanceof JsonArray a))
      return FieldCheck.typed(f, v.isString() ? v.asString() : v.toString());
    List<Value> all = new ArrayList<>();
    for (JsonValue x : a) all.add(Value.text(x.isString() ? x.asString() : x.toString()));
    return all.isEmpty() ? Value.EMPTY : Value.many(all);
  }
}
