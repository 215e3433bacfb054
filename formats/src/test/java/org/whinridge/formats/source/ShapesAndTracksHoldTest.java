package org.whinridge.formats.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.Gdal;
import org.whinridge.formats.Sources;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.shapefile.ShapefileWriter;

/** What GeoJSON, GPX and Shapefiles hold beside the plain features, and what becomes of it. */
class ShapesAndTracksHoldTest {
  @TempDir Path home;

  private Sources.Opened open(Path... files) throws Exception {
    return Gdal.open(Files.createTempDirectory(home, "s"), files);
  }

  @Test
  void theIdOfAFeatureAndHeightsAreOfferedAside() throws Exception {
    Path f =
        Files.writeString(
            home.resolve("a.geojson"),
            """
            {"type":"FeatureCollection","features":[
             {"type":"Feature","id":"F7","geometry":{"type":"Point","coordinates":[-10,57,3.5]},"properties":{"id":1}},
             {"type":"Feature","id":8,"geometry":{"type":"LineString","coordinates":[[0,0,1],[1,1,9]]},"properties":{}}]}
            """);
    Sources.Opened o = open(f);
    List<RawFeature> all = Gdal.features(o);
    assertThat(all.get(0).properties())
        .containsEntry("feature id", Value.text("F7"))
        .containsEntry("id", Value.of(1))
        .containsEntry("geometry z", Value.of(3.5));
    assertThat(all.get(1).properties())
        .containsEntry("feature id", Value.of(8))
        .containsEntry("geometry z least", Value.of(1))
        .containsEntry("geometry z greatest", Value.of(9));
    assertThat(o.sources().get(0).layers().get(0).aside())
        .contains("feature id", "geometry z")
        .doesNotContain("id");
  }

  @Test
  void textSequencesWithTheirSeparatorsAreRead() throws Exception {
    // RFC 8142, section 2: each text begins with RS and ends with a line feed
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < 3; i++)
      b.append('\u001e')
          .append("{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[")
          .append(i)
          .append(",57]},\"properties\":{\"n\":")
          .append(i)
          .append("}}\n");
    Path f = Files.writeString(home.resolve("a.geojsons"), b.toString());
    assertThat(Gdal.features(open(f))).hasSize(3);
    assertThat(Gdal.info(f)).contains("Feature Count: 3");
  }

  @Test
  void messagesOfJsonNameNoParser() throws Exception {
    String deep =
        "{\"type\":\"Feature\",\"properties\":" + "{\"a\":".repeat(80) + "1" + "}".repeat(82);
    for (String bad :
        List.of(
            deep,
            "{\"type\":\"FeatureCollection\",\"features\":[{\"a\":NaN}]}",
            "{\"type\": x}",
            "{\"a\":[1,")) {
      Path f = Files.writeString(Files.createTempFile(home, "a", ".geojson"), bad);
      Sources.Opened o = open(f);
      String why;
      try {
        Gdal.features(o);
        why = English.of(o.notUnderstood().get(0).why());
      } catch (FileProblem e) {
        why = English.of(e);
      }
      assertThat(why)
          .startsWith("This is not sound JSON")
          .doesNotContainIgnoringCase(
              "token", "feature`", "parser", "document nesting", "Jackson", "enable");
    }
  }

  @Test
  void extensionsAndHeightsOfGpxAreKept() throws Exception {
    Path f =
        Files.writeString(
            home.resolve("a.gpx"),
            """
            <gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="t">
            <wpt lat="57.9" lon="-10.2"><ele>3</ele><name>W</name><link href="https://example.org/w"/><extensions><x:depth xmlns:x="u">4.2</x:depth><x:gate xmlns:x="u"><x:kind>flap</x:kind><x:name>G</x:name></x:gate></extensions></wpt>
            <trk><name>T</name><extensions><x:team xmlns:x="u">two</x:team></extensions><trkseg><trkpt lat="57" lon="-10"><ele>1</ele><extensions><hr>90</hr></extensions></trkpt><trkpt lat="58" lon="-10"><ele>7</ele></trkpt></trkseg></trk>
            </gpx>
            """);
    Sources.Opened o = open(f);
    List<RawFeature> all = Gdal.features(o);
    assertThat(all.get(0).properties())
        .containsEntry("depth", Value.text("4.2"))
        .containsEntry("kind", Value.text("flap"))
        .containsEntry("name", Value.text("W"))
        .containsEntry("gate_name", Value.text("G"))
        .containsEntry("link", Value.text("https://example.org/w"));
    assertThat(all.get(1).properties())
        .containsEntry("team", Value.text("two"))
        .containsEntry("geometry z least", Value.of(1))
        .containsEntry("geometry z greatest", Value.of(7));
    assertThat(English.of(o.sources().get(0).layers().get(1).notes()))
        .singleElement()
        .asString()
        .contains("a line can't hold them");
    assertThat(English.of(o.sources().get(0).layers().get(0).notes())).isEmpty();
  }

  @Test
  void heightsAndMeasuresOfShapefilesAreOffered() throws Exception {
    Path csv = Files.writeString(home.resolve("z.csv"), "n,w\n1,\"POINT ZM (1 2 3 4)\"\n");
    Path lines =
        Files.writeString(
            home.resolve("l.csv"), "n,w\n1,\"LINESTRING ZM (0 0 5 1, 1 1 6 2, 2 2 9 3)\"\n");
    for (Path p : List.of(csv, lines)) {
      Path shp = home.resolve(p.getFileName().toString().replace(".csv", ".shp"));
      Gdal.convert(
          p,
          shp,
          "-oo",
          "GEOM_POSSIBLE_NAMES=w",
          "-oo",
          "KEEP_GEOM_COLUMNS=NO",
          "-a_srs",
          "EPSG:4326");
      Sources.Opened o = open(parts(shp));
      RawFeature f = Gdal.features(o).get(0);
      assertThat(o.sources().get(0).layers().get(0).notes()).contains(ZAndM.NOTE);
      if (p == csv)
        assertThat(f.properties())
            .containsEntry("geometry z", Value.of(3))
            .containsEntry("geometry m", Value.of(4));
      else
        assertThat(f.properties())
            .containsEntry("geometry z least", Value.of(5))
            .containsEntry("geometry z greatest", Value.of(9))
            .containsEntry("geometry m least", Value.of(1))
            .containsEntry("geometry m greatest", Value.of(3));
    }
  }

  private static Path[] parts(Path shp) throws Exception {
    String stem = shp.getFileName().toString().replaceAll("\\..*", "");
    try (var all = Files.list(shp.getParent())) {
      return all.filter(
              p ->
                  p.getFileName().toString().startsWith(stem + ".")
                      || p.getFileName().toString().startsWith(stem + "_"))
          .filter(p -> !p.toString().endsWith(stem + ".csv"))
          .toArray(Path[]::new);
    }
  }

  @Test
  void aShapefileWithoutTableComesInWithoutAttributesAndATableWithoutShapesAsOne()
      throws Exception {
    Path csv =
        Files.writeString(home.resolve("z.csv"), "n,w\n7,\"POINT (1 2)\"\n8,\"POINT (3 4)\"\n");
    Path shp = home.resolve("z.shp");
    Gdal.convert(
        csv,
        shp,
        "-oo",
        "GEOM_POSSIBLE_NAMES=w",
        "-oo",
        "KEEP_GEOM_COLUMNS=NO",
        "-a_srs",
        "EPSG:4326");
    Sources.Opened shapes = open(shp, home.resolve("z.prj"));
    assertThat(Gdal.features(shapes)).hasSize(2).allMatch(f -> f.geometry().isPresent());
    assertThat(English.of(shapes.sources().get(0).layers().get(0).notes()))
        .singleElement()
        .asString()
        .contains(".dbf that belongs to it is missing");
    Sources.Opened table = open(home.resolve("z.dbf"));
    assertThat(table.sources().get(0).layers().get(0).table()).isTrue();
    assertThat(Gdal.features(table))
        .extracting(f -> f.properties().get("n").plain())
        .containsExactly("7", "8");
  }

  @Test
  void theOwnZipComesBackWithWholeNamesAndWholeTexts() throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(
                Field.of("description_of_damage", "What is damaged?", FieldType.TEXT),
                Field.of("description_of_repair", "What was done?", FieldType.TEXT)),
            "",
            List.of());
    OutLayer out =
        new OutLayer(
            "Flaps",
            schema,
            OutColumns.Codes.values()[0],
            CoordinateSystem.wgs84(),
            Set.of(),
            false);
    String text = "é".repeat(200) + " and the end";
    try (ShapefileWriter w = new ShapefileWriter(home, "Flaps", out, LocalDate.of(2026, 5, 4))) {
      for (int i = 0; i < 3; i++)
        w.add(
            new Feature(
                "00000000-0000-0000-0000-00000000000" + i,
                Optional.of(
                    GeometryJson.WGS84.createPoint(
                        new org.locationtech.jts.geom.Coordinate(i, 57))),
                Map.of(
                    "description_of_damage", Value.text(i == 1 ? text : "short " + i),
                    "description_of_repair", Value.text("=none")),
                1));
    }
    Sources.Opened o = open(parts(home.resolve("Flaps.shp")));
    assertThat(o.sources()).as("the tables beside it are no layers").hasSize(1);
    assertThat(o.notUnderstood()).isEmpty();
    List<RawFeature> all = Gdal.features(o);
    assertThat(all.get(1).properties())
        .containsEntry("description_of_damage", Value.text(text))
        .containsEntry("description_of_repair", Value.text("=none"));
    assertThat(all.get(2).properties())
        .containsEntry("description_of_damage", Value.text("short 2"));
    assertThat(
            o.sources()
                .get(0)
                .layers()
                .get(0)
                .described()
                .get()
                .field("description_of_repair")
                .get()
                .label())
        .isEqualTo("What was done?");
  }

  @Test
  void whatAColumnCantHoldIsWrittenAllTheSameAndTheRestComesOut() throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(
                Field.of("load", "Load", FieldType.DECIMAL),
                Field.of("seen", "Seen", FieldType.DATE)),
            "",
            List.of());
    OutLayer out =
        new OutLayer(
            "Wide",
            schema,
            OutColumns.Codes.values()[0],
            CoordinateSystem.wgs84(),
            Set.of(),
            false);
    try (ShapefileWriter w = new ShapefileWriter(home, "Wide", out, LocalDate.of(2026, 5, 4))) {
      double[] loads = {1.5, 1e300, -2.25e-200};
      for (int i = 0; i < 3; i++)
        w.add(
            new Feature(
                "00000000-0000-0000-0000-00000000000" + i,
                Optional.of(
                    GeometryJson.WGS84.createPoint(
                        new org.locationtech.jts.geom.Coordinate(i, 57))),
                Map.of(
                    "load",
                    Value.of(loads[i]),
                    "seen",
                    new Value.Day(LocalDate.of(i == 2 ? 12_026 : 2026, 5, 4))),
                1));
    }
    assertThat(Gdal.info(home.resolve("Wide.shp")))
        .contains("load (Real) = 10000000000000000525"); // 1e300, as digits
    List<RawFeature> all = Gdal.features(open(parts(home.resolve("Wide.shp"))));
    assertThat(all).hasSize(3);
    assertThat(all.get(1).properties()).containsEntry("load", Value.of(1e300));
    assertThat(all.get(0).properties())
        .containsEntry("seen", new Value.Day(LocalDate.of(2026, 5, 4)));
    assertThat(all.get(2).properties().get("seen").plain()).contains("12026-05-04");
  }

  @Test
  void longNamesKeepTheirEndingAndManyProblemsAreSummedUp() throws Exception {
    assertThat(FileNames.shown("x".repeat(200) + ".geojson")).hasSize(120).endsWith(".geojson");
    Path zip = home.resolve("many.zip");
    try (var z = new java.util.zip.ZipOutputStream(Files.newOutputStream(zip))) {
      for (int i = 0; i < 19_000; i++) {
        z.putNextEntry(new java.util.zip.ZipEntry("f" + i + ".bin"));
        z.write(new byte[] {1, 0, 2});
      }
    }
    Sources.Opened o = open(zip);
    assertThat(o.notUnderstood()).hasSize(4);
    assertThat(English.of(o.notUnderstood().get(3).name())).isEqualTo("18,997 more files");
  }
}
