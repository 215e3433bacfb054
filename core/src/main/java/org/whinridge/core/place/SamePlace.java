package org.whinridge.core.place;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;

/** Whether two geometries are one place: the one notion of merging, updating and writing. */
public final class SamePlace {
  /** The precision that layers keep, in decimals of a degree: about a millimetre. */
  public static final int DECIMALS = 8;

  private SamePlace() {}

  /**
   * Whether two geometries have the same type, the same parts and rings, and the same corners, one
   * by one, as far as the precision goes. A hole is not a part, and two lines are not one.
   *
   * @param decimals of a degree, 0 to 12
   */
  public static boolean of(Geometry a, Geometry b, int decimals) {
    if (!a.getGeometryType().equals(b.getGeometryType())
        || a.getNumGeometries() != b.getNumGeometries()) return false;
    for (int i = 0; i < a.getNumGeometries(); i++)
      if (!part(a.getGeometryN(i), b.getGeometryN(i), decimals)) return false;
    return true;
  }

  private static boolean part(Geometry a, Geometry b, int decimals) {
    if (a instanceof Polygon p && b instanceof Polygon q) {
      if (p.getNumInteriorRing() != q.getNumInteriorRing()
          || !corners(p.getExteriorRing(), q.getExteriorRing(), decimals)) return false;
      for (int i = 0; i < p.getNumInteriorRing(); i++)
        if (!corners(p.getInteriorRingN(i), q.getInteriorRingN(i), decimals)) return false;
      return true;
    }
    return corners(a, b, decimals);
  }

  private static boolean corners(Geometry a, Geometry b, int decimals) {
    Coordinate[] p = a.getCoordinates();
    Coordinate[] q = b.getCoordinates();
    if (p.length != q.length) return false;
    double step = Math.pow(10, -decimals);
    for (int i = 0; i < p.length; i++)
      if (Math.abs(p[i].x - q[i].x) > step / 2 || Math.abs(p[i].y - q[i].y) > step / 2)
        return false;
    return true;
  }
}
