package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateTransformFactory;
import org.locationtech.proj4j.ProjCoordinate;

class GeodesyTest {
  /**
   * GeographicLib's documentation of GeodSolve: JFK to LHR, 5 551 759.400 m (value from memory,
   * agrees with the library's algorithm).
   */
  @Test
  void theDistanceFromJfkToLhr() {
    assertThat(Geodesy.distanceM(new Coordinate(-73.8, 40.6), new Coordinate(-0.5, 51.6)))
        .isCloseTo(5551759.400, within(0.001));
  }

  @Test
  void bearingsRunClockwiseFromNorth() {
    Coordinate o = new Coordinate(-10, 57.9);
    assertThat(Geodesy.bearingDeg(o, new Coordinate(-10, 58))).isCloseTo(0, within(1e-9));
    assertThat(Geodesy.bearingDeg(o, new Coordinate(-10, 57))).isCloseTo(180, within(1e-9));
    assertThat(Geodesy.bearingDeg(o, new Coordinate(-10.001, 57.9))).isBetween(269.0, 271.0);
    assertThat(Geodesy.bearingDeg(o, o)).isZero();
  }

  /**
   * One octant of the ellipsoid is an eighth of WGS 84's area, 510 065 621.724 km² (NGA.STND.0036
   * derived constants, from memory).
   */
  @Test
  void anOctantIsAnEighthOfTheEarthWhateverWayItIsWound() {
    String there = "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[90,0],[90,90],[0,90],[0,0]]]}";
    String back = "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[0,90],[90,90],[90,0],[0,0]]]}";
    double eighth = 510065621.724e6 / 8;
    assertThat(Geodesy.areaM2(GeometryJson.parse(there).orElseThrow()))
        .isCloseTo(eighth, within(eighth * 1e-9));
    assertThat(Geodesy.areaM2(GeometryJson.parse(back).orElseThrow()))
        .isCloseTo(eighth, within(eighth * 1e-9));
  }

  @Test
  void holesAreTakenOff() {
    double whole =
        Geodesy.areaM2(
            GeometryJson.parse(
                    "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[2,0],[2,2],[0,2],[0,0]]]}")
                .orElseThrow());
    double hole =
        Geodesy.areaM2(
            GeometryJson.parse(
                    "{\"type\":\"Polygon\",\"coordinates\":[[[0.5,0.5],[1,0.5],[1,1],[0.5,1],[0.5,0.5]]]}")
                .orElseThrow());
    double both =
        Geodesy.areaM2(
            GeometryJson.parse(
                    "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[2,0],[2,2],[0,2],[0,0]],[[0.5,0.5],[1,0.5],[1,1],[0.5,1],[0.5,0.5]]]}")
                .orElseThrow());
    assertThat(both).isCloseTo(whole - hole, within(1e-3));
  }

  /**
   * IOGP Guidance Note 7-2, Transverse Mercator, OSGB36 / British National Grid (from memory):
   * 50°30′ N 0°30′ E gives E 577 274.99, N 69 740.50.
   */
  @Test
  void transverseMercatorOnAiry() {
    CRSFactory crs = new CRSFactory();
    String airy = "+a=6377563.396 +b=6356256.909237285";
    ProjCoordinate out = new ProjCoordinate();
    new CoordinateTransformFactory()
        .createTransform(
            crs.createFromParameters("g", "+proj=longlat " + airy + " +no_defs"),
            crs.createFromParameters(
                "p",
                "+proj=tmerc +lat_0=49 +lon_0=-2 +k=0.9996012717 +x_0=400000 +y_0=-100000 "
                    + airy
                    + " +units=m +no_defs"))
        .transform(new ProjCoordinate(0.5, 50.5), out);
    assertThat(out.x).isCloseTo(577274.99, within(0.01));
    assertThat(out.y).isCloseTo(69740.50, within(0.01));
  }

  /**
   * On the central meridian the easting is 500 000 m exactly, and northing grows as the scaled
   * meridian arc.
   */
  @Test
  void utmIsSymmetricAboutItsMeridianAndScaledByItsFactor() {
    CoordinateSystem utm = CoordinateSystem.utmNorth(29);
    assertThat(utm.project(new Coordinate(-9, 57.9)).orElseThrow().x)
        .isCloseTo(500000, within(1e-6));
    Random r = new Random(3);
    for (int i = 0; i < 200; i++) {
      double lat = 10 + r.nextDouble() * 60;
      double d = r.nextDouble() * 3;
      Coordinate e = utm.project(new Coordinate(-9 + d, lat)).orElseThrow();
      Coordinate w = utm.project(new Coordinate(-9 - d, lat)).orElseThrow();
      assertThat(e.x - 500000).isCloseTo(500000 - w.x, within(1e-6));
      double arc = Geodesy.distanceM(new Coordinate(-9, lat), new Coordinate(-9, lat + 0.01));
      double north =
          utm.project(new Coordinate(-9, lat + 0.01)).orElseThrow().y
              - utm.project(new Coordinate(-9, lat)).orElseThrow().y;
      assertThat(north).isCloseTo(arc * 0.9996, within(1e-4));
    }
  }

  @Test
  void definitionsThatMakeNoSenseGiveNoSystem() {
    assertThat(CoordinateSystem.of("X", "+proj=nonsense")).isEmpty();
  }
}
