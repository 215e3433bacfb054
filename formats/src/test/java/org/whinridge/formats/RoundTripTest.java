package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.WKTReader;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.profile.PlaceColumns;
import org.whinridge.core.value.Value;
import org.whinridge.formats.crs.CoordinateSystems;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.geojson.GeoJsonWriter;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.kml.KmlWriter;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.shapefile.ShapefileWriter;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.xlsx.XlsxWriter;

/** What is written comes back the same through our readers, and GDAL reads it too. */
class RoundTripTest {
  private static final List<Field> FIELDS =
      List.of(
          Field.of("name", "Name", FieldType.TEXT),
          Field.of("whole_number", "Whole", FieldType.WHOLE),
          Field.of("whole_number_2", "Whole 2", FieldType.WHOLE),
          Field.of("share", "Share", FieldType.DECIMAL),
          Field.of("ok", "Ok", FieldType.YES_NO),
          Field.of("day", "Day", FieldType.DATE),
          Field.of("at", "At", FieldType.DATE_TIME),
          Field.of("kind", "Kind", FieldType.CODE)
              .with(List.of(Code.of("flap", "Tide flap"), Code.of("weir", "Weir"))),
          Field.of("many", "Many", FieldType.CODES));

  private static Schema schema(GeometryKind kind) {
    return new Schema(kind, FIELDS, "", List.of("name"));
  }

  private static List<Feature> features(GeometryKind kind) throws Exception {
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("name", Value.text("Straße Łódź 東京 'q' \"d\", <b>; =1+1"));
    v.put("whole_number", Value.of(9007199254740991d));
    v.put("whole_number_2", Value.of(-3));
    v.put("share", Value.of(1 / 7.0));
    v.put("ok", Value.NO);
    v.put("day", new Value.Day(LocalDate.of(2026, 5, 4)));
    v.put("at", new Value.Moment(Instant.parse("2026-05-04T09:30:15Z")));
    v.put("kind", Value.text("flap"));
    v.put("many", Value.many(List.of(Value.text("a"), Value.text("b"))));
    Map<String, Value> formula = Map.of("name", Value.text("=HYPERLINK(\"x\")"));
    String[] wkt =
        kind == GeometryKind.POINT
            ? new String[] {"POINT (-10.2 57.9)", "POINT (-10.123456789 57.987654321)"}
            : kind == GeometryKind.LINE
                ? new String[] {
                  "LINESTRING (-10.2 57.9, -10.1 57.95)",
                  "MULTILINESTRING ((-10 57, -9 58), (-8 57, -7 57.5))"
                }
                : new String[] {
                  "POLYGON ((-10 57, -9 57, -9 58, -10 58, -10 57), (-9.8 57.2, -9.8 57.4, -9.6 57.4, -9.6 57.2, -9.8 57.2))",
                  "MULTIPOLYGON (((-10 57, -9 57, -9 58, -10 57)), ((-8 57, -7 57, -7 58, -8 57)))"
                };
    List<Feature> out = new ArrayList<>();
    out.add(feature(1, wkt[0], v));
    out.add(feature(2, wkt[1], formula));
    out.add(feature(3, null, Map.of("name", Value.text("nowhere"))));
    return out;
  }

  private static Feature feature(int n, String wkt, Map<String, Value> values) throws Exception {
    Optional<Geometry> g =
        wkt == null ? Optional.empty() : Optional.of(new WKTReader(GeometryJson.WGS84).read(wkt));
    return new Feature(String.valueOf(n).repeat(8) + "-1111-4111-8111-111111111111", g, values, 1);
  }

  /** Writes a layer in a format; gives the files to be brought. */
  private static List<Path> write(
      String format, Path folder, OutLayer layer, List<Feature> features) throws Exception {
    Path file = folder.resolve("out." + format);
    if (format.equals("shp")) {
      try (ShapefileWriter w =
          new ShapefileWriter(folder, "out", layer, LocalDate.of(2026, 5, 4))) {
        for (Feature f : features) w.add(f);
      }
      List<Path> parts = new ArrayList<>();
      for (String e : List.of("shp", "dbf", "prj", "cpg", "shx"))
        parts.add(folder.resolve("out." + e));
      return parts;
    }
    if (format.equals("gpkg")) {
      try (GeoPackageWriter g = new GeoPackageWriter(file);
          LayerWriter w = g.layer(layer)) {
        for (Feature f : features) w.add(f);
      }
      return List.of(file);
    }
    try (OutputStream out = Files.newOutputStream(file)) {
      switch (format) {
        case "kml" -> {
          try (KmlWriter k = new KmlWriter(out, "x");
              LayerWriter w = k.layer(layer)) {
            for (Feature f : features) w.add(f);
          }
        }
        case "xlsx" -> {
          try (XlsxWriter k = new XlsxWriter(out);
              LayerWriter w = k.layer(layer, true)) {
            for (Feature f : features) w.add(f);
          }
        }
        default -> {
          try (LayerWriter w =
              format.equals("csv")
                  ? new CsvWriter(out, layer, true)
                  : new GeoJsonWriter(out, layer)) {
            for (Feature f : features) w.add(f);
          }
        }
      }
    }
    return List.of(file);
  }

  private static OutLayer out(GeometryKind kind, CoordinateSystem system, boolean multi) {
    return new OutLayer("Out", schema(kind), OutColumns.Codes.CODES, system, Set.of(), multi);
  }

  static Stream<Arguments> formatsAndKinds() {
    return Stream.of("gpkg", "shp", "geojson", "kml", "csv", "xlsx")
        .flatMap(
            f ->
                Stream.of(GeometryKind.POINT, GeometryKind.LINE, GeometryKind.POLYGON)
                    .map(k -> Arguments.of(f, k)));
  }

  @ParameterizedTest
  @MethodSource("formatsAndKinds")
  void valuesNullsDatesAndPlacesComeBack(String format, GeometryKind kind, @TempDir Path tmp)
      throws Exception {
    List<Feature> features = features(kind);
    OutLayer layer = out(kind, CoordinateSystem.wgs84(), false);
    List<Path> files = write(format, tmp, layer, features);
    List<RawFeature> back = Gdal.features(Gdal.open(tmp.resolve("s"), files.toArray(new Path[0])));
    Map<String, String> names =
        format.equals("shp") ? ShapefileWriter.shortNames(layer.columns()) : Map.of();
    assertThat(back).hasSize(3);
    for (int i = 0; i < 3; i++) {
      Feature f = features.get(i);
      RawFeature r = back.get(i);
      Optional<Geometry> g = r.geometry();
      if (List.of("csv", "xlsx").contains(format))
        g = new PlaceColumns("", "", "wkt", true).place(r.properties());
      assertThat(g.isPresent()).as("place of " + i).isEqualTo(f.geometry().isPresent());
      if (g.isPresent()) assertThat(g.get().equalsTopo(f.geometry().get())).isTrue();
      for (Field field : FIELDS) {
        if (format.equals("kml") && field.name().equals("name"))
          continue; // the caption, as tested by GDAL
        Value raw =
            r.properties()
                .getOrDefault(names.getOrDefault(field.name(), field.name()), Value.EMPTY);
        assertThat(Reading.PLAIN.read(raw, field.type()))
            .as(format + " " + field.name() + " of " + i)
            .isEqualTo(f.value(field.name()));
      }
    }
  }

  @ParameterizedTest
  @MethodSource("formatsAndKinds")
  void gdalReadsIt(String format, GeometryKind kind, @TempDir Path tmp) throws Exception {
    OutLayer layer = out(kind, CoordinateSystem.wgs84(), false);
    Path file = write(format, tmp, layer, features(kind)).get(0);
    String all = Gdal.info(file);
    assertThat(all).contains("Feature Count: 3", "Straße Łódź 東京 'q' \"d\", <b>; =1+1", "flap");
    assertThat(all).containsAnyOf("2026/05/04", "2026-05-04");
    assertThat(all).contains("0.1428571428571"); // 1/7, at least 13 decimals
    String word =
        kind == GeometryKind.POINT
            ? "POINT (-10.2 57.9)"
            : kind == GeometryKind.LINE ? "LINESTRING" : "POLYGON";
    assertThat(all).contains(word);
    if (!format.equals("xlsx"))
      assertThat(all)
          .contains("9007199254740991"); // GDAL shows a workbook's numbers with 15 digits
  }

  @ParameterizedTest
  @MethodSource("formatsAndKinds")
  void otherSystemsAreWrittenAndReadBack(String format, GeometryKind kind, @TempDir Path tmp)
      throws Exception {
    if (format.equals("kml")) return; // always WGS 84
    CoordinateSystem utm = CoordinateSystems.epsg(32629).orElseThrow();
    List<Feature> features = features(kind);
    List<Path> files = write(format, tmp, out(kind, utm, false), features);
    Sources.Opened opened = Gdal.open(tmp.resolve("s"), files.toArray(new Path[0]));
    List<RawFeature> back = Gdal.features(opened);
    boolean table = List.of("csv", "xlsx").contains(format);
    if (!table)
      assertThat(opened.sources().get(0).layers().get(0).system().orElseThrow().code())
          .isEqualTo("EPSG:32629");
    for (int i = 0; i < 2; i++) {
      Optional<Geometry> g =
          table
              ? new PlaceColumns("", "", "wkt", false).place(back.get(i).properties())
              : back.get(i).geometry();
      Geometry world = utm.toWgs84(g.orElseThrow());
      assertThat(
              world.equalsExact(features.get(i).geometry().orElseThrow().norm(), 1e-8)
                  || world
                      .norm()
                      .equalsExact(features.get(i).geometry().orElseThrow().norm(), 1e-8))
          .isTrue();
    }
    if (List.of("gpkg", "shp", "geojson").contains(format))
      assertThat(Gdal.info(files.get(0))).contains("UTM zone 29N", "32629");
  }

  @Test
  void shapefileNamesAreCutAndToldInATable(@TempDir Path tmp) throws Exception {
    write(
        "shp",
        tmp,
        out(GeometryKind.POINT, CoordinateSystem.wgs84(), false),
        features(GeometryKind.POINT));
    assertThat(Files.readString(tmp.resolve("out_names.csv")))
        .contains("whole_numb,whole_number,\"Whole\"", "whole_nu_1,whole_number_2,\"Whole 2\"");
  }

  @Test
  void labelsOrBothStandUnderPlainNames(@TempDir Path tmp) throws Exception {
    OutLayer both =
        new OutLayer(
            "Out",
            schema(GeometryKind.POINT),
            OutColumns.Codes.BOTH,
            CoordinateSystem.wgs84(),
            Set.of(),
            false);
    Path file = write("csv", tmp, both, features(GeometryKind.POINT)).get(0);
    assertThat(Files.readString(file)).contains("kind,kind_label,many", "flap,Tide flap,");
    OutLayer labels =
        new OutLayer(
            "Out",
            schema(GeometryKind.POINT),
            OutColumns.Codes.LABELS,
            CoordinateSystem.wgs84(),
            Set.of(),
            false);
    assertThat(Files.readString(write("geojson", tmp, labels, features(GeometryKind.POINT)).get(0)))
        .contains("\"kind\":\"Tide flap\"")
        .doesNotContain("kind_label");
  }

  @Test
  void aSpreadsheetNeverSeesAFormula(@TempDir Path tmp) throws Exception {
    Path csv =
        write(
                "csv",
                tmp,
                out(GeometryKind.POINT, CoordinateSystem.wgs84(), false),
                features(GeometryKind.POINT))
            .get(0);
    assertThat(Files.readString(csv)).contains("\"'=HYPERLINK(\"\"x\"\")\"");
  }

  @Test
  void severalLayersFitIntoOneGeoPackageAndItsTreeIsFoundSoundBySqlite(@TempDir Path tmp)
      throws Exception {
    Path file = tmp.resolve("two.gpkg");
    List<Feature> many = new ArrayList<>();
    java.util.Random random = new java.util.Random(5);
    for (int i = 0; i < 7_000; i++)
      many.add(
          new Feature(
              new java.util.UUID(i, random.nextLong()).toString(),
              Optional.of(
                  GeometryJson.WGS84.createPoint(
                      new org.locationtech.jts.geom.Coordinate(
                          random.nextDouble() * 20 - 10, random.nextDouble() * 20 + 40))),
              Map.of(),
              1));
    try (GeoPackageWriter g = new GeoPackageWriter(file)) {
      try (LayerWriter w =
          g.layer(
              new OutLayer(
                  "Same",
                  schema(GeometryKind.POINT),
                  OutColumns.Codes.CODES,
                  CoordinateSystem.wgs84(),
                  Set.of(),
                  false))) {
        for (Feature f : many) w.add(f);
      }
      try (LayerWriter w =
          g.layer(
              new OutLayer(
                  "same",
                  schema(GeometryKind.POLYGON),
                  OutColumns.Codes.CODES,
                  CoordinateSystem.wgs84(),
                  Set.of(),
                  true))) {
        for (Feature f : features(GeometryKind.POLYGON)) w.add(f);
      }
    }
    assertThat(Gdal.info(file))
        .contains("Feature Count: 7000", "Feature Count: 3", "MULTIPOLYGON (((-10 57");
    try (var db = java.sql.DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = db.createStatement()) {
      // SQLite's own check of an R-tree
      for (String t : List.of("rtree_same_geom", "rtree_same_2_geom"))
        try (var r = s.executeQuery("SELECT rtreecheck('" + t + "')")) {
          assertThat(r.getString(1)).isEqualTo("ok");
        }
      long inside =
          many.stream()
              .filter(
                  f ->
                      f.geometry().get().getCoordinate().x > 3
                          && f.geometry().get().getCoordinate().x < 4)
              .count();
      try (var r =
          s.executeQuery("SELECT count(*) FROM rtree_same_geom WHERE minx > 3 AND maxx < 4")) {
        assertThat(r.getLong(1)).isBetween(inside - 2, inside + 2).isPositive();
      }
    }
    assertThat(Gdal.open(tmp.resolve("s"), file).sources().get(0).layers())
        .extracting(Source.SourceLayer::name)
        .containsExactly("Same", "same");
  }

  @Test
  void textsThatASpreadsheetTakesForFormulasGetAnApostropheThatReadingTakesAway() {
    for (String text :
        List.of(
            "=1+1",
            "+a",
            "@x",
            "\t=1",
            "\n=1",
            " =1",
            "\u00a0-a",
            "\u200b=1",
            "\uff1d1+1",
            "'=1",
            "  @a")) assertThat(CsvWriter.harmless(text)).as(text).isEqualTo("'" + text);
    for (String text : List.of("-5", " -5.2", "a=1", "'t Veen", "", "–", "(=1)"))
      assertThat(CsvWriter.harmless(text)).as(text).isEqualTo(text);
    for (String text : List.of("=1", "'=1", "''  -a", "'t Veen", "\n\n", "\uff20"))
      assertThat(CsvWriter.original(CsvWriter.harmless(text))).isEqualTo(text);
  }

  @Test
  void aTextTooLongForAShapefileStandsWholeBesideIt(@TempDir Path folder) throws Exception {
    String text = "=\u00e9".repeat(200);
    Feature f = new Feature("f-7", Optional.empty(), Map.of("note", Value.text(text)), 1);
    OutLayer layer =
        OutLayer.of(
            "Notes",
            new Schema(
                GeometryKind.POINT,
                List.of(Field.of("note", "Note", FieldType.TEXT)),
                "",
                List.of()));
    try (ShapefileWriter w =
        new ShapefileWriter(folder, "notes", layer, LocalDate.of(2026, 5, 4))) {
      w.add(f);
    }
    String dbf = Files.readString(folder.resolve("notes.dbf"), StandardCharsets.ISO_8859_1);
    assertThat(dbf)
        .doesNotContain(
            new String(text.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1));
    assertThat(Files.readString(folder.resolve("notes_whole_texts.csv")))
        .isEqualTo("row,feature_id,column,text\r\n1,f-7,note,'" + text + "\r\n");
  }
}
