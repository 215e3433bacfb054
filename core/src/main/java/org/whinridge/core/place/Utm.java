package org.whinridge.core.place;

import java.util.Optional;

/**
 * Zones of the universal transverse Mercator grid. Source: NGA.STND.0037, "Universal Grids and Grid
 * Reference Systems", with its wider zone 32 in south-west Norway and the four of Svalbard (limits
 * from memory).
 */
public final class Utm {
  private static final int ZONES = 60;
  private static final double WIDTH = 6;

  private Utm() {}

  /** The zone, 1 to 60, in which a longitude and latitude lie; empty beyond 84° N and 80° S. */
  public static Optional<Integer> zone(double lon, double lat) {
    if (!GeometryJson.inRange(lon, lat) || lat > 84 || lat < -80) return Optional.empty();
    if (lat >= 56 && lat < 64 && lon >= 3 && lon < 12) return Optional.of(32);
    if (lat >= 72 && lon >= 0 && lon < 42)
      return Optional.of(lon < 9 ? 31 : lon < 21 ? 33 : lon < 33 ? 35 : 37);
    return Optional.of((int) Math.floor((lon + 180) / WIDTH) % ZONES + 1);
  }

  /** UTM on WGS 84 in the zone of a position; empty where there is none. */
  public static Optional<CoordinateSystem> at(double lon, double lat) {
    return zone(lon, lat)
        .map(z -> lat < 0 ? CoordinateSystem.utmSouth(z) : CoordinateSystem.utmNorth(z));
  }
}
