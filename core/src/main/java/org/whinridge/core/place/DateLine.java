package org.whinridge.core.place;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.whinridge.core.said.Unfit;

/**
 * Longitudes beyond 180 degrees, as files have them that count from 0 to 360 or go on across the
 * date line: put where they belong, shapes cut at the date line. Source: RFC 7946, section 3.1.9.
 */
public final class DateLine {
  private DateLine() {}

  /** Whether a longitude, -360 to 360, lies beyond the usual range. */
  public static boolean isBeyond(double longitude) {
    return (longitude > 180 || longitude < -180) && Math.abs(longitude) <= 360;
  }

  /** Whether some position lies beyond the usual range, and all are within -360 to 360. */
  public static boolean isBeyond(Geometry g) {
    Envelope e = g.getEnvelopeInternal();
    return !e.isNull()
        && (e.getMinX() < -180 || e.getMaxX() > 180)
        && e.getMinX() >= -360
        && e.getMaxX() <= 360;
  }

  /**
   * The geometry within -180 to 180 degrees; the same object when it is there already or too far
   * out to be one.
   *
   * @throws IllegalArgumentException with a sentence part for people when it crosses the date line
   *     and itself, so that it can't be cut
   */
  public static Geometry wrapped(Geometry g) {
    if (!isBeyond(g)) return g;
    Envelope e = g.getEnvelopeInternal();
    if (e.getMinX() >= 180) return moved(g, -360);
    if (e.getMaxX() <= -180) return moved(g, 360);
    List<Geometry> parts = new ArrayList<>();
    try {
      for (int turn = -1; turn <= 1; turn++) {
        Geometry part =
            g.intersection(
                g.getFactory()
                    .toGeometry(new Envelope(360.0 * turn - 180, 360.0 * turn + 180, -91, 91)));
        for (int i = 0; i < part.getNumGeometries(); i++)
          // what only touches the line from the other side stays with the rest
          if (!part.getGeometryN(i).isEmpty()
              && part.getGeometryN(i).getDimension() == g.getDimension())
            parts.add(moved(part.getGeometryN(i), -360.0 * turn));
      }
    } catch (RuntimeException x) {
      throw new Unfit("geometry.dateLine").because(x);
    }
    return g.getFactory().buildGeometry(parts);
  }

  private static Geometry moved(Geometry g, double by) {
    if (by == 0) return g;
    Geometry out = AffineTransformation.translationInstance(by, 0).transform(g);
    for (Coordinate c : out.getCoordinates()) c.x = Math.max(-180, Math.min(180, c.x));
    return out;
  }
}
