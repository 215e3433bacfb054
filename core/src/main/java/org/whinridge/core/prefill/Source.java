package org.whinridge.core.prefill;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;

/** One source in a question's prefill chain. The first source that gives a value wins. */
public sealed interface Source {
  /** The field of the feature itself that the question writes to. */
  record Asset() implements Source {}

  /**
   * What the last accepted visit of the same feature answered, if it is at most that many days old;
   * 0 for any age.
   */
  record LastVisit(int mostDays) implements Source {}

  /** A field of the polygon of another layer that holds the visit's position. */
  record Place(String layerId, String layerName, String field) implements Source {}

  /** Something the device knows: person, device, date, time, accuracy, easting, northing. */
  record Device(String item) implements Source {}

  /** A value written in the form, as JSON text. */
  record Fixed(String json) implements Source {}

  /** The items that a device source can give. */
  List<String> DEVICE_ITEMS =
      List.of("person", "device", "date", "moment", "accuracy", "easting", "northing");

  /** The JSON form of a chain. */
  static JsonArray write(List<Source> chain) {
    JsonArray a = new JsonArray();
    for (Source s : chain) {
      if (s instanceof Asset) a.add(new JsonObject().add("from", "asset"));
      else if (s instanceof LastVisit v)
        a.add(new JsonObject().add("from", "last visit").add("mostDays", v.mostDays()));
      else if (s instanceof Place p)
        a.add(
            new JsonObject()
                .add("from", "place")
                .add("layer", p.layerId())
                .add("layerName", p.layerName())
                .add("field", p.field()));
      else if (s instanceof Device d)
        a.add(new JsonObject().add("from", "device").add("item", d.item()));
      else if (s instanceof Fixed f)
        a.add(new JsonObject().add("from", "fixed").add("value", Json.parse(f.json())));
    }
    return a;
  }

  /** Reads a chain; a source of a kind that is not known is left out. */
  static List<Source> read(JsonValue json) {
    List<Source> out = new ArrayList<>();
    if (json == null) return out;
    for (JsonValue v : json.asArray()) {
      JsonObject o = v.asObject();
      switch (o.getString("from", "")) {
        case "asset":
          out.add(new Asset());
          break;
        case "last visit":
          out.add(new LastVisit(o.getInt("mostDays", 0)));
          break;
        case "place":
          out.add(
              new Place(
                  o.getString("layer", ""),
                  o.getString("layerName", ""),
                  o.getString("field", "")));
          break;
        case "device":
          out.add(new Device(o.getString("item", "")));
          break;
        case "fixed":
          out.add(new Fixed(String.valueOf(o.get("value"))));
          break;
        default:
      }
    }
    return List.copyOf(out);
  }
}
