package org.whinridge.core.photo;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.util.OptionalDouble;

/**
 * Where, when and which way a photo was taken.
 *
 * @param longitude degrees, -180 to 180
 * @param latitude degrees, -90 to 90
 * @param accuracyM horizontal error in metres, if known
 * @param directionDeg 0 up to 360 degrees clockwise from true north, if known
 * @param at the moment of the photo, UTC
 * @param offsetMinutes the device's offset from UTC in minutes, for the local time of day that the
 *     picture shows
 */
public record Geotag(
    double longitude,
    double latitude,
    OptionalDouble accuracyM,
    OptionalDouble directionDeg,
    Instant at,
    int offsetMinutes) {
  /**
   * Reads the JSON form {lon, lat, accuracy?, direction?, at, offset?}. A direction of 360 or more,
   * or below 0, is turned into range.
   */
  public static Geotag read(JsonObject o) {
    OptionalDouble direction = number(o.get("direction"));
    if (direction.isPresent()) {
      double d = direction.getAsDouble() % 360;
      direction = OptionalDouble.of(d < 0 ? d + 360 : d);
    }
    return new Geotag(
        o.getDouble("lon", 0),
        o.getDouble("lat", 0),
        number(o.get("accuracy")),
        direction,
        Instant.parse(o.getString("at", "")),
        o.getInt("offset", 0));
  }

  private static OptionalDouble number(JsonValue v) {
    return v == null || !v.isNumber() ? OptionalDouble.empty() : OptionalDouble.of(v.asDouble());
  }
}
