package org.whinridge.app.project;

import java.time.ZoneId;
import org.whinridge.app.people.WrittenStyle;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.place.Box;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.Units;
import org.whinridge.core.text.Composed;
import org.whinridge.core.text.Word;

/**
 * What can be changed of a project at any time.
 *
 * @param zone in which its days begin and end
 * @param area where its layers expect their features, as a GeoJSON geometry; "" for anywhere
 */
public record ProjectSettings(String name, Units units, ZoneId zone, String area) {
  private static final int LONGEST_NAME = 120;

  /** A project's name as it is kept. */
  public static String named(String typed) {
    String name = Composed.of(typed).strip();
    if (name.isEmpty() || name.length() > LONGEST_NAME)
      throw Refusal.refused("refused.projectName", "most", LONGEST_NAME);
    return name;
  }

  /**
   * What somebody said.
   *
   * @param units "" for metres
   * @param zone an identifier of the time zone database; "" for UTC
   * @param area west, south, east and north in degrees; "" for anywhere
   */
  static ProjectSettings typed(String name, String units, String zone, String area) {
    return new ProjectSettings(
        named(name),
        units.isEmpty()
            ? Units.METRIC
            : Word.of(Units.values(), units)
                .orElseThrow(() -> Refusal.refused("refused.units", "said", units)),
        zone(zone.strip()),
        area(area.strip()));
  }

  private static ZoneId zone(String typed) {
    if (typed.isEmpty()) return ZoneId.of("UTC");
    if (!WrittenStyle.zones().contains(typed))
      throw Refusal.refused("refused.projectZone", "said", typed);
    return ZoneId.of(typed);
  }

  private static String area(String typed) {
    if (typed.isEmpty()) return "";
    return GeometryJson.write(
            Box.typed(typed)
                .orElseThrow(() -> Refusal.refused("refused.projectArea", "said", typed))
                .geometry())
        .toString();
  }
}
