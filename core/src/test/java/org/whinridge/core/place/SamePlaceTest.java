package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.io.WKTReader;

class SamePlaceTest {
  private static Geometry wkt(String s) throws Exception {
    return new WKTReader(GeometryJson.WGS84).read(s);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0)) | POLYGON ((4 4, 0 4, 0 0, 4 0, 4 4))",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0)) | POLYGON ((0 0, 0 4, 4 4, 4 0, 0 0))",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0)) | MULTIPOLYGON (((0 0, 4 0, 4 4, 0 4, 0 0)))",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0)) | POLYGON ((2 0, 4 0, 4 4, 0 4, 0 0, 2 0))",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0), (1 1, 2 1, 2 2, 1 1), (3 3, 3.5 3, 3.5 3.5, 3 3)) | POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0), (3 3, 3.5 3, 3.5 3.5, 3 3), (2 1, 1 1, 2 2, 2 1))",
        "LINESTRING (0 0, 4 0, 4 4) | LINESTRING (0 0, 1 0, 4 0, 4 2, 4 4)",
        "LINESTRING (0 0, 4 0) | MULTILINESTRING ((0 0, 4 0))",
        "MULTIPOINT (1 1, 2 2) | MULTIPOINT (2 2, 1 1)",
        "POINT (180 10) | POINT (-180 10)",
        "POINT (1.00000001 2) | POINT (1 2)",
      })
  void oneplaceWrittenInTwoWays(String a, String b) throws Exception {
    assertThat(SamePlace.of(wkt(a), wkt(b), 7)).isTrue();
    assertThat(SamePlace.of(wkt(b), wkt(a), 7)).isTrue();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "MULTILINESTRING ((0 0, 1 0), (1 0, 2 0)) | LINESTRING (0 0, 1 0, 2 0)",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0), (1 1, 2 1, 2 2, 1 1)) | MULTIPOLYGON (((0 0, 4 0, 4 4, 0 4, 0 0)), ((1 1, 2 1, 2 2, 1 1)))",
        "LINESTRING (0 0, 4 0) | LINESTRING (4 0, 0 0)",
        "LINESTRING (0 0, 4 0) | LINESTRING (0 0, 3 0, 2 0, 4 0)",
        "LINESTRING (0 0, 2 0, 4 0) | LINESTRING (0 0, 2 0.001, 4 0)",
        "POINT (1 2) | MULTIPOINT (1 2, 1 2)",
        "POINT (1.000001 2) | POINT (1 2)",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0)) | POLYGON ((0 0, 4 0, 4 4, 2 3.9, 0 4, 0 0))",
        "POLYGON ((0 0, 4 0, 4 4, 0 4, 0 0)) | LINESTRING (0 0, 4 0, 4 4, 0 4, 0 0)",
      })
  void twoPlaces(String a, String b) throws Exception {
    assertThat(SamePlace.of(wkt(a), wkt(b), 7)).isFalse();
    assertThat(SamePlace.of(wkt(b), wkt(a), 7)).isFalse();
  }

  @Test
  void ringsTurnedAndReversedAtRandomStayOnePlaceAndAMovedCornerIsSeen() {
    Random r = new Random(7);
    for (int n = 0; n < 2_000; n++) {
      int corners = 3 + r.nextInt(30);
      Coordinate[] ring = new Coordinate[corners + 1];
      for (int i = 0; i < corners; i++) {
        double angle = 2 * Math.PI * i / corners;
        double d = 0.01 + r.nextDouble() * 0.01;
        ring[i] = new Coordinate(-10 + d * Math.cos(angle), 57 + d * Math.sin(angle));
      }
      ring[corners] = ring[0];
      int from = r.nextInt(corners);
      Coordinate[] other = new Coordinate[corners + 1];
      boolean back = r.nextBoolean();
      for (int i = 0; i <= corners; i++)
        other[i] = ring[Math.floorMod(from + (back ? -i : i), corners)].copy();
      Polygon a = GeometryJson.WGS84.createPolygon(ring);
      assertThat(SamePlace.of(a, GeometryJson.WGS84.createPolygon(other), 7)).isTrue();
      int moved = 1 + r.nextInt(corners - 1);
      other[moved] = new Coordinate(other[moved].x + 1e-5, other[moved].y + 1e-5);
      assertThat(SamePlace.of(a, GeometryJson.WGS84.createPolygon(other), 7)).isFalse();
    }
  }
}
