package org.whinridge.core.place;

import org.locationtech.jts.geom.Coordinate;

/**
 * Metres east and north of a position, on an azimuthal equidistant plane around it: for choosing
 * what is nearest before it is measured by {@link Geodesy}. Distances from the position are right
 * to about one part in 100,000 within 50 km, and to 0.3 % all the way round; poles and the date
 * line are places like any other. The plane is the ellipsoid (WGS 84) seen from the centre of the
 * sphere that fits it best at the position; that sphere's radius is the Gaussian one, after J. P.
 * Snyder, USGS Professional Paper 1395 (eq. 4-18 to 4-20, from memory).
 */
public final class LocalPlane {
  private static final double A = 6_378_137;
  private static final double E2 = 0.0066943799901413165;
  private static final double B2 = A * A * (1 - E2);

  private final double radius;
  private final double[] centre;
  private final double[] east;
  private final double[] north;
  private final double[] up;

  /** The plane at a position in degrees. */
  public LocalPlane(Coordinate at) {
    double lon = Math.toRadians(at.x);
    double lat = Math.toRadians(at.y);
    double sinLat = Math.sin(lat);
    double cosLat = Math.cos(lat);
    double w2 = 1 - E2 * sinLat * sinLat;
    radius = A * Math.sqrt(1 - E2) / w2;
    east = new double[] {-Math.sin(lon), Math.cos(lon), 0};
    up = new double[] {cosLat * Math.cos(lon), cosLat * Math.sin(lon), sinLat};
    north = new double[] {-sinLat * Math.cos(lon), -sinLat * Math.sin(lon), cosLat};
    centre = space(at.x, at.y);
    for (int i = 0; i < 3; i++) centre[i] -= radius * up[i];
  }

  /** A position on the ellipsoid in metres from the earth's centre. */
  private static double[] space(double longitude, double latitude) {
    double lon = Math.toRadians(longitude);
    double lat = Math.toRadians(latitude);
    double sin = Math.sin(lat);
    double n = A / Math.sqrt(1 - E2 * sin * sin);
    double p = n * Math.cos(lat);
    return new double[] {p * Math.cos(lon), p * Math.sin(lon), n * (1 - E2) * sin};
  }

  /** A position in degrees on the ellipsoid, in metres from the earth's centre: x, y, z. */
  public static double[] space(Coordinate c) {
    return space(c.x, c.y);
  }

  private static double dot(double[] a, double[] b) {
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  }

  /** A position in degrees on the plane: x metres east, y metres north. */
  public Coordinate flat(double longitude, double latitude) {
    double[] p = space(longitude, latitude);
    for (int i = 0; i < 3; i++) p[i] -= centre[i];
    double e = dot(p, east);
    double n = dot(p, north);
    double rho = Math.sqrt(e * e + n * n);
    double angle = Math.atan2(rho, dot(p, up));
    double k = rho < 1e-6 ? 1 : radius * angle / rho;
    return new Coordinate(k * e, k * n);
  }

  /** A position on the plane back in degrees, longitude -180 to 180. */
  public Coordinate degrees(Coordinate flat) {
    double rho = Math.sqrt(flat.x * flat.x + flat.y * flat.y);
    double angle = rho / radius;
    double sin = rho == 0 ? 0 : Math.sin(angle) / rho;
    double cos = Math.cos(angle);
    double[] v = new double[3];
    for (int i = 0; i < 3; i++) v[i] = sin * (flat.x * east[i] + flat.y * north[i]) + cos * up[i];
    // where the ray from the centre meets the ellipsoid
    double a = (v[0] * v[0] + v[1] * v[1]) / (A * A) + v[2] * v[2] / B2;
    double b = (v[0] * centre[0] + v[1] * centre[1]) / (A * A) + v[2] * centre[2] / B2;
    double c =
        (centre[0] * centre[0] + centre[1] * centre[1]) / (A * A) + centre[2] * centre[2] / B2 - 1;
    double s = (-b + Math.sqrt(Math.max(0, b * b - a * c))) / a;
    double x = centre[0] + s * v[0];
    double y = centre[1] + s * v[1];
    double z = centre[2] + s * v[2];
    return new Coordinate(
        Math.toDegrees(Math.atan2(y, x)),
        Math.toDegrees(Math.atan2(z, (1 - E2) * Math.sqrt(x * x + y * y))));
  }
}
