package org.whinridge.core.place;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateArrays;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;

/** Whether two geometries are one place: the one notion of merging, updating and writing. */
public final class SamePlace {
  /** The precision that layers keep, in decimals of a degree: about a millimetre. */
  public static final int DECIMALS = 8;

  /** So many corners of a ring are tried as its beginning before two rings are called different. */
  private static final int MOST_TRIED = 64;

  /**
   * Whether two geometries are one place, as far as the precision goes: the same parts, each with
   * the same ring and holes, or the same line in the same direction. Where a ring begins, which way
   * it is wound, in which order parts and holes stand, whether a single part is written as several,
   * 180 or −180, and a corner in the middle of a straight edge make no difference. A hole is not a
   * part, two lines are not one, and a line turned around is another, since things flow along it.
   *
   * @param decimals of a degree, 0 to 12
   */
  public static boolean of(Geometry a, Geometry b, int decimals) {
    return new SamePlace(decimals).geometries(a, b);
  }

  /**
   * Whether two geometries are one place and written alike: the same corners in the same order. For
   * whoever edits, a corner on a straight edge is a change; for whoever merges or updates, none.
   *
   * @param decimals of a degree, 0 to 12
   */
  public static boolean asWritten(Geometry a, Geometry b, int decimals) {
    SamePlace s = new SamePlace(decimals);
    if (!a.getGeometryType().equals(b.getGeometryType()) || !s.geometries(a, b)) return false;
    Coordinate[] p = a.getCoordinates();
    Coordinate[] q = b.getCoordinates();
    if (p.length != q.length) return false;
    for (int i = 0; i < p.length; i++)
      if (Math.abs(p[i].x - q[i].x) > s.off || Math.abs(p[i].y - q[i].y) > s.off) return false;
    return true;
  }

  private final double off;

  private SamePlace(int decimals) {
    this.off = Math.pow(10, -decimals) / 2;
  }

  private boolean geometries(Geometry a, Geometry b) {
    if (a.getDimension() != b.getDimension() || a.getNumGeometries() != b.getNumGeometries())
      return false;
    return each(a.getNumGeometries(), (i, k) -> part(a.getGeometryN(i), b.getGeometryN(k)));
  }

  private interface Pair {
    boolean same(int i, int k);
  }

  /** Whether each of n things has its own like among n others; those in the same order are near. */
  private static boolean each(int n, Pair pair) {
    boolean[] taken = new boolean[n];
    for (int i = 0; i < n; i++) {
      int found = -1;
      for (int step = 0; step < n && found < 0; step++) {
        int k = (i + step) % n;
        if (!taken[k] && pair.same(i, k)) found = k;
      }
      if (found < 0) return false;
      taken[found] = true;
    }
    return true;
  }

  private boolean part(Geometry a, Geometry b) {
    if (!near(a, b)) return false;
    if (a instanceof Polygon p && b instanceof Polygon q) {
      return p.getNumInteriorRing() == q.getNumInteriorRing()
          && rings(p.getExteriorRing().getCoordinates(), q.getExteriorRing().getCoordinates())
          && each(
              p.getNumInteriorRing(),
              (i, k) ->
                  rings(
                      p.getInteriorRingN(i).getCoordinates(),
                      q.getInteriorRingN(k).getCoordinates()));
    }
    return along(a.getCoordinates(), b.getCoordinates());
  }

  /** Whether the boxes could be those of one thing; at the date line they tell nothing. */
  private boolean near(Geometry a, Geometry b) {
    Envelope e = a.getEnvelopeInternal();
    Envelope f = b.getEnvelopeInternal();
    if (e.getWidth() > 180 || f.getWidth() > 180 || Math.abs(e.getMinX()) > 179.999) return true;
    return Math.abs(e.getMinX() - f.getMinX()) <= off
        && Math.abs(e.getMaxX() - f.getMaxX()) <= off
        && Math.abs(e.getMinY() - f.getMinY()) <= off
        && Math.abs(e.getMaxY() - f.getMaxY()) <= off;
  }

  private boolean at(Coordinate p, Coordinate q) {
    double d = Math.abs(p.x - q.x);
    return (d <= off || Math.abs(d - 360) <= off) && Math.abs(p.y - q.y) <= off;
  }

  /**
   * Whether two lines go the same way from end to end; either may have corners on straight edges.
   */
  private boolean along(Coordinate[] p, Coordinate[] q) {
    if (p.length == 0 || q.length == 0) return p.length == q.length;
    if (!at(p[0], q[0]) || !at(p[p.length - 1], q[q.length - 1])) return false;
    int i = 0;
    int k = 0;
    double onP = 0; // how far along the edge of p its corner k of q lies, 0 to 1
    double onQ = 0;
    while (i < p.length - 1 && k < q.length - 1) {
      if (at(p[i + 1], q[k + 1])) {
        i++;
        k++;
        onP = 0;
        onQ = 0;
        continue;
      }
      double t = along(q[k], q[k + 1], p[i + 1]);
      double u = along(p[i], p[i + 1], q[k + 1]);
      if (t >= onQ) {
        i++;
        onQ = t;
        onP = 0;
      } else if (u >= onP) {
        k++;
        onP = u;
        onQ = 0;
      } else return false;
    }
    // what is left over are corners that lie where both end
    for (; i < p.length; i++) if (!at(p[i], q[q.length - 1])) return false;
    for (; k < q.length; k++) if (!at(q[k], p[p.length - 1])) return false;
    return true;
  }

  /** How far along an edge a point lies, 0 to 1; −1 when it is off the edge. */
  private double along(Coordinate from, Coordinate to, Coordinate c) {
    double dx = to.x - from.x;
    double dy = to.y - from.y;
    double length = dx * dx + dy * dy;
    if (length == 0) return at(from, c) ? 0 : -1;
    double t = ((c.x - from.x) * dx + (c.y - from.y) * dy) / length;
    if (t < 0 || t > 1) return -1;
    return Math.abs(from.x + t * dx - c.x) <= off && Math.abs(from.y + t * dy - c.y) <= off
        ? t
        : -1;
  }

  private boolean rings(Coordinate[] p, Coordinate[] q) {
    if (along(p, q)) return true;
    // a corner of one may lie on a straight edge of the other, so that several are tried
    for (int i = 0; i < Math.min(p.length - 1, MOST_TRIED); i++) {
      Coordinate[] begun = null;
      for (int k = 0; k < q.length - 1; k++) {
        if (!at(p[i], q[k])) continue;
        if (begun == null) begun = turned(p, i);
        Coordinate[] other = turned(q, k);
        if (along(begun, other)) return true;
        CoordinateArrays.reverse(other);
        if (along(begun, other)) return true;
      }
      if (begun != null) return false; // a corner of both: they differ elsewhere
    }
    return false;
  }

  /** A ring that begins at another of its corners. */
  private static Coordinate[] turned(Coordinate[] ring, int from) {
    int n = ring.length - 1;
    Coordinate[] out = new Coordinate[ring.length];
    for (int i = 0; i <= n; i++) out[i] = ring[(from + i) % n];
    return out;
  }
}
