package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.said.English;

class ReshapingTest {
  private static Geometry g(String wkt) {
    try {
      return new WKTReader(GeometryJson.WGS84).read(wkt);
    } catch (org.locationtech.jts.io.ParseException e) {
      throw new IllegalArgumentException(e);
    }
  }

  @Test
  void aLineIsSplitWhereItComesNearest() {
    List<Geometry> two =
        Reshaping.split(g("LINESTRING (0 0, 2 0, 4 0)"), new Coordinate(3, 0.5)).orElseThrow();
    assertThat(two.get(0).toText())
        .startsWith("LINESTRING (0 0, 2 0, 3")
        .contains(", 3 0)".substring(0, 3));
    assertThat(two.get(1).getNumPoints()).isEqualTo(2);
    assertThat(two.get(1).getCoordinates()[1]).isEqualTo(new Coordinate(4, 0));
    assertThat(Reshaping.split(g("LINESTRING (0 0, 2 0)"), new Coordinate(-1, 0)))
        .as("at its end")
        .isEmpty();
    assertThat(Reshaping.split(g("POINT (0 0)"), new Coordinate(0, 0))).isEmpty();
  }

  @Test
  void splittingAtACornerMakesNoPointTwice() {
    List<Geometry> two =
        Reshaping.split(g("LINESTRING (0 0, 2 0, 4 0)"), new Coordinate(2, 0)).orElseThrow();
    assertThat(two.get(0).getNumPoints() + two.get(1).getNumPoints()).isEqualTo(4);
  }

  @Test
  void partsStayOnTheirSideOfTheSplit() {
    List<Geometry> two =
        Reshaping.split(
                g("MULTILINESTRING ((0 0, 1 0), (2 0, 4 0), (5 0, 6 0))"), new Coordinate(3, 0))
            .orElseThrow();
    assertThat(two.get(0).getNumGeometries()).isEqualTo(2);
    assertThat(two.get(1).getNumGeometries()).isEqualTo(2);
  }

  /** Nothing is lost: both sides together are as long as the whole. */
  @Test
  void bothSidesAreAsLongAsTheWhole() {
    Random r = new Random(12);
    for (int run = 0; run < 200; run++) {
      Coordinate[] c = new Coordinate[2 + r.nextInt(8)];
      for (int i = 0; i < c.length; i++)
        c[i] = new Coordinate(-10.2 + r.nextDouble() * 0.1, 57.9 + r.nextDouble() * 0.1);
      Geometry line = GeometryJson.WGS84.createLineString(c);
      Reshaping.split(
              line, new Coordinate(-10.2 + r.nextDouble() * 0.1, 57.9 + r.nextDouble() * 0.1))
          .ifPresent(
              two ->
                  assertThat(Geodesy.lengthM(two.get(0)) + Geodesy.lengthM(two.get(1)))
                      .isCloseTo(Geodesy.lengthM(line), within(0.05)));
    }
  }

  @Test
  void partsAndHolesComeAndGo() {
    Geometry square = g("POLYGON ((0 0, 10 0, 10 10, 0 10, 0 0))");
    Polygon inside = (Polygon) g("POLYGON ((2 2, 4 2, 4 4, 2 4, 2 2))");
    Geometry holed = Reshaping.withHole(square, inside).orElseThrow();
    assertThat(holed.getArea()).isEqualTo(96);
    assertThat(Reshaping.withHole(holed, inside)).as("in the hole").isEmpty();
    assertThat(Reshaping.withHole(square, (Polygon) g("POLYGON ((8 8, 12 8, 12 12, 8 12, 8 8))")))
        .isEmpty();
    assertThat(Reshaping.withHole(square, (Polygon) g("POLYGON ((2 2, 4 4, 4 2, 2 4, 2 2))")))
        .as("crosses itself")
        .isEmpty();
    assertThat(Reshaping.withoutHole(holed, new Coordinate(3, 3)).orElseThrow().getArea())
        .isEqualTo(100);
    assertThat(Reshaping.withoutHole(holed, new Coordinate(6, 6))).isEmpty();
    Geometry both = Reshaping.withPart(square, g("POLYGON ((20 0, 21 0, 21 1, 20 0))"));
    assertThat(both.getNumGeometries()).isEqualTo(2);
    assertThat(Reshaping.withoutPart(both, new Coordinate(20.5, 0.1)).orElseThrow().getArea())
        .isEqualTo(100);
    assertThat(Reshaping.withoutPart(square, new Coordinate(1, 1))).as("its only part").isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "POLYGON ((0 0, 2 2, 2 0, 0 2, 0 0))|POLYGON|the area crosses itself",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0), (9 9, 9 10, 10 9, 9 9))|POLYGON|a hole lies outside of the area",
        "MULTIPOLYGON (((0 0, 4 0, 4 4, 0 4, 0 0)), ((1 1, 2 1, 2 2, 1 1)))|POLYGON|two parts lie in each other",
        "POLYGON ((0 0, 1 1, 2 2, 0 0))|POLYGON|the area crosses itself",
        "LINESTRING (1 1, 1 1)|LINE|the line has no length",
        "POINT (1 1)|LINE|this layer holds line features, and this is none",
        "POINT EMPTY|POINT|nothing is drawn yet",
        "POINT (181 1)|POINT|a position lies outside of the world",
        "LINESTRING (0 0, 2 2, 2 0, 0 2)|LINE|",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0), (1 1, 2 1, 2 2, 1 1))|POLYGON|"
      })
  void faultsAreSaid(String wkt, GeometryKind kind, String fault) {
    assertThat(Reshaping.fault(g(wkt), kind).map(f -> English.of(f.message())))
        .isEqualTo(Optional.ofNullable(fault));
  }

  @Test
  void whatWasFaultyBeforeMayBeMendedStepByStep() {
    Geometry bow = g("POLYGON ((0 0, 2 2, 2 0, 0 2, 0 0))");
    Geometry sound = g("POLYGON ((0 0, 2 0, 2 2, 0 2, 0 0))");
    assertThat(Reshaping.refused(bow, Optional.empty(), GeometryKind.POLYGON)).isPresent();
    assertThat(Reshaping.refused(bow, Optional.of(sound), GeometryKind.POLYGON)).isPresent();
    assertThat(Reshaping.refused(bow, Optional.of(bow), GeometryKind.POLYGON)).isEmpty();
    assertThat(Reshaping.refused(sound, Optional.of(bow), GeometryKind.POLYGON)).isEmpty();
    Geometry worse = g("POLYGON ((0 0, 2 2, 4 0, 4 2, 2 0, 0 2, 0 0))");
    assertThat(Reshaping.refused(worse, Optional.of(bow), GeometryKind.POLYGON))
        .as("one crossing more")
        .isPresent();
    assertThat(Reshaping.refused(bow, Optional.of(worse), GeometryKind.POLYGON)).isEmpty();
    for (String never : List.of("POINT (1 1)", "POLYGON ((0 0, 200 0, 200 2, 0 2, 0 0))"))
      assertThat(Reshaping.refused(g(never), Optional.of(bow), GeometryKind.POLYGON))
          .as(never)
          .isPresent();
  }

  @Test
  void theFaultySpotIsKnown() {
    assertThat(
            Reshaping.fault(g("POLYGON ((0 0, 2 2, 2 0, 0 2, 0 0))"), GeometryKind.POLYGON)
                .orElseThrow()
                .at())
        .contains(new Coordinate(1, 1));
  }

  /** The corners alone are those of each other: such a change was written nowhere. */
  @Test
  void aHoleIsNotAPartAndTwoLinesAreNotOne() {
    Geometry hole =
        g(
            "MULTIPOLYGON (((0 0, 9 0, 9 9, 0 9, 0 0), (1 1, 2 1, 2 2, 1 1)), ((20 0, 21 0, 21 1, 20 0)))");
    Geometry parts =
        g(
            "MULTIPOLYGON (((0 0, 9 0, 9 9, 0 9, 0 0)), ((1 1, 2 1, 2 2, 1 1), (20 0, 21 0, 21 1, 20 0)))");
    assertThat(hole.getCoordinates()).isEqualTo(parts.getCoordinates());
    assertThat(SamePlace.of(hole, parts, 8)).isFalse();
    assertThat(SamePlace.of(hole, hole.copy(), 8)).isTrue();
    assertThat(
            SamePlace.of(
                g("MULTILINESTRING ((0 0, 1 1, 2 2), (3 3, 4 4))"),
                g("MULTILINESTRING ((0 0, 1 1), (2 2, 3 3, 4 4))"),
                8))
        .isFalse();
    assertThat(
            PlaneNearest.distanceM(g("POLYGON ((0 0, 2 0, 2 2, 0 2, 0 0))"), new Coordinate(1, 1)))
        .isLessThan(0.001);
  }
}
