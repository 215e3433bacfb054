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

  /**
   * The same near one latitude, quicker: by the first three derivatives, which within 0.2 degrees
   * and below 70 degrees of latitude are right to 1e-9; farther away the function itself.
   */
  public static final class Near {
    private static final double REACH = 0.2;
    private final double lat;
    private final double y;
    private final double first;
    private final double second;
    private final double third;

    /** Around a latitude in degrees. */
    public Near(double lat) {
      this.lat = Math.abs(lat) < 70 ? lat : 1000; // nothing is near then
      double phi = Math.toRadians(lat);
      double sec = 1 / Math.cos(phi);
      double tan = Math.tan(phi);
      double perDegree = Math.PI / 180;
      y = Mercator.y(lat);
      first = -sec / (2 * Math.PI) * perDegree;
      second = -sec * tan / (4 * Math.PI) * perDegree * perDegree;
      third =
          -(sec * tan * tan + sec * sec * sec) / (12 * Math.PI) * perDegree * perDegree * perDegree;
    }

    /** The place of a latitude in degrees. */
    public double y(double of) {
      double d = of - lat;
      if (d > REACH || d < -REACH) return Mercator.y(of);
      return y + d * (first + d * (second + d * third));
    }
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
