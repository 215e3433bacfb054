package org.whinridge.core.place;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.GeometryTransformer;
import org.locationtech.jts.operation.distance.DistanceOp;

/**
 * How far two geometries are from each other and where they come nearest, on a plane of metres
 * around one of them, since degrees of longitude are shorter than those of latitude. Edges are
 * straight in degrees; long ones are laid on the plane in pieces. {@link #distanceM} is geodesic.
 * Not for several threads at once.
 */
public final class PlaneNearest {
  private static final GeometryFactory FLAT = new GeometryFactory();
  private final LocalPlane plane;
  private Geometry last;
  private Geometry lastFlat;

  /** Distances on a plane. */
  public PlaneNearest(LocalPlane plane) {
    this.plane = plane;
  }

  /** The least distance on the plane, metres. */
  public double distance(Geometry a, Geometry b) {
    return DistanceOp.distance(laid(a), flat(b));
  }

  /** The positions of both in degrees where they come nearest. */
  public Coordinate[] pair(Geometry a, Geometry b) {
    Coordinate[] flat = DistanceOp.nearestPoints(laid(a), flat(b));
    return new Coordinate[] {plane.degrees(flat[0]), plane.degrees(flat[1])};
  }

  /** The position of a geometry in degrees that is nearest to somebody. */
  public static Coordinate of(Geometry g, Coordinate here) {
    if (g.getDimension() == 0 && g.getNumGeometries() == 1) return g.getCoordinate();
    return new PlaneNearest(new LocalPlane(here)).pair(g, GeometryJson.WGS84.createPoint(here))[0];
  }

  /** The geodesic distance from somebody to the nearest position of a geometry, metres. */
  public static double distanceM(Geometry g, Coordinate here) {
    // no test of topology: a shape that crosses itself has a distance, too
    return Geodesy.distanceM(here, of(g, here));
  }

  /** The first of two is most often the same as before, held against one after another. */
  private Geometry laid(Geometry g) {
    if (g != last) {
      last = g;
      lastFlat = flat(g);
    }
    return lastFlat;
  }

  private Geometry flat(Geometry g) {
    return new GeometryTransformer() {
      @Override
      protected CoordinateSequence transformCoordinates(CoordinateSequence cs, Geometry parent) {
        return FLAT.getCoordinateSequenceFactory().create(pieces(cs));
      }
    }.transform(g);
  }

  private Coordinate[] pieces(CoordinateSequence cs) {
    List<Coordinate> out = new ArrayList<>(cs.size());
    for (int i = 0; i < cs.size(); i++) {
      if (i > 0) {
        Edge e = new Edge(cs.getCoordinate(i - 1), cs.getCoordinate(i));
        int n = e.pieces();
        for (int k = 1; k < n; k++) {
          Coordinate c = e.at(k / (double) n);
          out.add(plane.flat(c.x, c.y));
        }
      }
      out.add(plane.flat(cs.getX(i), cs.getY(i)));
    }
    return out.toArray(new Coordinate[0]);
  }
}
