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
    assertThat(PlaneNearest.distanceM(line, here)).isEqualTo(seen.get(0).distanceM());
  }

  @Test
  void aRectangleSelectsWhatItTouches() {
    assertThat(StopOrder.inRectangle(new Envelope(-10.21, -10.15, 57.89, 57.91), features))
        .containsExactly("near", "bank");
  }
}
