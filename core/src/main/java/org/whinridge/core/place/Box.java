package org.whinridge.core.place;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.text.Numbers;

/**
 * A box of longitudes and latitudes on WGS 84, in degrees. One whose west is greater than its east
 * lies across the date line (as in RFC 7946, section 5.2).
 *
 * @param west -180 to 180
 * @param south -90 to 90, at most {@code north}
 * @param east -180 to 180
 * @param north -90 to 90
 */
public record Box(double west, double south, double east, double north) {
  private static final double EARTH_KM = 6371.0088;

  /**
   * @throws IllegalArgumentException when a number is out of its range
   */
  public Box {
    if (!GeometryJson.inRange(west, south) || !GeometryJson.inRange(east, north) || south > north)
      throw new IllegalArgumentException(
          "no box: " + west + " " + south + " " + east + " " + north);
  }

  /**
   * What somebody typed: west, south, east and north in degrees, with a comma, a semicolon or
   * spaces between them. Empty when it is none, or has no extent.
   */
  public static Optional<Box> typed(String text) {
    String[] parts = text.strip().split("\\s*[,;]\\s*|\\s+");
    if (parts.length != 4) return Optional.empty();
    double[] n = new double[4];
    for (int i = 0; i < 4; i++) {
      Optional<Double> read = number(parts[i]);
      if (read.isEmpty()) return Optional.empty();
      n[i] = read.get();
    }
    boolean sound =
        GeometryJson.inRange(n[0], n[1]) && GeometryJson.inRange(n[2], n[3]) && n[1] < n[3];
    return sound && n[0] != n[2] ? Optional.of(new Box(n[0], n[1], n[2], n[3])) : Optional.empty();
  }

  private static Optional<Double> number(String s) {
    return s.matches("[-+\u2212]?\\d{1,3}(\\.\\d{1,12})?")
        ? Optional.of(Double.parseDouble(s.replace('\u2212', '-')))
        : Optional.empty();
  }

  /** The box around a geometry of WGS 84; one that touches the date line from both sides is cut. */
  public static Box around(Geometry g) {
    Envelope e = g.getEnvelopeInternal();
    if (g.getNumGeometries() == 2 && e.getMinX() == -180 && e.getMaxX() == 180) {
      Envelope a = g.getGeometryN(0).getEnvelopeInternal();
      Envelope b = g.getGeometryN(1).getEnvelopeInternal();
      if (a.getMaxX() == 180 && b.getMinX() == -180 && a.getMinX() > b.getMaxX())
        return new Box(a.getMinX(), e.getMinY(), b.getMaxX(), e.getMaxY());
    }
    return new Box(e.getMinX(), e.getMinY(), e.getMaxX(), e.getMaxY());
  }

  /** Whether it lies across the date line. */
  public boolean isCut() {
    return west > east;
  }

  /** Whether a position lies in it or on its edge. */
  public boolean holds(double lon, double lat) {
    if (!GeometryJson.inRange(lon, lat)) return false;
    boolean between = isCut() ? lon >= west || lon <= east : lon >= west && lon <= east;
    return between && lat >= south && lat <= north;
  }

  /** Its size in square kilometres, on a sphere of the earth's mean radius (IUGG). */
  public double squareKm() {
    double wide = Math.toRadians(isCut() ? east + 360 - west : east - west);
    double high = Math.sin(Math.toRadians(north)) - Math.sin(Math.toRadians(south));
    return EARTH_KM * EARTH_KM * wide * high;
  }

  /** It as a polygon, or as two on both sides of the date line. */
  public Geometry geometry() {
    List<Geometry> parts = new ArrayList<>();
    if (isCut()) {
      parts.add(GeometryJson.WGS84.toGeometry(new Envelope(west, 180, south, north)));
      parts.add(GeometryJson.WGS84.toGeometry(new Envelope(-180, east, south, north)));
    } else parts.add(GeometryJson.WGS84.toGeometry(new Envelope(west, east, south, north)));
    return GeometryJson.WGS84.buildGeometry(parts);
  }

  /** It as {@link #typed} reads it, decimals of a hundred-thousandth of a degree. */
  public String text() {
    List<String> out = new ArrayList<>();
    for (double d : new double[] {west, south, east, north})
      out.add(Numbers.plain(Numbers.round(d, 5)));
    return String.join(", ", out).toLowerCase(Locale.ROOT);
  }
}
