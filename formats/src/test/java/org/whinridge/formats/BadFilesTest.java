package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.io.ByteArrayOutputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.dhatim.fastexcel.Workbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.geojson.GeoJsonWriter;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.kml.KmlWriter;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.shapefile.ShapefileWriter;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.xlsx.XlsxWriter;

/**
 * Hostile and damaged files: a clear message that names the place, bounded memory, nothing left
 * over.
 */
class BadFilesTest {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("name", "Name", FieldType.TEXT),
              Field.of("n", "N", FieldType.WHOLE),
              Field.of("day", "Day", FieldType.DATE)),
          "",
          List.of("name"));
  @TempDir Path tmp;

  private static List<Feature> features(int n) {
    List<Feature> out = new ArrayList<>();
    for (int i = 0; i < n; i++)
      out.add(
          new Feature(
              new java.util.UUID(i, i).toString(),
              Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(-10 - i / 100.0, 57))),
              Map.of(
                  "name",
                  Value.text("Größe " + i),
                  "n",
                  Value.of(i),
                  "day",
                  new Value.Day(LocalDate.of(2026, 5, 4))),
              1));
    return out;
  }

  /** One good file of each format: its parts by their ending. */
  private static Map<String, byte[]> good(String format, Path folder) throws Exception {
    Files.createDirectories(folder);
    OutLayer layer = OutLayer.of("Good", SCHEMA);
    Map<String, byte[]> out = new LinkedHashMap<>();
    if (format.equals("shp")) {
      try (ShapefileWriter w =
          new ShapefileWriter(folder, "good", layer, LocalDate.of(2026, 5, 4))) {
        for (Feature f : features(6)) w.add(f);
      }
      for (String e : List.of("shp", "dbf", "prj", "cpg"))
        out.put("good." + e, Files.readAllBytes(folder.resolve("good." + e)));
      return out;
    }
    if (format.equals("gpkg")) {
      Path file = folder.resolve("good.gpkg");
      try (GeoPackageWriter g = new GeoPackageWriter(file);
          LayerWriter w = g.layer(layer)) {
        for (Feature f : features(6)) w.add(f);
      }
      out.put("good.gpkg", Files.readAllBytes(file));
      return out;
    }
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    switch (format) {
      case "kml" -> kml(b, layer);
      case "kmz" -> {
        ByteArrayOutputStream inner = new ByteArrayOutputStream();
        kml(inner, layer);
        zip(b, Map.of("doc.kml", inner.toByteArray()));
      }
      case "gpx" ->
          b.write(
              "<?xml version=\"1.0\"?><gpx xmlns=\"http://www.topografix.com/GPX/1/1\"><wpt lat=\"57.9\" lon=\"-10.2\"><ele>3</ele><time>2026-05-04T09:30:00Z</time><name>é</name></wpt><trk><name>t</name><trkseg><trkpt lat=\"57.9\" lon=\"-10.2\"/><trkpt lat=\"57.91\" lon=\"-10.2\"/></trkseg></trk></gpx>"
                  .getBytes(StandardCharsets.UTF_8));
      case "xlsx" -> {
        try (XlsxWriter x = new XlsxWriter(b);
            LayerWriter w = x.layer(layer, false)) {
          for (Feature f : features(6)) w.add(f);
        }
      }
      default -> {
        try (LayerWriter w =
            format.equals("csv") ? new CsvWriter(b, layer, false) : new GeoJsonWriter(b, layer)) {
          for (Feature f : features(6)) w.add(f);
        }
      }
    }
    out.put("good." + format, b.toByteArray());
    return out;
  }

  private static void kml(OutputStream out, OutLayer layer) throws Exception {
    try (KmlWriter k = new KmlWriter(out, "x");
        LayerWriter w = k.layer(layer)) {
      for (Feature f : features(6)) w.add(f);
    }
  }

  private static void zip(OutputStream to, Map<String, byte[]> entries) throws Exception {
    try (ZipOutputStream z = new ZipOutputStream(to)) {
      for (Map.Entry<String, byte[]> e : entries.entrySet()) {
        z.putNextEntry(new ZipEntry(e.getKey()));
        z.write(e.getValue());
        z.closeEntry();
      }
    }
  }

  /** All messages: files not taken, layers that broke off, features with problems. */
  private List<String> messages(Map<String, byte[]> files) throws Exception {
    Path home = Files.createTempDirectory(tmp, "lot");
    List<Sources.Brought> brought = new ArrayList<>();
    int n = 0;
    for (Map.Entry<String, byte[]> f : files.entrySet())
      brought.add(
          new Sources.Brought(f.getKey(), Files.write(home.resolve("f" + n++), f.getValue())));
    Path scratch = Files.createDirectory(home.resolve("scratch"));
    Sources.Opened o = Sources.open(brought, scratch);
    List<String> out = new ArrayList<>();
    o.notUnderstood().forEach(x -> out.add(English.of(x.why())));
    for (Source s : o.sources())
      for (Source.SourceLayer l : s.layers())
        try {
          s.each(
              l,
              f -> {
                if (!f.problem().isEmpty()) out.add(English.of(f.problem()));
              });
        } catch (FileProblem e) {
          out.add(English.of(e));
        }
    return out;
  }

  private List<String> messages(String name, byte[] content) throws Exception {
    return messages(Map.of(name, content));
  }

  private List<String> messages(String name, String content) throws Exception {
    return messages(name, content.getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void aZipBombIsRefusedBeforeItFillsTheDisk() throws Exception {
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    zip(b, Map.of("bomb.csv", new byte[60_000_000]));
    assertThat(messages("bomb.zip", b.toByteArray()))
        .singleElement()
        .asString()
        .contains("bomb.csv", "as made to fill a disk");
  }

  @Test
  void pathsInZipsNeverBecomePaths() throws Exception {
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    zip(b, Map.of("../../../etc/evil.csv", "a,b\n1,2\n".getBytes(StandardCharsets.UTF_8)));
    Path file = Files.write(tmp.resolve("x.zip"), b.toByteArray());
    Path scratch = Files.createDirectory(tmp.resolve("here"));
    Sources.Opened o = Sources.open(List.of(new Sources.Brought("x.zip", file)), scratch);
    assertThat(o.sources())
        .singleElement()
        .satisfies(s -> assertThat(FileNames.shown(s.name())).isEqualTo("evil.csv"));
    try (Stream<Path> all = Files.walk(tmp)) {
      assertThat(all.filter(Files::isRegularFile))
          .allMatch(p -> p.equals(file) || p.startsWith(scratch));
    }
  }

  @Test
  void anArchiveWithinAnArchiveIsNotOpened() throws Exception {
    ByteArrayOutputStream inner = new ByteArrayOutputStream();
    zip(inner, Map.of("a.csv", "a\n1\n".getBytes(StandardCharsets.UTF_8)));
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    zip(b, Map.of("inner.zip", inner.toByteArray()));
    assertThat(messages("outer.zip", b.toByteArray()))
        .singleElement()
        .asString()
        .contains("archive within an archive");
  }

  @Test
  void theShpAndTheDbfMustBelongTogether() throws Exception {
    Map<String, byte[]> good = good("shp", tmp.resolve("g"));
    Map<String, byte[]> noDbf = new LinkedHashMap<>(good);
    noDbf.remove("good.dbf");
    assertThat(messages(noDbf)).as("it comes in without attributes, as a note says").isEmpty();
    Map<String, byte[]> noShp = new LinkedHashMap<>(good);
    noShp.remove("good.shp");
    assertThat(messages(noShp)).as("it is a table, as a note says").isEmpty();
    noShp.remove("good.dbf");
    assertThat(messages(noShp)).anyMatch(m -> m.contains(".shp that belongs to it is missing"));
    for (int count : new int[] {4, 9, -1, Integer.MAX_VALUE}) {
      Map<String, byte[]> wrong = new LinkedHashMap<>(good);
      byte[] dbf = good.get("good.dbf").clone();
      ByteBuffer.wrap(dbf).order(ByteOrder.LITTLE_ENDIAN).putInt(4, count);
      wrong.put("good.dbf", dbf);
      assertThat(messages(wrong))
          .as("count %d", count)
          .hasSize(1)
          .allMatch(
              m ->
                  m.matches(
                      "(?s).*(more shapes than|cut off at row 7|damaged|more than 2,000,000).*"));
    }
    Map<String, byte[]> cut = new LinkedHashMap<>(good);
    cut.put("good.shp", java.util.Arrays.copyOf(good.get("good.shp"), 150));
    assertThat(messages(cut)).singleElement().asString().contains("cut off at shape 2");
    Map<String, byte[]> huge = new LinkedHashMap<>(good);
    byte[] shp = good.get("good.shp").clone();
    ByteBuffer.wrap(shp).putInt(104, Integer.MAX_VALUE); // a record of 4 GB
    huge.put("good.shp", shp);
    assertThat(messages(huge)).singleElement().asString().contains("damaged at shape 1");
  }

  @Test
  void xmlEntitiesReadNoFile() throws Exception {
    Path secret = Files.writeString(tmp.resolve("secret"), "the secret");
    String evil =
        "<?xml version=\"1.0\"?><!DOCTYPE kml [<!ENTITY x SYSTEM \""
            + secret.toUri()
            + "\"><!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;\">]><kml><Placemark><name>&x;&b;</name><Point><coordinates>1,2</coordinates></Point></Placemark></kml>";
    assertThat(messages("evil.kml", evil))
        .singleElement()
        .asString()
        .contains("not sound XML")
        .doesNotContain("the secret");
  }

  @Test
  void badPlacesAreToldByRowAndTheRestIsRead() throws Exception {
    assertThat(
            messages(
                "a.kml",
                "<kml><Placemark><Point><coordinates>here</coordinates></Point></Placemark><Placemark><Polygon><outerBoundaryIs><LinearRing><coordinates>0,0 1,0 1,1 0,1</coordinates></LinearRing></outerBoundaryIs></Polygon></Placemark></kml>"))
        .containsExactly(
            "Placemark 1 (line 1): “here” is no position.",
            "Placemark 2 (line 1): a ring of its polygon is not closed.");
    assertThat(
            messages(
                "a.gpx",
                "<gpx><wpt lat=\"x\" lon=\"1\"/><trk><trkseg><trkpt lat=\"1\" lon=\"1\"/></trkseg></trk></gpx>"))
        .containsExactly(
            "Waypoint 1 (line 1) has no position.", "Track 1 has fewer than two positions.");
    Path gpkg = tmp.resolve("nan.gpkg");
    Files.write(gpkg, good("gpkg", tmp.resolve("n")).get("good.gpkg"));
    try (var db = DriverManager.getConnection("jdbc:sqlite:" + gpkg);
        var s = db.createStatement()) {
      s.execute("DROP TRIGGER rtree_good_geom_update6");
      s.execute("DROP TRIGGER rtree_good_geom_update7");
      s.execute("DROP TRIGGER rtree_good_geom_update2");
      s.execute("DROP TRIGGER rtree_good_geom_update4");
      s.execute("DROP TRIGGER rtree_good_geom_update5");
      s.execute("UPDATE good SET geom = x'47500001e6100000' || x'FFFFFF' WHERE fid = 2");
      s.execute("UPDATE good SET geom = 'text' WHERE fid = 3");
    }
    assertThat(messages("nan.gpkg", Files.readAllBytes(gpkg)))
        .hasSize(2)
        .anyMatch(m -> m.startsWith("Row 2 of “good”"))
        .anyMatch(m -> m.startsWith("Row 3"));
  }

  @Test
  void textsMadeToBeSlowAreReadInAMoment() throws Exception {
    String html = "<img ".repeat(100_000) + "<script ".repeat(100_000);
    String kml =
        "<kml><Placemark><description><![CDATA[" + html + "]]></description></Placemark></kml>";
    assertThat(messages("slow.kml", kml)).isEmpty();
    String huge = "[" + "1,".repeat(2_100_000) + "1]";
    assertThat(
            messages(
                "huge.geojson",
                "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":"
                    + huge
                    + "}}]}"))
        .singleElement()
        .asString()
        .contains("Feature 1 has more than 1,000,000 positions");
  }

  @Test
  void tablesWithTooManyColumnsOrEndlessRowsAreRefused() throws Exception {
    assertThat(messages("wide.csv", "c,".repeat(1_000_000) + "\n1\n"))
        .singleElement()
        .asString()
        .contains("columns");
    assertThat(messages("open.csv", "a,b\n1,\"" + "x".repeat(5_000_000)))
        .singleElement()
        .asString()
        .contains("Row 2", "4,000,000");
    assertThat(messages("ragged.csv", "a,b\n1,2,3\n4\n5,6\n"))
        .singleElement()
        .asString()
        .contains("Row 2 has 3 values for 2 columns");
    assertThat(messages("zero.csv", "a\0b\n")).singleElement().asString().contains("zero bytes");
  }

  @Test
  void spreadsheetsWithFormulasAndErrorCellsAreReadByTheirResults() throws Exception {
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    Workbook w = new Workbook(b, "test", "1.0");
    var sheet = w.newWorksheet("A");
    sheet.value(0, 0, "name");
    sheet.value(0, 1, "n");
    sheet.value(1, 0, "x");
    sheet.formula(1, 1, "1/0");
    sheet.value(2, 0, "<b>'; DROP TABLE layer");
    sheet.value(2, 1, 5);
    w.finish();
    assertThat(messages("f.xlsx", b.toByteArray()))
        .singleElement()
        .asString()
        .contains("Row 2, column “n”", "formula");
  }

  @ParameterizedTest
  @ValueSource(strings = {"a.gpkg", "a.shp", "a.kml", "a.xlsx", "a.csv", "a.geojson", "a.jpg", "a"})
  void whatIsUnderAKnownEndingIsDecidedByItsContent(String name) throws Exception {
    byte[] junk = new byte[5_000];
    new Random(3).nextBytes(junk);
    assertThat(messages(name, junk)).isNotEmpty().allMatch(m -> !m.isBlank());
    assertThat(
            messages(
                name.replace("shp", "x"),
                "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"a\":1},\"geometry\":null}]}"))
        .isEmpty();
  }

  @Test
  void aWriterRefusesWhatTheFormatCannotHold() throws Exception {
    Schema s =
        new Schema(
            GeometryKind.TABLE, List.of(Field.of("t", "T", FieldType.TEXT)), "", List.of("t"));
    Feature f = new Feature("1", Optional.empty(), Map.of("t", Value.text("x".repeat(40_000))), 1);
    ByteArrayOutputStream b = new ByteArrayOutputStream();
    assertThatExceptionOfType(java.io.IOException.class)
        .isThrownBy(
            () -> {
              try (XlsxWriter x = new XlsxWriter(b);
                  LayerWriter w = x.layer(OutLayer.of("T", s), false)) {
                w.add(f);
              }
            })
        .satisfies(English.says("32,767"));
  }

  /**
   * Mutations of a good file of each format: features or a message, never anything else, and no
   * file left outside the folder given. 100 each; {@code -Dlong} makes it 2,000.
   */
  @ParameterizedTest
  @ValueSource(strings = {"gpkg", "shp", "geojson", "kml", "kmz", "gpx", "csv", "xlsx"})
  void mutatedFilesGiveFeaturesOrAMessage(String format) throws Exception {
    int rounds = System.getProperty("long") == null ? 100 : 2_000;
    long seed = 41;
    Random r = new Random(seed);
    Map<String, byte[]> good = good(format, tmp.resolve("good"));
    assertThat(messages(good)).as("the good file itself").isEmpty();
    List<String> names = new ArrayList<>(good.keySet());
    long before = temporaryFiles();
    for (int i = 0; i < rounds; i++) {
      Map<String, byte[]> bad = new LinkedHashMap<>(good);
      String name = names.get(r.nextInt(names.size()));
      bad.put(name, mutated(good.get(name), r));
      try {
        assertThat(messages(bad))
            .allMatch(m -> !m.isBlank() && m.length() < 3_000)
            .noneMatch(m -> OF_PROGRAMS.matcher(m).find());
      } catch (Exception | StackOverflowError | OutOfMemoryError e) {
        throw new AssertionError(
            "seed " + seed + ", round " + i + " of " + format + ", in " + name, e);
      }
    }
    assertThat(temporaryFiles()).as("temporary files").isLessThanOrEqualTo(before);
  }

  /** Words of programs, which nobody who brings a file should have to read. */
  private static final Pattern OF_PROGRAMS =
      Pattern.compile(
          "Exception|SQLITE_|java\\.|org\\.|jackson|nesting depth|Read.?Feature|\\bnull\\b|markup in the document|SELECT ",
          Pattern.CASE_INSENSITIVE);

  private static byte[] mutated(byte[] good, Random r) {
    byte[] b =
        r.nextInt(5) == 0 ? java.util.Arrays.copyOf(good, r.nextInt(good.length)) : good.clone();
    for (int k = r.nextInt(8); k >= 0 && b.length > 0; k--) {
      int at = r.nextInt(3) == 0 ? r.nextInt(Math.min(120, b.length)) : r.nextInt(b.length);
      b[at] =
          r.nextInt(3) == 0
              ? (byte) new int[] {0, 255, 127, 128}[r.nextInt(4)]
              : (byte) r.nextInt(256);
    }
    return b;
  }

  private static long temporaryFiles() throws Exception {
    try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
      return all.filter(
              p ->
                  !p.getFileName().toString().startsWith("junit")
                      && !p.getFileName().toString().startsWith("sqlite")
                      && !p.getFileName().toString().startsWith("hsperf"))
          .count();
    }
  }
}
