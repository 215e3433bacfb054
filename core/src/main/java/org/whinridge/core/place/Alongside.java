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

  /** What is nearer than this, in metres, is at the place itself. */
  private static final double HARDLY_M = 0.001;

  private static final class Search {
    private final Coordinate position;
    private final LocalPlane plane;
    private double best = Double.MAX_VALUE;
    private LineString line;
    private int segment;
    private double along;
    private int pieces;
    private double beforeM;
    private double lengthM;

    Search(Coordinate position) {
      this.position = position;
      plane = new LocalPlane(position);
    }

    void line(LineString l) {
      boolean better = false;
      for (int i = 0; i + 1 < l.getNumPoints(); i++)
        better |= edge(new Edge(l.getCoordinateN(i), l.getCoordinateN(i + 1)), i);
      if (better) {
        line = l;
        beforeM = lengthM;
      }
      lengthM += Geodesy.lengthM(l);
    }

    private boolean edge(Edge e, int i) {
      boolean better = false;
      int n = e.pieces();
      Coordinate a = e.at(0);
      a = plane.flat(a.x, a.y);
      for (int k = 0; k < n; k++) {
        Coordinate b = e.at((k + 1) / (double) n);
        b = plane.flat(b.x, b.y);
        double dx = b.x - a.x;
        double dy = b.y - a.y;
        double square = dx * dx + dy * dy;
        double t = square == 0 ? 0 : Math.max(0, Math.min(1, -(a.x * dx + a.y * dy) / square));
        double d = Math.hypot(a.x + t * dx, a.y + t * dy);
        if (d < best) {
          best = d;
          segment = i;
          along = (k + t) / n;
          pieces = n;
          better = true;
        }
        a = b;
      }
      return better;
    }

    Optional<Alongside> found() {
      if (line == null) return Optional.empty();
      double chainage = beforeM;
      for (int i = 0; i < segment; i++)
        chainage += Geodesy.distanceM(line.getCoordinateN(i), line.getCoordinateN(i + 1));
      Coordinate a = line.getCoordinateN(segment);
      Edge edge = new Edge(a, line.getCoordinateN(segment + 1));
      Coordinate at = nearest(edge);
      chainage += Geodesy.distanceM(a, at);
      double offset = Geodesy.distanceM(position, at);
      double turn = offset < HARDLY_M ? 0 : edge.turnTo(position);
      Side side = turn == 0 ? Side.ON : turn > 0 ? Side.LEFT : Side.RIGHT;
      return Optional.of(new Alongside(at, chainage, offset, side));
    }

    /**
     * The nearest place of an edge: of a long one, which the plane holds in pieces, by the lowest
     * point of a parabola through three squares of geodesic distances, twice.
     */
    private Coordinate nearest(Edge e) {
      double t = along;
      for (int round = 0; round < 2 && pieces > 1; round++) {
        double h = 1.0 / pieces;
        double before = square(e, t - h);
        double after = square(e, t + h);
        double bend = before - 2 * square(e, t) + after;
        if (bend > 0) t = Math.max(0, Math.min(1, t + h * (before - after) / (2 * bend)));
      }
      Coordinate at = e.at(t);
      for (double end = 0; end <= 1; end++)
        if (Geodesy.distanceM(at, e.at(end)) < HARDLY_M / 10) return e.at(end);
      return at;
    }

    private double square(Edge e, double t) {
      double d = Geodesy.distanceM(position, e.beyond(t));
      return d * d;
    }
  }
}
