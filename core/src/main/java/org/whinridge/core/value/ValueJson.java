package org.whinridge.core.value;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.text.Numbers;

/** The JSON form of values: null, number, string, boolean, array; a geometry as in RFC 7946. */
public final class ValueJson {
  private ValueJson() {}

  /** The JSON form of a value. Dates and moments are ISO 8601 strings. */
  public static JsonValue write(Value v) {
    if (v instanceof Value.Num n) return Numbers.json(n.value());
    if (v instanceof Value.Bool b) return Json.value(b.value());
    if (v instanceof Value.Many m) {
      JsonArray a = new JsonArray();
      for (Value x : m.values()) a.add(write(x));
      return a;
    }
    if (v instanceof Value.Place p) return GeometryJson.write(p.geometry());
    return v.isEmpty() ? Json.NULL : Json.value(v.plain());
  }

  /**
   * Reads a value that should have type {@code wanted}. What does not fit (text "abc" for a number)
   * comes back as text, so that no value is lost; the caller sees it by {@link Value#type()}.
   */
  public static Value read(JsonValue json, ValueType wanted) {
    if (json == null || json.isNull()) return Value.EMPTY;
    if (json.isBoolean()) return Value.of(json.asBoolean());
    if (json.isNumber()) {
      Value n = Value.of(json.asDouble());
      return wanted == ValueType.TEXT && !n.isEmpty() ? Value.text(n.plain()) : n;
    }
    if (json.isArray()) {
      List<Value> list = new ArrayList<>();
      for (JsonValue x : json.asArray()) list.add(read(x, ValueType.TEXT));
      return Value.many(list);
    }
    if (json.isObject()) {
      Geometry g = GeometryJson.read(json.asObject()).orElse(null);
      return g == null ? Value.text(json.toString()) : new Value.Place(g);
    }
    return readText(json.asString(), wanted);
  }

  /** Reads text as a value of type {@code wanted}; text that does not fit stays text. */
  public static Value readText(String s, ValueType wanted) {
    if (s.isEmpty()) return Value.EMPTY;
    switch (wanted) {
      case NUMBER:
        {
          var d = Numbers.read(s);
          return d.isPresent() ? new Value.Num(d.getAsDouble()) : Value.text(s);
        }
      case YES_NO:
        return s.equals("true") || s.equals("yes")
            ? Value.YES
            : s.equals("false") || s.equals("no") ? Value.NO : Value.text(s);
      case DATE:
        return IsoTime.date(s).<Value>map(Value.Day::new).orElseGet(() -> Value.text(s));
      case DATE_TIME:
        return IsoTime.moment(s).<Value>map(Value.Moment::new).orElseGet(() -> Value.text(s));
      case LIST:
        return Value.many(List.of(Value.text(s)));
      default:
        return Value.text(s);
    }
  }
}
