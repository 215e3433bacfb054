package org.whinridge.core.layer;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;

/**
 * One allowed value: what is stored, what people read, and whether it is retired (kept where it is,
 * not offered any more).
 */
public record Code(String code, String label, boolean retired) {
  /** A code in use. */
  public static Code of(String code, String label) {
    return new Code(code, label, false);
  }

  /** The JSON form of a code list, in order. */
  public static JsonArray write(List<Code> codes) {
    JsonArray a = new JsonArray();
    for (Code c : codes) {
      JsonObject o = new JsonObject().add("code", c.code).add("label", c.label);
      a.add(c.retired ? o.add("retired", true) : o);
    }
    return a;
  }

  /** Reads a code list; null is an empty list, anything but an array is an error. */
  public static List<Code> read(JsonValue json) {
    List<Code> out = new ArrayList<>();
    if (json == null) return out;
    for (JsonValue v : json.asArray()) {
      JsonObject o = v.asObject();
      out.add(
          new Code(
              o.getString("code", ""),
              o.getString("label", o.getString("code", "")),
              o.getBoolean("retired", false)));
    }
    return List.copyOf(out);
  }
}
