package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.LocalPlane;
import org.whinridge.core.place.PlaneNearest;

class StopOrderTest {
  private static Feature at(String id, String geometry) {
    return new Feature(id, GeometryJson.parse(geometry), Map.of(), 1);
  }

  private final List<Feature> features =
      List.of(
          at("far", "{\"type\":\"Point\",\"coordinates\":[-10.1,57.9]}"),
          at("near", "{\"type\":\"Point\",\"coordinates\":[-10.199,57.9]}"),
          at("bank", "{\"type\":\"LineString\",\"coordinates\":[[-10.3,57.905],[-10.1,57.905]]}"),
          new Feature("nowhere", Optional.empty(), Map.of(), 1));

  @Test
  void nearestFirstALineFromItsNearestPoint() {
    var seen = StopOrder.byDistance(new Coordinate(-10.2, 57.9), features);
    assertThat(seen).extracting(StopOrder.Seen::featureId).containsExactly("near", "bank", "far");
    assertThat(seen.get(1).distanceM()).isCloseTo(556.9, within(0.2)); // 0.005 degrees of latitude
    assertThat(seen.get(1).bearingDeg()).isCloseTo(0, within(0.01));
    assertThat(seen.get(0).bearingDeg()).isCloseTo(90, within(0.01));
  }

  /** In degrees the nearest spot of this line lay 567 m away, at 16°. */
  @Test
  void theNearestSpotIsNearestInMetresNotInDegrees() {
    Coordinate here = new Coordinate(-10.2, 57.9);
    LocalPlane plane = new LocalPlane(here);
    Geometry line =
        GeometryJson.WGS84.createLineString(
            new Coordinate[] {
              plane.degrees(new Coordinate(-1650, 2350)), plane.degrees(new Coordinate(2350, -1650))
            });
    var seen =
        StopOrder.byDistance(here, List.of(new Feature("d", Optional.of(line), Map.of(), 1)));
    // the edge is straight in degrees, which is a metre off what is straight on the plane
    double least = Double.MAX_VALUE;
    Coordinate a = line.getCoordinates()[0];
    Coordinate b = line.getCoordinates()[1];
    for (double t = 0; t <= 1; t += 1e-5)
      least =
          Math.min(
              least,
              Geodesy.distanceM(
                  here, new Coordinate(a.x + t * (b.x - a.x), a.y + t * (b.y - a.y))));
    assertThat(seen.get(0).distanceM()).isCloseTo(least, within(0.1));
    assertThat(seen.get(0).distanceM()).isCloseTo(350 * Math.sqrt(2), within(1.5));
    assertThat(seen.get(0).bearingDeg()).isCloseTo(45, within(0.2));
    assertThat(PlaneNearest.distanceM(line, here)).isCloseTo(seen.get(0).distanceM(), within(0.01));
  }

  /** Held against GeographicLib, the reference implementation of Karney 2013. */
  @Test
  void distancesAndBearingsAreThoseOverGround() {
    java.util.Random r = new java.util.Random(5);
    for (int i = 0; i < 400; i++) {
      Coordinate here = new Coordinate(-180 + 360 * r.nextDouble(), -89 + 178 * r.nextDouble());
      double far = Math.pow(10, r.nextDouble() * 7);
      var to =
          net.sf.geographiclib.Geodesic.WGS84.Direct(here.y, here.x, 360 * r.nextDouble(), far);
      Feature f = at("f", "{\"type\":\"Point\",\"coordinates\":[" + to.lon2 + "," + to.lat2 + "]}");
      StopOrder.Seen seen = StopOrder.byDistance(here, List.of(f)).get(0);
      assertThat(seen.distanceM()).isCloseTo(far, within(Math.max(1e-3, far * 2e-5)));
      double turn = Math.abs(seen.bearingDeg() - (to.azi1 + 360) % 360);
      assertThat(StopOrder.from(here, new double[] {to.lon2, to.lat2}))
          .containsExactly(seen.distanceM(), seen.bearingDeg());
      if (far > 10) assertThat(Math.min(turn, 360 - turn)).isLessThan(0.05);
    }
  }

  @Test
  void aRectangleSelectsWhatItTouches() {
    assertThat(StopOrder.inRectangle(new Envelope(-10.21, -10.15, 57.89, 57.91), features))
        .containsExactly("near", "bank");
  }
}
