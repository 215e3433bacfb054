package org.whinridge.app.project;

import java.time.ZoneId;
import java.util.UUID;
import org.whinridge.core.access.ProjectState;
import org.whinridge.core.place.Units;

/**
 * A body of work: its address key, its name, and the coordinate system in which it types and shows
 * coordinates.
 *
 * @param units in which lengths and areas are said
 * @param zone in which its days begin and end
 * @param expectedArea where its layers expect their features, as a GeoJSON geometry; "" for
 *     anywhere
 */
public record Project(
    UUID id,
    String key,
    String name,
    String systemCode,
    String systemDefinition,
    Units units,
    ZoneId zone,
    String expectedArea,
    ProjectState state) {
  /** Whether it is read only. */
  public boolean closed() {
    return state == ProjectState.CLOSED;
  }
}
