package org.whinridge.core.layer;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * What a layer's features have: their kind of geometry and their fields.
 *
 * @param tagField the field that is painted on the asset or scanned; "" for none
 * @param captionFields the fields that name a feature in lists and on the map
 */
public record Schema(
    GeometryKind kind, List<Field> fields, String tagField, List<String> captionFields) {
  public Schema {
    fields = List.copyOf(fields);
    captionFields = List.copyOf(captionFields);
  }

  /** The field of that name. */
  public Optional<Field> field(String name) {
    for (Field f : fields) if (f.name().equals(name)) return Optional.of(f);
    return Optional.empty();
  }

  /**
   * What names a feature with these values: its caption fields joined by " · ", else its tag, else
   * "".
   */
  public String caption(Map<String, Value> values) {
    StringBuilder b = new StringBuilder();
    for (String name : captionFields.isEmpty() ? List.of(tagField) : captionFields) {
      Value v = values.getOrDefault(name, Value.EMPTY);
      if (!v.isEmpty())
        b.append(b.length() == 0 ? "" : " · ")
            .append(field(name).map(f -> f.labelOf(v)).orElse(v.plain()));
    }
    return b.toString();
  }

  /**
   * The attributes as JSON, in the order of the fields; attributes that no field names come after,
   * so that none is lost.
   */
  public JsonObject writeValues(Map<String, Value> values) {
    JsonObject o = new JsonObject();
    for (Field f : fields)
      if (values.containsKey(f.name())) o.add(f.name(), ValueJson.write(values.get(f.name())));
    for (Map.Entry<String, Value> e : values.entrySet())
      if (field(e.getKey()).isEmpty()) o.add(e.getKey(), ValueJson.write(e.getValue()));
    return o;
  }

  /**
   * Attributes from JSON by the fields' types; a value that does not fit its type comes as text, so
   * that none is lost.
   */
  public Map<String, Value> readValues(JsonObject o) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (JsonObject.Member m : o)
      out.put(
          m.getName(),
          ValueJson.read(
              m.getValue(),
              field(m.getName())
                  .map(f -> f.type().valueType())
                  .orElse(org.whinridge.core.value.ValueType.TEXT)));
    return out;
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonArray fs = new JsonArray();
    for (Field f : fields) fs.add(f.json());
    return new JsonObject()
        .add("kind", kind.id())
        .add("fields", fs)
        .add("tagField", tagField)
        .add("captionFields", Json.array(captionFields.toArray(new String[0])));
  }

  /** Reads the JSON form. */
  public static Schema read(JsonObject o) {
    List<Field> fields = new ArrayList<>();
    for (JsonValue v : o.get("fields").asArray()) fields.add(Field.read(v.asObject()));
    List<String> captions = new ArrayList<>();
    if (o.get("captionFields") != null)
      for (JsonValue v : o.get("captionFields").asArray()) captions.add(v.asString());
    return new Schema(
        GeometryKind.of(o.getString("kind", "point")).orElse(GeometryKind.POINT),
        fields,
        o.getString("tagField", ""),
        captions);
  }
}
