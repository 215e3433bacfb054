package org.whinridge.app.people;

import java.time.ZoneId;
import java.util.List;
import java.util.Set;

/** Styles in which numbers and days can be written, by the language tag whose style it is. */
public final class WrittenStyle {
  /** Those that are offered; each is shown by an example. */
  public static final List<String> ALL =
      List.of("en-GB", "en-US", "en-CA", "de-DE", "de-CH", "fr-FR", "es-ES", "nl-NL", "sv-SE");

  private WrittenStyle() {}

  static boolean isOne(String tag) {
    return ALL.contains(tag);
  }

  static boolean isZone(String zone) {
    return zones().contains(zone);
  }

  /** The time zones that there are. */
  public static Set<String> zones() {
    return ZoneId.getAvailableZoneIds();
  }
}
