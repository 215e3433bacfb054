package org.whinridge.app.own;

import jakarta.validation.constraints.Size;
import java.time.Instant;

/**
 * What a device tells of itself at a contact.
 *
 * @param version of the day book
 * @param left bytes that its store has room for; null when its browser does not tell
 * @param visits complete ones that it carries
 * @param photos that it carries
 * @param at its own clock
 * @param lon degrees of WGS 84; null, as {@code lat}, when it tells no position
 */
public record DeviceReport(
    @Size(max = 40, message = "border.isTooLong") String version,
    Long left,
    int visits,
    int photos,
    Instant at,
    Double lon,
    Double lat) {
  boolean hasPlace() {
    return lon != null && lat != null && Math.abs(lon) <= 180 && Math.abs(lat) <= 90;
  }
}
