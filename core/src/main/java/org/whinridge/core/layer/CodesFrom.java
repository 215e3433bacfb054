package org.whinridge.core.layer;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;

/**
 * Where a code list is taken from and kept in step with: two columns of another layer or table.
 *
 * @param layer the other layer's id
 * @param code the field there that has the codes
 * @param label the field there that has the labels; the code's own for none
 */
public record CodesFrom(String layer, String code, String label) {
  /** The JSON form. */
  public JsonObject json() {
    return new JsonObject().add("layer", layer).add("code", code).add("label", label);
  }

  /** Reads the JSON form. */
  public static Optional<CodesFrom> read(JsonValue v) {
    if (v == null || !v.isObject()) return Optional.empty();
    JsonObject o = v.asObject();
    String code = o.getString("code", "");
    return code.isEmpty()
        ? Optional.empty()
        : Optional.of(new CodesFrom(o.getString("layer", ""), code, o.getString("label", code)));
  }
}
