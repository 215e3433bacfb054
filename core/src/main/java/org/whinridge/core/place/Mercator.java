package org.whinridge.core.place;

/**
 * Web Mercator, in which map tiles are cut: the world as a square from 0 to 1, x from the
 * antimeridian to the east, y from 85.0511° N to the south. Source: EPSG:3857, IOGP Guidance Note
 * 7-2, Popular Visualisation Pseudo Mercator.
 */
public final class Mercator {
  /** The latitude at the square's edge, degrees. */
  public static final double MOST_LATITUDE = 85.0511287798066;

  /** The width of the world in metres of EPSG:3857. */
  public static final double WORLD_M = 2 * Math.PI * 6378137;

  private Mercator() {}

  /** The place of a longitude in degrees, 0 to 1 for -180 to 180. */
  public static double x(double lon) {
    return lon / 360 + 0.5;
  }

  /** The place of a latitude in degrees; beyond the square's edges it is at the edge. */
  public static double y(double lat) {
    double s = Math.sin(Math.toRadians(Math.max(-MOST_LATITUDE, Math.min(MOST_LATITUDE, lat))));
    return Math.max(0, Math.min(1, 0.5 - Math.log((1 + s) / (1 - s)) / (4 * Math.PI)));
  }

  /** The longitude of a place, degrees. */
  public static double lon(double x) {
    return (x - 0.5) * 360;
  }

  /** The latitude of a place, degrees. */
  public static double lat(double y) {
    return Math.toDegrees(Math.atan(Math.sinh(Math.PI * (1 - 2 * y))));
  }
}
