package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import net.sf.geographiclib.Geodesic;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.linearref.LengthIndexedLine;

/** Chainage, offset and side against JTS in the island's UTM zone, and GeographicLib. */
class AlongsideTest {
  private static final CoordinateSystem UTM = CoordinateSystem.utmNorth(29);
  private static final GeometryFactory FLAT = new GeometryFactory();

  private static LineString line(Coordinate... degrees) {
    return GeometryJson.WGS84.createLineString(degrees);
  }

  private static Coordinate flat(Coordinate c) {
    return UTM.project(c).orElseThrow();
  }

  @Test
  void agreesWithJtsOnTheProjectedLine() {
    Random random = new Random(61);
    for (int i = 0; i < 500; i++) {
      Coordinate[] bends = new Coordinate[2 + random.nextInt(8)];
      for (int k = 0; k < bends.length; k++)
        bends[k] =
            new Coordinate(
                -10.3 + k * 0.01 + random.nextDouble() * 0.004, 57.88 + random.nextDouble() * 0.01);
      Coordinate at =
          new Coordinate(-10.3 + random.nextDouble() * 0.06, 57.87 + random.nextDouble() * 0.03);
      Coordinate[] projected = new Coordinate[bends.length];
      for (int k = 0; k < bends.length; k++) projected[k] = flat(bends[k]);
      LineString flatLine = FLAT.createLineString(projected);
      double index = new LengthIndexedLine(flatLine).project(flat(at));
      double offset = flatLine.distance(FLAT.createPoint(flat(at)));
      Alongside along = Alongside.of(line(bends), at).orElseThrow();
      // UTM is out by up to 0.04 % here, and where two places are about as near, either may be
      // found
      assertThat(along.offsetM()).isCloseTo(offset, within(0.5 + offset * 0.002));
      if (Math.abs(along.offsetM() - offset) < 0.5 && offset < 200)
        assertThat(along.chainageM()).isCloseTo(index, within(5 + index * 0.002));
    }
  }

  @Test
  void theEndsOfALineAreItsNearestPlacesBeyondThem() {
    LineString l = line(new Coordinate(-10.3, 57.9), new Coordinate(-10.29, 57.9));
    Coordinate before = new Coordinate(-10.31, 57.9);
    Alongside a = Alongside.of(l, before).orElseThrow();
    assertThat(a.chainageM()).isZero();
    assertThat(a.side()).as("in its direction, but before it").isEqualTo(Alongside.Side.ON);
    assertThat(a.offsetM())
        .isCloseTo(Geodesic.WGS84.Inverse(57.9, -10.31, 57.9, -10.3).s12, within(1e-6));
    Alongside after = Alongside.of(l, new Coordinate(-10.28, 57.9)).orElseThrow();
    assertThat(after.chainageM())
        .isCloseTo(Geodesic.WGS84.Inverse(57.9, -10.3, 57.9, -10.29).s12, within(1e-6));
  }

  @Test
  void sidesAreSeenAlongTheLine() {
    LineString north = line(new Coordinate(-10.3, 57.9), new Coordinate(-10.3, 57.91));
    assertThat(Alongside.of(north, new Coordinate(-10.301, 57.905)).orElseThrow().side())
        .isEqualTo(Alongside.Side.LEFT);
    assertThat(Alongside.of(north, new Coordinate(-10.299, 57.905)).orElseThrow().side())
        .isEqualTo(Alongside.Side.RIGHT);
    assertThat(Alongside.of(north, new Coordinate(-10.3, 57.905)).orElseThrow().side())
        .isEqualTo(Alongside.Side.ON);
    assertThat(
            Alongside.of((LineString) north.reverse(), new Coordinate(-10.301, 57.905))
                .orElseThrow()
                .side())
        .isEqualTo(Alongside.Side.RIGHT);
  }

  @Test
  void partsFollowOneAnotherAndAreasCountByTheirRings() {
    Geometry two =
        GeometryJson.parse(
                "{\"type\":\"MultiLineString\",\"coordinates\":[[[0,0],[0,1]],[[1,1],[1,0]]]}")
            .orElseThrow();
    double oneDegree = Geodesic.WGS84.Inverse(0, 0, 1, 0).s12;
    assertThat(Alongside.of(two, new Coordinate(1.001, 0)).orElseThrow().chainageM())
        .isCloseTo(2 * oneDegree, within(1e-6));
    Geometry area =
        GeometryJson.parse(
                "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1],[0,0]]]}")
            .orElseThrow();
    assertThat(Alongside.of(area, new Coordinate(0.5, -0.01)).orElseThrow().offsetM())
        .isCloseTo(Geodesic.WGS84.Inverse(0, 0.5, -0.01, 0.5).s12, within(1e-6));
    assertThat(
            Alongside.of(
                GeometryJson.WGS84.createPoint(new Coordinate(1, 1)), new Coordinate(0, 0)))
        .isEmpty();
  }

  @Test
  void aLineOfOnePlaceTwiceIsStillMeasured() {
    LineString still = line(new Coordinate(-10, 57), new Coordinate(-10, 57));
    Alongside a = Alongside.of(still, new Coordinate(-10, 57.001)).orElseThrow();
    assertThat(a.chainageM()).isZero();
    assertThat(a.offsetM()).isCloseTo(111.3, within(0.2));
  }
}
