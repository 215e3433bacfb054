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
import org.whinridge.core.place.PlaneNearest;

/** Which features become stops, and how far and which way each lies. */
public final class StopOrder {
  private StopOrder() {}

  /** A feature as seen from where a person stands: metres, and degrees clockwise from north. */
  public record Seen(String featureId, double distanceM, double bearingDeg) {}

  /**
   * Features by distance from {@code here}, nearest first, ties by id; features without a place are
   * left out.
   */
  public static List<Seen> byDistance(Coordinate here, List<Feature> features) {
    List<Seen> out = new ArrayList<>(features.size());
    for (Feature f : features) {
      if (f.geometry().isEmpty()) continue;
      Coordinate c = PlaneNearest.of(f.geometry().get(), here);
      out.add(new Seen(f.id(), Geodesy.distanceM(here, c), Geodesy.bearingDeg(here, c)));
    }
    out.sort(Comparator.comparingDouble(Seen::distanceM).thenComparing(Seen::featureId));
    return out;
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
