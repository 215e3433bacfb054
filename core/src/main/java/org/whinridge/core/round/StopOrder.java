package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.LocalPlane;
import org.whinridge.core.place.PlaneNearest;

/** Which features become stops, and how far and which way each lies. */
public final class StopOrder {
  /** As far as distances on a plane are right to one part in 100,000, in metres. */
  private static final double PLANE_M = 50_000;

  private StopOrder() {}

  /** A feature as seen from where a person stands: metres, and degrees clockwise from north. */
  public record Seen(String featureId, double distanceM, double bearingDeg) {}

  /**
   * Features by distance from {@code here}, nearest first, ties by id; features without a place are
   * left out.
   */
  public static List<Seen> byDistance(Coordinate here, List<Feature> features) {
    List<Seen> out = new ArrayList<>(features.size());
    LocalPlane plane = new LocalPlane(here);
    for (Feature f : features) {
      if (f.geometry().isEmpty()) continue;
      Coordinate c = PlaneNearest.of(f.geometry().get(), here);
      out.add(seen(f.id(), here, c, plane.flat(c.x, c.y)));
    }
    out.sort(Comparator.comparingDouble(Seen::distanceM).thenComparing(Seen::featureId));
    return out;
  }

  /**
   * How far, and which way, positions lie from somebody: for lists of thousands.
   *
   * @param positions longitude and latitude of each, in degrees
   * @return metres and degrees clockwise from north of each, in the same order
   */
  public static double[] from(Coordinate here, double[] positions) {
    LocalPlane plane = new LocalPlane(here);
    double[] out = new double[positions.length];
    for (int i = 0; i + 1 < positions.length; i += 2) {
      Coordinate there = new Coordinate(positions[i], positions[i + 1]);
      Seen s = seen("", here, there, plane.flat(there.x, there.y));
      out[i] = s.distanceM;
      out[i + 1] = s.bearingDeg;
    }
    return out;
  }

  /** On the plane near by, since a list of thousands is sorted anew with each step; else exact. */
  private static Seen seen(String id, Coordinate here, Coordinate there, Coordinate flat) {
    double metres = Math.hypot(flat.x, flat.y);
    if (metres > PLANE_M)
      return new Seen(id, Geodesy.distanceM(here, there), Geodesy.bearingDeg(here, there));
    return new Seen(id, metres, (Math.toDegrees(Math.atan2(flat.x, flat.y)) + 360) % 360);
  }

  /** The ids of the features that touch a rectangle in degrees, in the order given. */
  public static List<String> inRectangle(Envelope rectangle, List<Feature> features) {
    var box = PreparedGeometryFactory.prepare(GeometryJson.WGS84.toGeometry(rectangle));
    List<String> out = new ArrayList<>();
    for (Feature f : features)
      if (f.geometry().isPresent() && box.intersects(f.geometry().get())) out.add(f.id());
    return out;
  }
}
