package org.whinridge.core.place;

import org.locationtech.jts.geom.Coordinate;

/**
 * Metres east and north of a position, on the plane that touches the WGS 84 ellipsoid there: good
 * to about one part in a thousand within 50 km, and so for choosing what is nearest before it is
 * measured by {@link Geodesy}. The scales are the radii of curvature in the meridian and the prime
 * vertical (J. P. Snyder, USGS Professional Paper 1395, eq. 4-18 and 4-20, from memory).
 */
public final class LocalPlane {
  private static final double A = 6_378_137;
  private static final double E2 = 0.0066943799901413165;
  private final double lon;
  private final double lat;
  private final double eastM;
  private final double northM;

  /** The plane at a position in degrees. */
  public LocalPlane(Coordinate at) {
    lon = at.x;
    lat = at.y;
    double sin = Math.sin(Math.toRadians(lat));
    double w = Math.sqrt(1 - E2 * sin * sin);
    eastM = Math.toRadians(1) * A / w * Math.cos(Math.toRadians(lat));
    northM = Math.toRadians(1) * A * (1 - E2) / (w * w * w);
  }

  /** Metres east of the plane's position, the short way round the date line. */
  public double x(double longitude) {
    double d = longitude - lon;
    if (d > 180) d -= 360;
    else if (d < -180) d += 360;
    return d * eastM;
  }

  /** Metres north of the plane's position. */
  public double y(double latitude) {
    return (latitude - lat) * northM;
  }

  /** A position on the plane back in degrees. */
  public Coordinate degrees(Coordinate flat) {
    return new Coordinate(lon + flat.x / eastM, lat + flat.y / northM);
  }

  /** How many degrees of longitude that many metres are here; at most 360. */
  public double degreesEast(double metres) {
    return Math.min(360, metres / Math.max(eastM, 1e-9));
  }

  /** How many degrees of latitude that many metres are here. */
  public double degreesNorth(double metres) {
    return metres / northM;
  }
}
