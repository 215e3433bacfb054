package org.whinridge.core.place;

import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import net.sf.geographiclib.GeodesicMask;
import net.sf.geographiclib.PolygonArea;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.Polygonal;

/**
 * Geodesic measures on the WGS 84 ellipsoid after C. F. F. Karney, "Algorithms for geodesics", J.
 * Geodesy 87 (2013), by GeographicLib-Java. Coordinates in degrees, x longitude, y latitude;
 * lengths in metres, areas in square metres; accurate to about 15 nanometres.
 */
public final class Geodesy {
  private Geodesy() {}

  /** The distance in metres between two positions. */
  public static double distanceM(Coordinate a, Coordinate b) {
    return Geodesic.WGS84.Inverse(a.y, a.x, b.y, b.x, GeodesicMask.DISTANCE).s12;
  }

  /**
   * The bearing at {@code a} towards {@code b}: 0 up to 360 degrees, clockwise from north; 0 when
   * both are one position.
   */
  public static double bearingDeg(Coordinate a, Coordinate b) {
    if (a.x == b.x && a.y == b.y) return 0;
    GeodesicData d = Geodesic.WGS84.Inverse(a.y, a.x, b.y, b.x, GeodesicMask.AZIMUTH);
    double azimuth = d.azi1 < 0 ? d.azi1 + 360 : d.azi1;
    return azimuth == 360 ? 0 : azimuth;
  }

  /**
   * The length in metres of all lines in a geometry; for a polygon the length of its rings; 0 for
   * points.
   */
  public static double lengthM(Geometry g) {
    double sum = 0;
    for (int i = 0; i < g.getNumGeometries(); i++) {
      Geometry part = g.getGeometryN(i);
      if (part instanceof LineString line) sum += lineM(line);
      else if (part instanceof Polygon p) {
        sum += lineM(p.getExteriorRing());
        for (int k = 0; k < p.getNumInteriorRing(); k++) sum += lineM(p.getInteriorRingN(k));
      }
    }
    return sum;
  }

  /**
   * The area in square metres of all polygons in a geometry, holes taken off, whatever way round
   * the rings run.
   */
  public static double areaM2(Geometry g) {
    double sum = 0;
    for (int i = 0; i < g.getNumGeometries(); i++) {
      if (!(g.getGeometryN(i) instanceof Polygon p) || p.isEmpty()) continue;
      sum += ringM2(p.getExteriorRing());
      for (int k = 0; k < p.getNumInteriorRing(); k++) sum -= ringM2(p.getInteriorRingN(k));
    }
    return sum;
  }

  /**
   * A position that stands for the geometry in lists and for distances: a point itself, else a
   * point on or inside it.
   */
  public static Coordinate anchor(Geometry g) {
    if (g instanceof Polygonal) return g.getInteriorPoint().getCoordinate();
    if (g instanceof LineString line && !line.isEmpty())
      return line.getCoordinateN(line.getNumPoints() / 2);
    return g.getCoordinate();
  }

  private static double lineM(LineString line) {
    double sum = 0;
    for (int i = 1; i < line.getNumPoints(); i++)
      sum += distanceM(line.getCoordinateN(i - 1), line.getCoordinateN(i));
    return sum;
  }

  private static double ringM2(LineString ring) {
    PolygonArea area = new PolygonArea(Geodesic.WGS84, false);
    for (int i = 0; i < ring.getNumPoints() - 1; i++)
      area.AddPoint(ring.getCoordinateN(i).y, ring.getCoordinateN(i).x);
    return Math.abs(area.Compute(false, true).area);
  }
}
