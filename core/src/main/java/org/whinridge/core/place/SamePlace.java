package org.whinridge.core.place;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;

/** Whether two geometries are one place: the one notion of merging, updating and writing. */
public final class SamePlace {
  /** The precision that layers keep, in decimals of a degree: about a millimetre. */
  public static final int DECIMALS = 8;

  private SamePlace() {}

  /**
   * Whether two geometries have the same type and the same corners, one by one, as far as the
   * precision goes.
   *
   * @param decimals of a degree, 0 to 12
   */
  public static boolean of(Geometry a, Geometry b, int decimals) {
    Coordinate[] p = a.getCoordinates();
    Coordinate[] q = b.getCoordinates();
    if (!a.getGeometryType().equals(b.getGeometryType()) || p.length != q.length) return false;
    double step = Math.pow(10, -decimals);
    for (int i = 0; i < p.length; i++)
      if (Math.abs(p[i].x - q[i].x) > step / 2 || Math.abs(p[i].y - q[i].y) > step / 2)
        return false;
    return true;
  }
}
