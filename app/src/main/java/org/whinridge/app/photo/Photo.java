package org.whinridge.app.photo;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.value.Numbers;

/**
 * A photo of a visit. {@code geotag} is the JSON that the device wrote into its EXIF; {@code
 * receivedAt} tells since when its bytes are here.
 */
public record Photo(
    UUID id,
    UUID visitId,
    String question,
    String sha256,
    long bytes,
    String geotag,
    Optional<Instant> receivedAt) {
  /** Whether its bytes are here. */
  public boolean received() {
    return receivedAt.isPresent();
  }

  /** Place, accuracy and direction in words: "57.90000°, -10.20000°, ±4 m, looking 210°". */
  public String facts() {
    JsonObject o = Json.parse(geotag).asObject();
    if (o.get("lat") == null || !o.get("lat").isNumber()) return "no position";
    StringBuilder b =
        new StringBuilder(Numbers.fixed(o.getDouble("lat", 0), 5))
            .append("°, ")
            .append(Numbers.fixed(o.getDouble("lon", 0), 5))
            .append("°");
    if (o.get("accuracy") != null && o.get("accuracy").isNumber())
      b.append(", ±").append(Numbers.fixed(o.getDouble("accuracy", 0), 0)).append(" m");
    if (o.get("direction") != null && o.get("direction").isNumber())
      b.append(", looking ").append(Numbers.fixed(o.getDouble("direction", 0), 0)).append("°");
    return b.toString();
  }
}
