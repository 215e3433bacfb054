package org.whinridge.core.place;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.valid.IsSimpleOp;
import org.locationtech.jts.operation.valid.IsValidOp;
import org.locationtech.jts.operation.valid.TopologyValidationError;
import org.whinridge.core.said.Said;

/**
 * What people do to the shape of a feature: split a line, add and take away parts and holes.
 * Geometries are in WGS 84 degrees and never changed; a part keeps its place in the order.
 */
public final class Reshaping {
  private Reshaping() {}

  /**
   * A line split where it comes nearest to a position: what lies before and what lies behind, in
   * the line's direction. Of several parts the nearest is split; parts before it stay with the
   * first, parts behind it go with the second. Empty when one of the two would have no length.
   */
  public static Optional<List<Geometry>> split(Geometry lines, Coordinate near) {
    Optional<Alongside> nearest = Alongside.of(lines, near);
    if (nearest.isEmpty()) return Optional.empty();
    Coordinate at = nearest.get().at();
    List<LineString> before = new ArrayList<>();
    List<LineString> behind = new ArrayList<>();
    int cut = partAt(lines, at);
    for (int i = 0; i < lines.getNumGeometries(); i++) {
      if (!(lines.getGeometryN(i) instanceof LineString l)) return Optional.empty();
      if (i != cut) {
        (i < cut ? before : behind).add(l);
        continue;
      }
      Coordinate[] c = l.getCoordinates();
      int s = segmentAt(c, at);
      List<Coordinate> first = new ArrayList<>(Arrays.asList(c).subList(0, s + 1));
      if (!c[s].equals2D(at)) first.add(at);
      List<Coordinate> second = new ArrayList<>(List.of(at));
      for (int k = s + 1; k < c.length; k++) if (!c[k].equals2D(at)) second.add(c[k]);
      if (first.size() > 1) before.add(line(first));
      if (second.size() > 1) behind.add(line(second));
    }
    return before.isEmpty() || behind.isEmpty()
        ? Optional.empty()
        : Optional.of(List.of(gathered(before), gathered(behind)));
  }

  private static LineString line(List<Coordinate> c) {
    return GeometryJson.WGS84.createLineString(c.toArray(new Coordinate[0]));
  }

  private static Geometry gathered(List<? extends Geometry> parts) {
    return GeometryJson.WGS84.buildGeometry(parts);
  }

  private static int partAt(Geometry g, Coordinate at) {
    int best = 0;
    double least = Double.MAX_VALUE;
    Point p = GeometryJson.WGS84.createPoint(at);
    for (int i = 0; i < g.getNumGeometries(); i++) {
      double d = g.getGeometryN(i).distance(p);
      if (d < least) {
        least = d;
        best = i;
      }
    }
    return best;
  }

  private static int segmentAt(Coordinate[] c, Coordinate at) {
    int best = 0;
    double least = Double.MAX_VALUE;
    for (int i = 0; i + 1 < c.length; i++) {
      double d = org.locationtech.jts.algorithm.Distance.pointToSegment(at, c[i], c[i + 1]);
      if (d < least) {
        least = d;
        best = i;
      }
    }
    return best;
  }

  /** The geometry with one more part; of points, lines and polygons several parts are allowed. */
  public static Geometry withPart(Geometry g, Geometry part) {
    List<Geometry> parts = parts(g);
    parts.addAll(parts(part));
    return gathered(parts);
  }

  private static List<Geometry> parts(Geometry g) {
    List<Geometry> out = new ArrayList<>();
    for (int i = 0; i < g.getNumGeometries(); i++) out.add(g.getGeometryN(i));
    return out;
  }

  /** The geometry without the part nearest to a position; empty when it has only one. */
  public static Optional<Geometry> withoutPart(Geometry g, Coordinate near) {
    if (g.getNumGeometries() < 2) return Optional.empty();
    List<Geometry> parts = parts(g);
    parts.remove(partAt(g, near));
    return Optional.of(gathered(parts));
  }

  /** The area with a hole; empty when the ring does not lie within one of its parts. */
  public static Optional<Geometry> withHole(Geometry area, Polygon ring) {
    List<Geometry> parts = parts(area);
    for (int i = 0; i < parts.size(); i++)
      if (parts.get(i) instanceof Polygon p && ring.isValid() && p.isValid() && p.contains(ring)) {
        LinearRing[] holes = Arrays.copyOf(holes(p), p.getNumInteriorRing() + 1);
        holes[holes.length - 1] =
            GeometryJson.WGS84.createLinearRing(ring.getExteriorRing().getCoordinates());
        parts.set(i, GeometryJson.WGS84.createPolygon(p.getExteriorRing(), holes));
        return Optional.of(gathered(parts));
      }
    return Optional.empty();
  }

  private static LinearRing[] holes(Polygon p) {
    LinearRing[] out = new LinearRing[p.getNumInteriorRing()];
    for (int k = 0; k < out.length; k++) out[k] = p.getInteriorRingN(k);
    return out;
  }

  /** The area without the hole that a position lies in; empty when it lies in none. */
  public static Optional<Geometry> withoutHole(Geometry area, Coordinate in) {
    Point at = GeometryJson.WGS84.createPoint(in);
    List<Geometry> parts = parts(area);
    for (int i = 0; i < parts.size(); i++)
      if (parts.get(i) instanceof Polygon p)
        for (int k = 0; k < p.getNumInteriorRing(); k++)
          if (GeometryJson.WGS84.createPolygon(p.getInteriorRingN(k)).intersects(at)) {
            List<LinearRing> left = new ArrayList<>(Arrays.asList(holes(p)));
            left.remove(k);
            parts.set(
                i,
                GeometryJson.WGS84.createPolygon(
                    p.getExteriorRing(), left.toArray(new LinearRing[0])));
            return Optional.of(gathered(parts));
          }
    return Optional.empty();
  }

  /**
   * What is wrong with a drawn shape, and where.
   *
   * @param at the position concerned; empty when it is about the whole
   * @param ofArea whether the edges of an area are what is wrong
   */
  public record Fault(Said message, Optional<Coordinate> at, boolean ofArea) {}

  /** What keeps a geometry from being a feature's of a layer of that kind; empty when nothing. */
  public static Optional<Fault> fault(Geometry g, GeometryKind kind) {
    if (g.isEmpty()) return whole(Said.of("shape.nothing"));
    if (!GeometryKind.of(g).equals(Optional.of(kind)))
      return whole(Said.of("shape.otherKind", "kind", kind.id()));
    for (Coordinate c : g.getCoordinates())
      if (!GeometryJson.inRange(c.x, c.y))
        return Optional.of(new Fault(Said.of("shape.outside"), Optional.of(c), false));
    if (kind == GeometryKind.LINE && Geodesy.lengthM(g) == 0)
      return whole(Said.of("shape.noLength"));
    if (kind != GeometryKind.POLYGON) return Optional.empty();
    var error = new IsValidOp(g).getValidationError();
    if (error == null) return Optional.empty();
    return Optional.of(new Fault(unsound(error), Optional.ofNullable(error.getCoordinate()), true));
  }

  /** What is wrong with the edges of an area. */
  public static Said unsound(TopologyValidationError error) {
    return Said.of(
        switch (error.getErrorType()) {
          case TopologyValidationError.SELF_INTERSECTION,
              TopologyValidationError.RING_SELF_INTERSECTION ->
              "shape.crosses";
          case TopologyValidationError.HOLE_OUTSIDE_SHELL -> "shape.holeOutside";
          case TopologyValidationError.NESTED_SHELLS, TopologyValidationError.NESTED_HOLES ->
              "shape.nested";
          default -> "shape.unsound";
        });
  }

  /**
   * What keeps a new shape from being written: its fault. An area that crossed itself before may be
   * mended step by step, as long as it crosses itself no more often than it did.
   */
  public static Optional<Fault> refused(
      Geometry now, Optional<Geometry> before, GeometryKind kind) {
    Optional<Fault> fault = fault(now, kind);
    boolean mended =
        fault.filter(Fault::ofArea).isPresent()
            && before
                .filter(g -> fault(g, kind).filter(Fault::ofArea).isPresent())
                .filter(g -> crossings(now) <= crossings(g))
                .isPresent();
    return mended ? Optional.empty() : fault;
  }

  /** How often the edges of an area meet where they should not. */
  private static int crossings(Geometry area) {
    IsSimpleOp op = new IsSimpleOp(area.getBoundary());
    op.setFindAllLocations(true);
    return op.getNonSimpleLocations().size();
  }

  private static Optional<Fault> whole(Said message) {
    return Optional.of(new Fault(message, Optional.empty(), false));
  }
}
