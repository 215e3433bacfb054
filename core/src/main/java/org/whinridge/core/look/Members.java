package org.whinridge.core.look;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;

/** Members of a look's JSON, read so that one of the wrong kind counts as missing. */
final class Members {
  private Members() {}

  static String text(JsonObject o, String name, String otherwise) {
    JsonValue v = o.get(name);
    return v != null && v.isString() ? v.asString() : otherwise;
  }

  /** A finite number. */
  static double number(JsonObject o, String name, double otherwise) {
    JsonValue v = o.get(name);
    if (v == null || !v.isNumber()) return otherwise;
    double d = v.asDouble();
    return Double.isNaN(d) || Double.isInfinite(d) ? otherwise : d;
  }

  static boolean yes(JsonObject o, String name, boolean otherwise) {
    JsonValue v = o.get(name);
    return v != null && v.isBoolean() ? v.asBoolean() : otherwise;
  }

  static String colour(JsonObject o, String name, String otherwise) {
    return Colour.read(text(o, name, "")).map(Colour::hex).orElse(otherwise);
  }
}
