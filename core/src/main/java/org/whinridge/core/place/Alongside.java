package org.whinridge.core.place;

import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;

/**
 * Where a position lies along a line: the nearest place on it, how far along, how far off and on
 * which side.
 *
 * @param at the nearest place on the line
 * @param chainageM metres along the line from its start to that place, geodesic; the parts of a
 *     multi-part line follow one another
 * @param offsetM geodesic metres from the line
 * @param side which side of the line, seen along its direction
 */
public record Alongside(Coordinate at, double chainageM, double offsetM, Side side) {
  /** The sides of a line. */
  public enum Side {
    LEFT,
    RIGHT,
    ON
  }

  /**
   * The nearest place on the lines of a geometry (for a polygon its rings); empty without lines.
   */
  public static Optional<Alongside> of(Geometry lines, Coordinate position) {
    Search search = new Search(position);
    for (int i = 0; i < lines.getNumGeometries(); i++) {
      Geometry part = lines.getGeometryN(i);
      if (part instanceof LineString line) search.line(line);
      else if (part instanceof Polygon p) {
        search.line(p.getExteriorRing());
        for (int k = 0; k < p.getNumInteriorRing(); k++) search.line(p.getInteriorRingN(k));
      }
    }
    return search.found();
  }

  private static final class Search {
    private final Coordinate position;
    private final LocalPlane plane;
    private double best = Double.MAX_VALUE;
    private LineString line;
    private int segment;
    private double along;
    private double cross;
    private double beforeM;
    private double lengthM;

    Search(Coordinate position) {
      this.position = position;
      plane = new LocalPlane(position);
    }

    void line(LineString l) {
      boolean better = false;
      for (int i = 0; i + 1 < l.getNumPoints(); i++) {
        Coordinate a = l.getCoordinateN(i);
        Coordinate b = l.getCoordinateN(i + 1);
        double ax = plane.x(a.x);
        double ay = plane.y(a.y);
        double dx = plane.x(b.x) - ax;
        double dy = plane.y(b.y) - ay;
        double square = dx * dx + dy * dy;
        double t = square == 0 ? 0 : Math.max(0, Math.min(1, -(ax * dx + ay * dy) / square));
        double d = Math.hypot(ax + t * dx, ay + t * dy);
        if (d < best) {
          best = d;
          segment = i;
          along = t;
          cross = ax * dy - ay * dx;
          better = true;
        }
      }
      if (better) {
        line = l;
        beforeM = lengthM;
      }
      lengthM += Geodesy.lengthM(l);
    }

    Optional<Alongside> found() {
      if (line == null) return Optional.empty();
      double chainage = beforeM;
      for (int i = 0; i < segment; i++)
        chainage += Geodesy.distanceM(line.getCoordinateN(i), line.getCoordinateN(i + 1));
      Coordinate a = line.getCoordinateN(segment);
      Coordinate b = line.getCoordinateN(segment + 1);
      Coordinate at = new Coordinate(a.x + along * (b.x - a.x), a.y + along * (b.y - a.y));
      chainage += Geodesy.distanceM(a, at);
      double offset = Geodesy.distanceM(position, at);
      // the position is the plane's origin: it lies left when origin − a turns left of b − a
      Side side = offset < 0.001 || cross == 0 ? Side.ON : cross > 0 ? Side.LEFT : Side.RIGHT;
      return Optional.of(new Alongside(at, chainage, offset, side));
    }
  }
}
