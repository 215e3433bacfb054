package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
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
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;
import org.whinridge.formats.geojson.GeoJsonReader;
import org.whinridge.formats.geojson.GeoJsonWriter;
import org.whinridge.formats.geopackage.GeoPackageLayer;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.source.RawFeature;

/**
 * What is written, read by GDAL (Debian's gdal-bin): every type, nulls, holes, several parts, other
 * alphabets, related photos.
 */
class GeoPackageTest {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POLYGON,
          List.of(
              Field.of("name", "Name", FieldType.TEXT),
              Field.of("n", "N", FieldType.WHOLE),
              Field.of("d", "D", FieldType.DECIMAL),
              Field.of("ok", "Ok", FieldType.YES_NO),
              Field.of("day", "Day", FieldType.DATE),
              Field.of("at", "At", FieldType.DATE_TIME),
              Field.of("many", "Many", FieldType.CODES),
              Field.of("fid", "Fid", FieldType.WHOLE)),
          "",
          List.of("name"));

  private static Feature feature(String id, String geometry, Map<String, Value> values) {
    return new Feature(id, Optional.ofNullable(geometry).flatMap(GeometryJson::parse), values, 1);
  }

  private static List<Feature> features() {
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("name", Value.text("Straße Łódź 東京 'quoted'"));
    v.put("n", Value.of(9007199254740991d));
    v.put("d", Value.of(0.1));
    v.put("ok", Value.YES);
    v.put("day", new Value.Day(LocalDate.of(2026, 5, 4)));
    v.put("at", new Value.Moment(Instant.parse("2026-05-04T09:30:00Z")));
    v.put("many", Value.many(List.of(Value.text("a"), Value.text("b"))));
    v.put("fid", Value.of(7));
    return List.of(
        feature(
            "11111111-1111-4111-8111-111111111111",
            "{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[4,0],[4,4],[0,4],[0,0]],[[1,1],[1,2],[2,2],[2,1],[1,1]]]}",
            v),
        feature(
            "22222222-2222-4222-8222-222222222222",
            "{\"type\":\"MultiPolygon\",\"coordinates\":[[[[10,0],[11,0],[11,1],[10,0]]],[[[20,0],[21,0],[21,1],[20,0]]]]}",
            Map.of("name", Value.text("two parts"))),
        feature("33333333-3333-4333-8333-333333333333", null, Map.of()));
  }

  private static String gdal(String... command) throws Exception {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(out).isZero();
    return out;
  }

  @Test
  void gdalReadsEveryTypeAndTheRelatedPhotos(@TempDir Path tmp) throws Exception {
    Path file = tmp.resolve("out.gpkg");
    byte[] picture = {(byte) 0xFF, (byte) 0xD8, 1, 2, 3};
    OutLayer layer =
        new OutLayer(
            "Wash lands 2",
            SCHEMA,
            OutColumns.Codes.CODES,
            org.whinridge.core.place.CoordinateSystem.wgs84(),
            java.util.Set.of(),
            true);
    try (GeoPackageWriter g = new GeoPackageWriter(file);
        GeoPackageLayer w = g.layer(layer)) {
      List<Long> rows = new ArrayList<>();
      for (Feature f : features()) rows.add(w.addRow(f));
      w.addPhoto(rows.get(1), picture, "one", "photo");
      w.addPhoto(rows.get(1), picture, "two", "photo");
    }
    String all = gdal("ogrinfo", "-al", file.toString(), "wash_lands_2");
    assertThat(all)
        .doesNotContain("Warning")
        .contains(
            "Feature Count: 3",
            "Straße Łódź 東京 'quoted'",
            "n (Integer64) = 9007199254740991",
            "d (Real) = 0.1",
            "ok (Integer(Boolean)) = 1",
            "day (Date) = 2026/05/04",
            "at (DateTime) = 2026/05/04 09:30:00+00",
            "many (String) = a, b",
            "fid_ (Integer64) = 7",
            "MULTIPOLYGON (((0 0,4 0,4 4,0 4,0 0),(1 1,1 2,2 2,2 1,1 1)))",
            "MULTIPOLYGON (((10 0",
            "day (Date) = (null)",
            "feature_id (String) = 33333333-3333-4333-8333-333333333333");
    assertThat(gdal("ogrinfo", "-so", file.toString(), "wash_lands_2"))
        .contains("Extent: (0.000000, 0.000000) - (21.000000, 4.000000)", "ID[\"EPSG\",4326]");
    assertThat(
            gdal("ogrinfo", "-al", "-spat", "19", "0", "22", "2", file.toString(), "wash_lands_2"))
        .contains("Feature Count: 1"); // by the R-tree
    assertThat(gdal("ogrinfo", "-al", file.toString(), "wash_lands_2_photos"))
        .contains("Feature Count: 2");
    assertThat(
            gdal(
                "ogrinfo",
                file.toString(),
                "-sql",
                "SELECT relation_name, base_table_name FROM gpkgext_relations"))
        .contains("media", "wash_lands_2");
    byte[] head = Files.readAllBytes(file);
    assertThat(new String(head, 68, 4, StandardCharsets.US_ASCII))
        .isEqualTo("GPKG"); // application id 0x47504B47, OGC 12-128 req. 2
  }

  @Test
  void geoJsonGoesRound() throws Exception {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (GeoJsonWriter w = new GeoJsonWriter(out, OutLayer.of("Wash \"lands\"", SCHEMA))) {
      for (Feature f : features()) w.add(f);
    }
    List<RawFeature> back = new ArrayList<>();
    assertThat(GeoJsonReader.read(new ByteArrayInputStream(out.toByteArray()), back::add))
        .isEqualTo(3);
    for (int i = 0; i < 3; i++) {
      Feature f = features().get(i);
      assertThat(back.get(i).geometry()).isEqualTo(f.geometry());
      Map<String, Value> fitted = new LinkedHashMap<>();
      back.get(i)
          .properties()
          .forEach(
              (k, v) -> {
                if (!v.isEmpty() && !k.equals(GeoJsonReader.ID))
                  fitted.put(k, SCHEMA.field(k).orElseThrow().fit(v));
              });
      assertThat(fitted).isEqualTo(f.values());
    }
  }

  /** The example of RFC 7946, section 1.5. */
  @Test
  void theExampleOfTheRfcIsRead() throws Exception {
    String example =
        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[102.0,0.5]},\"properties\":{\"prop0\":\"value0\"}},{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[102.0,0.0],[103.0,1.0],[104.0,0.0],[105.0,1.0]]},"
            + "\"properties\":{\"prop0\":\"value0\",\"prop1\":0.0}},{\"type\":\"Feature\",\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[100.0,0.0],[101.0,0.0],[101.0,1.0],[100.0,1.0],[100.0,0.0]]]},\"properties\":{\"prop0\":\"value0\",\"prop1\":{\"this\":\"that\"}}}]}";
    List<RawFeature> all = new ArrayList<>();
    assertThat(
            GeoJsonReader.read(
                new ByteArrayInputStream(example.getBytes(StandardCharsets.UTF_8)), all::add))
        .isEqualTo(3);
    assertThat(all.get(2).properties()).containsEntry("prop1", Value.text("{\"this\":\"that\"}"));
    assertThat(all.get(1).geometry().orElseThrow().getNumPoints()).isEqualTo(4);
  }
}
