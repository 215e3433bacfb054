package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;

/** Files that GDAL wrote are read as GDAL means them; coordinate systems agree with PROJ. */
class GdalFilesTest {
  @TempDir static Path home;
  private static Path base;

  @BeforeAll
  static void aFileOfOurOwn() throws Exception {
    base = home.resolve("base.geojson");
    String polygon =
        "{\"type\":\"MultiPolygon\",\"coordinates\":[[[[-1.5,52.5],[-1.4,52.5],[-1.4,52.6],[-1.5,52.6],[-1.5,52.5]],[[-1.48,52.52],[-1.48,52.54],[-1.46,52.54],[-1.46,52.52],[-1.48,52.52]]],[[[-1.3,52.5],[-1.2,52.5],[-1.2,52.6],[-1.3,52.5]]]]}";
    Files.writeString(
        base,
        "{\"type\":\"FeatureCollection\",\"features\":["
            + "{\"type\":\"Feature\",\"properties\":{\"name\":\"Straße é\",\"n\":7,\"d\":0.5,\"day\":\"2026-05-04\",\"at\":\"2026-05-04T09:30:00Z\"},\"geometry\":"
            + polygon
            + "},"
            + "{\"type\":\"Feature\",\"properties\":{\"name\":null,\"n\":null,\"d\":null,\"day\":null,\"at\":null},\"geometry\":null}]}");
  }

  @ParameterizedTest
  @CsvSource({
    "gpkg,GPKG,27700",
    "gpkg,GPKG,4326",
    "gpkg,GPKG,25832",
    "shp,ESRI Shapefile,27700",
    "shp,ESRI Shapefile,32630",
    "shp,ESRI Shapefile,3857",
    "geojson,GeoJSON,4326",
    "geojsonl,GeoJSONSeq,4326",
    "kml,KML,4326"
  })
  void isRead(String ending, String driver, String epsg, @TempDir Path tmp) throws Exception {
    Path file = tmp.resolve("made." + ending);
    Gdal.convert(base, file, "-f", driver, "-t_srs", "EPSG:" + epsg, "-nlt", "MULTIPOLYGON");
    List<Path> files = new ArrayList<>();
    try (var all = Files.list(tmp)) {
      files.addAll(all.filter(Files::isRegularFile).toList());
    }
    Sources.Opened opened = Gdal.open(tmp.resolve("s"), files.toArray(new Path[0]));
    List<RawFeature> back = Gdal.features(opened);
    CoordinateSystem system = opened.sources().get(0).layers().get(0).system().orElseThrow();
    assertThat(system.code()).isEqualTo("EPSG:" + epsg);
    RawFeature f = back.get(0);
    assertThat(f.properties().get("name").plain()).isEqualTo("Straße é");
    Geometry expected =
        new WKTReader()
            .read(
                "MULTIPOLYGON (((-1.5 52.5, -1.4 52.5, -1.4 52.6, -1.5 52.6, -1.5 52.5), (-1.48 52.52, -1.48 52.54, -1.46 52.54, -1.46 52.52, -1.48 52.52)), ((-1.3 52.5, -1.2 52.5, -1.2 52.6, -1.3 52.5)))");
    // metres of the system against PROJ's: below a centimetre
    Geometry ours = system.toWgs84(f.geometry().orElseThrow());
    assertThat(
            org.locationtech.jts.algorithm.distance.DiscreteHausdorffDistance.distance(
                ours.getBoundary(), expected.getBoundary()))
        .isLessThan(1e-7);
    assertThat(ours.symDifference(expected).getArea()).isLessThan(1e-7);
    if (!ending.equals("kml")) {
      assertThat(Reading.PLAIN.read(f.properties().get("n"), FieldType.WHOLE))
          .isEqualTo(Value.of(7));
      assertThat(Reading.PLAIN.read(f.properties().get("d"), FieldType.DECIMAL))
          .isEqualTo(Value.of(0.5));
      assertThat(f.properties().get("day").plain().replace('/', '-')).startsWith("2026-05-04");
      assertThat(back.get(1).geometry()).isEmpty();
      assertThat(back.get(1).properties().get("n")).isEqualTo(Value.EMPTY);
    }
  }

  @Test
  void aShapefileOfLatinOneWithHeightsIsRead(@TempDir Path tmp) throws Exception {
    Path file = tmp.resolve("z.shp");
    Path source = tmp.resolve("z.geojson");
    Files.writeString(
        source,
        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"Größe\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[-10.2,57.9,12.5]}}]}");
    Gdal.convert(
        source,
        file,
        "-f",
        "ESRI Shapefile",
        "-lco",
        "ENCODING=ISO-8859-1",
        "-t_srs",
        "EPSG:32629");
    Sources.Opened o =
        Gdal.open(
            tmp.resolve("s"),
            file,
            tmp.resolve("z.dbf"),
            tmp.resolve("z.prj"),
            tmp.resolve("z.cpg"));
    RawFeature f = Gdal.features(o).get(0);
    Source.SourceLayer l = o.sources().get(0).layers().get(0);
    assertThat(English.of(l.notes())).singleElement().asString().contains("heights or measures");
    assertThat(English.of(l.encoding())).contains("by the .cpg");
    assertThat(f.properties().get("name")).isEqualTo(Value.text("Größe"));
    Coordinate c = l.system().orElseThrow().toWgs84(f.geometry().orElseThrow()).getCoordinate();
    assertThat(c.x).isEqualTo(-10.2, org.assertj.core.api.Assertions.within(1e-8));
    // without its .cpg the driver byte of the .dbf says it
    Sources.Opened without =
        Gdal.open(tmp.resolve("t"), file, tmp.resolve("z.dbf"), tmp.resolve("z.prj"));
    assertThat(Gdal.features(without).get(0).properties().get("name"))
        .isEqualTo(Value.text("Größe"));
  }

  @Test
  void tablesAndTracksAreRead(@TempDir Path tmp) throws Exception {
    Path points = tmp.resolve("p.geojson");
    Files.writeString(
        points,
        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"a, \\\"b\\\"\",\"n\":3,\"day\":\"2026-05-04\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[-10.2,57.9]}}]}");
    Path xlsx = tmp.resolve("p.xlsx");
    Gdal.convert(points, xlsx, "-f", "XLSX");
    RawFeature x = Gdal.features(Gdal.open(tmp.resolve("s"), xlsx)).get(0);
    assertThat(x.properties())
        .containsEntry("name", Value.text("a, \"b\""))
        .containsEntry("n", Value.of(3));
    assertThat(x.properties().get("day").plain()).isEqualTo("2026-05-04");
    Path csv = tmp.resolve("p.csv");
    Gdal.convert(points, csv, "-f", "CSV", "-lco", "GEOMETRY=AS_XY", "-lco", "SEPARATOR=SEMICOLON");
    RawFeature c = Gdal.features(Gdal.open(tmp.resolve("t"), csv)).get(0);
    assertThat(c.properties())
        .containsEntry("name", Value.text("a, \"b\""))
        .containsEntry("X", Value.text("-10.2"));
    Path gpx = tmp.resolve("p.gpx");
    Gdal.convert(points, gpx, "-f", "GPX", "-select", "name");
    RawFeature g = Gdal.features(Gdal.open(tmp.resolve("u"), gpx)).get(0);
    assertThat(g.geometry().orElseThrow().getCoordinate()).isEqualTo(new Coordinate(-10.2, 57.9));
    assertThat(g.properties()).containsEntry("name", Value.text("a, \"b\""));
  }

  /** PROJ's cs2cs (proj-bin) as the other side; 2193 has northing first there. */
  @ParameterizedTest
  @ValueSource(ints = {27700, 25832, 32630, 3857, 2193, 28355, 32629})
  void coordinateSystemsAgreeWithProj(int epsg) throws Exception {
    CoordinateSystem s = CoordinateSystems.epsg(epsg).orElseThrow();
    double[] near =
        Map.of(
                27700,
                new double[] {-2, 53},
                25832,
                new double[] {9, 50},
                32630,
                new double[] {-3, 53},
                3857,
                new double[] {10, 20},
                2193,
                new double[] {174, -41},
                28355,
                new double[] {147, -36},
                32629,
                new double[] {-9.5, 57.9})
            .get(epsg);
    Random random = new Random(epsg);
    StringBuilder in = new StringBuilder();
    List<Coordinate> points = new ArrayList<>();
    for (int i = 0; i < 200; i++) {
      Coordinate c =
          new Coordinate(
              near[0] + random.nextDouble() * 4 - 2, near[1] + random.nextDouble() * 4 - 2);
      points.add(c);
      in.append(String.format(Locale.ROOT, "%.12f %.12f%n", c.x, c.y));
    }
    String[] lines =
        Gdal.fed(
                in.toString(),
                "cs2cs",
                "-f",
                "%.5f",
                "+proj=longlat +datum=WGS84 +no_defs",
                "+to",
                "EPSG:" + epsg)
            .strip()
            .split("\n");
    for (int i = 0; i < points.size(); i++) {
      String[] xy = lines[i].trim().split("\\s+");
      Coordinate ours = s.project(points.get(i)).orElseThrow();
      double x = Double.parseDouble(xy[epsg == 2193 ? 1 : 0]);
      double y = Double.parseDouble(xy[epsg == 2193 ? 0 : 1]);
      assertThat(Math.hypot(ours.x - x, ours.y - y))
          .as("EPSG:%d at %s", epsg, points.get(i))
          // two operations of one datum may differ by what they state
          .isLessThanOrEqualTo(Math.max(0.005, s.accuracyM().orElse(0)));
      Coordinate back = s.unproject(ours).orElseThrow();
      assertThat(back.distance(points.get(i))).isLessThan(1e-7);
    }
  }

  /** The .prj that GDAL writes for a system (WKT 1 of its ESRI kind, without authorities). */
  @ParameterizedTest
  @ValueSource(
      ints = {
        27700, 25832, 32630, 3857, 2193, 28355, 32629, 2154, 28992, 21781, 31467, 3035, 2263, 4326,
        4258
      })
  void prjFilesAreUnderstood(int epsg, @TempDir Path tmp) throws Exception {
    String wkt = Gdal.run("gdalsrsinfo", "-o", "wkt_esri", "--single-line", "EPSG:" + epsg);
    CoordinateSystem ours = CoordinateSystems.wkt(wkt.strip()).orElseThrow();
    CoordinateSystem known = CoordinateSystems.epsg(epsg).orElseThrow();
    Map<Integer, double[]> at =
        Map.of(
            2154,
            new double[] {3, 46.5},
            28992,
            new double[] {5.4, 52.2},
            21781,
            new double[] {7.5, 47},
            31467,
            new double[] {9, 50},
            2263,
            new double[] {-74, 40.7},
            2193,
            new double[] {174, -41},
            28355,
            new double[] {147, -36},
            27700,
            new double[] {-2, 53});
    double[] c = at.getOrDefault(epsg, new double[] {9.5, 50});
    Coordinate a = ours.project(new Coordinate(c[0], c[1])).orElseThrow();
    Coordinate b = known.project(new Coordinate(c[0], c[1])).orElseThrow();
    assertThat(a.distance(b))
        .as(ours.code() + " " + ours.parameters() + " / " + known.parameters())
        .isLessThan(known.isInDegrees() ? 1e-8 : 0.01);
    assertThat(wkt).doesNotContain("AUTHORITY");
  }

  @Test
  void whatIsNoSystemIsNone() {
    assertThat(CoordinateSystems.wkt("hello")).isEmpty();
    assertThat(CoordinateSystems.wkt("PROJCS[\"x\",GEOGCS[")).isEmpty();
    assertThat(CoordinateSystems.wkt("[".repeat(10_000))).isEmpty();
    assertThat(CoordinateSystems.epsg(999_999)).isEmpty();
    assertThat(CoordinateSystems.code("EPSG:27700").map(CoordinateSystem::name))
        .contains("OSGB36 / British National Grid");
    assertThat(CoordinateSystems.find("utm 29n", 5))
        .extracting(CoordinateSystems.Choice::epsg)
        .contains(32629);
  }
}
