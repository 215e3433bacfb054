package org.whinridge.core.layer;

import com.eclipsesource.json.JsonObject;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

/**
 * One thing in a layer.
 *
 * @param id a UUID in text form, made where the feature was made
 * @param geometry in WGS 84 degrees; empty for a table's row and for a feature that has no place
 *     yet
 * @param values attributes by field name; a missing field is an empty value
 * @param version counts the changes, from 1
 */
public record Feature(
    String id, Optional<Geometry> geometry, Map<String, Value> values, long version) {
  public Feature {
    values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
  }

  /** The value of a field, {@link Value#EMPTY} when it has none. */
  public Value value(String field) {
    return values.getOrDefault(field, Value.EMPTY);
  }

  /** The JSON form: a GeoJSON Feature (RFC 7946) with the version as a foreign member. */
  public JsonObject json(Schema schema) {
    return new JsonObject()
        .add("type", "Feature")
        .add("id", id)
        .add("version", version)
        .add(
            "geometry",
            geometry
                .<com.eclipsesource.json.JsonValue>map(GeometryJson::write)
                .orElse(com.eclipsesource.json.Json.NULL))
        .add("properties", schema.writeValues(values));
  }

  /** Reads the JSON form by a schema; a member that can't be read is as if it were not there. */
  public static Feature read(JsonObject o, Schema schema) {
    var g = o.get("geometry");
    Optional<Geometry> geometry =
        g == null || !g.isObject() ? Optional.empty() : GeometryJson.read(g.asObject());
    var p = o.get("properties");
    var id = o.get("id");
    var version = o.get("version");
    return new Feature(
        // RFC 7946: a string or a number
        id == null ? "" : id.isString() ? id.asString() : id.isNumber() ? id.toString() : "",
        geometry,
        p == null || !p.isObject() ? Map.of() : schema.readValues(p.asObject()),
        version == null || !version.isNumber() ? 0 : (long) version.asDouble());
  }
}
