package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;

/**
 * The area in which a visit's position must lie: the features of a polygon layer.
 *
 * @param layerId the layer
 * @param layerName how people call it
 * @param weight whether a position outside holds the visit back or asks to be confirmed
 */
public record Allowed(String layerId, String layerName, Check.Weight weight) {
  JsonObject json() {
    return new JsonObject()
        .add("layer", layerId)
        .add("layerName", layerName)
        .add("weight", weight == Check.Weight.FIRM ? "firm" : "soft");
  }

  static Optional<Allowed> read(JsonValue v) {
    if (v == null || v.isNull()) return Optional.empty();
    JsonObject o = v.asObject();
    return Optional.of(
        new Allowed(
            o.getString("layer", ""),
            o.getString("layerName", ""),
            o.getString("weight", "firm").equals("soft") ? Check.Weight.SOFT : Check.Weight.FIRM));
  }
}
