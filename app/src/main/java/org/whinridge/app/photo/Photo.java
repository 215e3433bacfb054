package org.whinridge.app.photo;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/**
 * A photo: of a visit, or a picture of a feature that came with a file.
 *
 * @param visitId the visit; empty for a picture of a feature
 * @param of the feature of whose layer's file it came; empty for a photo of a visit
 * @param geotag what its EXIF says, as JSON: lat, lon, accuracy (m), direction, altitude (m), at
 * @param receivedAt since when its bytes are here
 */
public record Photo(
    UUID id,
    Optional<UUID> visitId,
    Optional<OfFeature> of,
    String question,
    String sha256,
    long bytes,
    String geotag,
    Optional<Instant> receivedAt) {
  /** The feature of a picture. */
  public record OfFeature(UUID layer, UUID feature) {}

  /** When it was taken, as its EXIF says; "" when it does not. */
  public String takenAt() {
    return Json.parse(geotag).asObject().getString("at", "");
  }

  /** Whether its bytes are here. */
  public boolean received() {
    return receivedAt.isPresent();
  }

  /** Place, accuracy and direction: "57.90000°, -10.20000°, ±4 m, looking 210°". */
  public Said facts() {
    JsonObject o = Json.parse(geotag).asObject();
    if (o.get("lat") == null || !o.get("lat").isNumber()) return Said.of("photo.noPosition");
    List<Said> facts = new ArrayList<>();
    facts.add(
        Said.of(
            "photo.position",
            "lat",
            Numbers.fixed(o.getDouble("lat", 0), 5),
            "lon",
            Numbers.fixed(o.getDouble("lon", 0), 5)));
    if (o.get("accuracy") != null && o.get("accuracy").isNumber())
      facts.add(Said.of("photo.accuracy", "m", Numbers.round(o.getDouble("accuracy", 0), 0)));
    if (o.get("direction") != null && o.get("direction").isNumber())
      facts.add(Said.of("photo.looking", "deg", Numbers.round(o.getDouble("direction", 0), 0)));
    return Said.inARow(facts, "list.then");
  }
}
