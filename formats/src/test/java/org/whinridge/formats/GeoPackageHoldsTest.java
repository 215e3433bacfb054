package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.geopackage.GeoPackageLayer;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;
import org.whinridge.formats.source.Described;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;

/** What a GeoPackage may hold, and what becomes of it (docs/formats.md). */
class GeoPackageHoldsTest {
  private static final byte[] JPEG = {(byte) 0xFF, (byte) 0xD8, (byte) 0xFF, (byte) 0xD9};
  @TempDir Path tmp;

  private Path points(String... options) throws Exception {
    Path json = tmp.resolve("p.geojson");
    Files.writeString(
        json,
        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"a\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[-10.2,57.9,12.5]}}]}");
    Path gpkg = tmp.resolve("p.gpkg");
    List<String> all = new ArrayList<>(List.of("-f", "GPKG"));
    all.addAll(List.of(options));
    Gdal.convert(json, gpkg, all.toArray(new String[0]));
    return gpkg;
  }

  private Source open(Path gpkg) throws Exception {
    Sources.Opened o = Gdal.open(tmp.resolve("s"), gpkg);
    assertThat(o.notUnderstood()).isEmpty();
    return o.sources().get(0);
  }

  private static List<RawFeature> rows(Source s, Source.SourceLayer l) throws Exception {
    List<RawFeature> out = new ArrayList<>();
    s.each(l, out::add);
    return out;
  }

  private static void sql(Path gpkg, String... statements) throws Exception {
    try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + gpkg);
        Statement s = db.createStatement()) {
      for (String x : statements) s.execute(x);
    }
  }

  @Test
  void theKeyAndHeightsAreOfferedAndLeftAside() throws Exception {
    Source s = open(points());
    Source.SourceLayer l = s.layers().get(0);
    RawFeature f = rows(s, l).get(0);
    assertThat(f.properties())
        .containsEntry("fid", Value.of(1))
        .containsEntry("geometry z", Value.of(12.5))
        .containsEntry("name", Value.text("a"));
    assertThat(l.aside()).contains("fid", "geometry z");
    assertThat(English.of(l.notes())).anyMatch(n -> n.contains("can be taken as fields"));
  }

  @Test
  void aSystemThatOnlyWkt2DescribesIsRead() throws Exception {
    Path gpkg = points("-t_srs", "EPSG:3035");
    String wkt2 =
        Gdal.run("projinfo", "EPSG:3035", "-o", "WKT2:2019", "--single-line", "-q")
            .strip()
            .replaceAll(",ID\\[\"EPSG\",3035]", "");
    sql(
        gpkg,
        "ALTER TABLE gpkg_spatial_ref_sys ADD COLUMN definition_12_063 TEXT",
        "UPDATE gpkg_spatial_ref_sys SET organization = 'NONE', definition = 'undefined', definition_12_063 = '"
            + wkt2.replace("'", "''")
            + "' WHERE srs_id = 3035");
    Source s = open(gpkg);
    Source.SourceLayer l = s.layers().get(0);
    Coordinate at =
        l.system()
            .orElseThrow()
            .toWgs84(rows(s, l).get(0).geometry().orElseThrow())
            .getCoordinate();
    assertThat(at.x).isCloseTo(-10.2, org.assertj.core.api.Assertions.within(1e-5));
    assertThat(at.y).isCloseTo(57.9, org.assertj.core.api.Assertions.within(1e-5));
  }

  @Test
  void aViewWhoseQueryNeverEndsIsToldNotCountedAndStopped() throws Exception {
    Path gpkg = points();
    sql(
        gpkg,
        "CREATE VIEW endless AS WITH RECURSIVE c(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM c) SELECT x AS n FROM c WHERE x < 0",
        "INSERT INTO gpkg_contents(table_name, data_type, identifier) VALUES ('endless', 'attributes', 'endless')");
    Source s = open(gpkg);
    Source.SourceLayer view = s.layers().get(1);
    assertThat(view.expected()).isEqualTo(-1);
    assertThat(English.of(view.notes())).anyMatch(n -> n.contains("is a view"));
    long begun = System.nanoTime();
    assertThatThrownBy(
            () ->
                s.each(
                    view,
                    new Source.Sink() {
                      @Override
                      public void take(RawFeature f) {}

                      @Override
                      public boolean isOver() {
                        return System.nanoTime() - begun > 500_000_000L;
                      }

                      @Override
                      public void over() {
                        throw new IllegalStateException("nobody wants more");
                      }
                    }))
        .isInstanceOf(IllegalStateException.class);
    assertThat(System.nanoTime() - begun).isLessThan(10_000_000_000L);
  }

  @Test
  void messagesNameNoDatabase() throws Exception {
    Path notOne = tmp.resolve("x.gpkg");
    sql(notOne, "CREATE TABLE a (b)");
    assertThat(Gdal.open(tmp.resolve("t"), notOne).notUnderstood())
        .singleElement()
        .satisfies(
            n ->
                assertThat(English.of(n.why()))
                    .contains("no GeoPackage")
                    .doesNotContain("SQLITE_", "no such table"));
    byte[] bytes = Files.readAllBytes(points());
    for (int i = 5000; i < bytes.length; i++) bytes[i] = (byte) (i * 31);
    Path torn = Files.write(tmp.resolve("torn.gpkg"), bytes);
    Sources.Opened o = Gdal.open(tmp.resolve("u"), torn);
    for (Sources.NotUnderstood n : o.notUnderstood())
      assertThat(English.of(n.why())).doesNotContain("SQLITE_", "SQL", "malformed");
    assertThat(o.notUnderstood()).isNotEmpty();
  }

  private static OutLayer own() {
    Field kind =
        Field.of("kind", "Kind of gate", FieldType.CODE)
            .with(List.of(Code.of("w", "Weir"), Code.of("p", "Pump, old")))
            .hinted("As painted on it");
    Field width = Field.of("width", "Width", FieldType.WHOLE).in("mm");
    return new OutLayer(
            "Gates",
            new Schema(GeometryKind.POINT, List.of(kind, width), "", List.of("kind")),
            OutColumns.Codes.CODES,
            CoordinateSystem.wgs84(),
            java.util.Set.of(),
            false)
        .drawn("{\"by\":\"test\"}");
  }

  private Path written() throws Exception {
    Path p = tmp.resolve("own.gpkg");
    try (GeoPackageWriter g = new GeoPackageWriter(p)) {
      GeoPackageLayer l = g.layer(own());
      long row =
          l.addRow(
              new Feature(
                  "11111111-1111-1111-1111-111111111111",
                  Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(-10.2, 57.9))),
                  Map.of("kind", Value.text("w"), "width", Value.of(700)),
                  1));
      l.addPhoto(row, JPEG, "Gate 1", "outside");
      l.close();
    }
    return p;
  }

  @Test
  void theOwnFileComesBackWholeWithFieldsListsLookAndPhotos() throws Exception {
    Source s = open(written());
    assertThat(s.layers()).hasSize(1); // the photos are no table
    Source.SourceLayer l = s.layers().get(0);
    Described d = l.described().orElseThrow();
    assertThat(d.fields()).isEqualTo(own().schema().fields());
    assertThat(d.look()).isEqualTo("{\"by\":\"test\"}");
    assertThat(l.aside()).contains("feature_id", "fid");
    RawFeature f = rows(s, l).get(0);
    assertThat(f.pictures()).singleElement().satisfies(p -> assertThat(p).hasBinaryContent(JPEG));
  }

  /** GDAL reads the lists as field domains (its own reading of the Schema extension). */
  @Test
  void othersReadTheListsToo() throws Exception {
    Path own = written();
    assertThat(Gdal.info(own)).doesNotContain("Warning", "ERROR").contains("gates_kind");
    assertThat(Gdal.run("ogrinfo", "-fielddomain", "gates_kind", own.toString()))
        .contains("w: Weir", "p: Pump, old");
    sql(own, "DROP TABLE whinridge_layers");
    Source s = open(own);
    assertThat(s.layers().get(0).described().orElseThrow().field("kind").orElseThrow())
        .satisfies(
            f -> {
              assertThat(f.label()).isEqualTo("Kind of gate");
              assertThat(f.hint()).isEqualTo("As painted on it");
              assertThat(f.codes()).extracting(Code::label).containsExactly("Weir", "Pump, old");
            });
  }
}
