package org.whinridge.core.prefill;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.util.GeometryTransformer;
import org.locationtech.jts.operation.distance.DistanceOp;
import org.whinridge.core.place.LocalPlane;

/** The nearest positions of two geometries on a plane of metres, and back in degrees. */
final class PlaneNearest {
  private static final GeometryFactory FLAT = new GeometryFactory();
  private final LocalPlane plane;

  PlaneNearest(LocalPlane plane) {
    this.plane = plane;
  }

  double distance(Geometry a, Geometry b) {
    return DistanceOp.distance(flat(a), flat(b));
  }

  Coordinate[] pair(Geometry a, Geometry b) {
    Coordinate[] flat = DistanceOp.nearestPoints(flat(a), flat(b));
    return new Coordinate[] {plane.degrees(flat[0]), plane.degrees(flat[1])};
  }

  private Geometry flat(Geometry g) {
    return new GeometryTransformer() {
      @Override
      protected CoordinateSequence transformCoordinates(CoordinateSequence cs, Geometry parent) {
        Coordinate[] out = new Coordinate[cs.size()];
        for (int i = 0; i < out.length; i++)
          out[i] = new Coordinate(plane.x(cs.getX(i)), plane.y(cs.getY(i)));
        return FLAT.getCoordinateSequenceFactory().create(out);
      }
    }.transform(g);
  }
}
