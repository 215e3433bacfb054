package org.whinridge.formats.tiles;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.MvtReader;
import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.TagKeyValueMapConverter;
import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.model.JtsLayer;
import java.io.ByteArrayInputStream;
import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookRows;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.look.TileRows;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.value.Value;

/** Tiles are decoded by an independent library (io.github.sebasbaumh: mapbox-vector-tile-java). */
class TileWriterTest {
  private static final int Z = 13;
  private static final int X = (int) (Mercator.x(-10.2) * (1 << Z));
  private static final int Y = (int) (Mercator.y(57.9) * (1 << Z));
  private static final Envelope TILE =
      new Envelope(
          Mercator.lon((double) X / (1 << Z)),
          Mercator.lon((X + 1.0) / (1 << Z)),
          Mercator.lat((double) Y / (1 << Z)),
          Mercator.lat((Y + 1.0) / (1 << Z)));

  private static LayerColumns.Builder layer(GeometryKind kind) {
    return new LayerColumns.Builder(
        new Schema(
            kind,
            List.of(
                Field.of("tag", "Tag", FieldType.TEXT),
                Field.of("width", "Width", FieldType.DECIMAL),
                Field.of("bearing", "Bearing", FieldType.WHOLE)),
            "tag",
            List.of()));
  }

  private static void add(LayerColumns.Builder c, Geometry g, double width) {
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("tag", Value.text("T" + c.rows()));
    v.put("width", Value.of(width));
    v.put("bearing", Value.of(90));
    c.add(new Feature(UUID.randomUUID().toString(), Optional.of(g), v, 1));
  }

  private static List<Geometry> decoded(LayerColumns c, String look) throws Exception {
    return decoded(new TileWriter(c, rows(c, look), null).tile(Z, X, Y));
  }

  private static LookRows rows(LayerColumns c, String look) {
    return new LookRows(
        ReadyLook.of(Look.read(look), c.schema()), c, new Clock(LocalDate.EPOCH, Instant.EPOCH));
  }

  private static List<Geometry> decoded(byte[] tile) throws Exception {
    JtsLayer l =
        MvtReader.loadMvt(
                new ByteArrayInputStream(tile),
                new GeometryFactory(),
                new TagKeyValueMapConverter())
            .getLayer("features");
    assertThat(l.getExtent()).isEqualTo(4096);
    return List.copyOf(l.getGeometries());
  }

  @SuppressWarnings("unchecked")
  private static Map<String, Object> tags(Geometry g) {
    return (Map<String, Object>) g.getUserData();
  }

  private static Coordinate grid(Coordinate degrees) {
    double side = (1 << Z) * 4096.0;
    return new Coordinate(
        Mercator.x(degrees.x) * side - X * 4096.0, Mercator.y(degrees.y) * side - Y * 4096.0);
  }

  private static Geometry gridded(Geometry g) {
    Geometry c = g.copy();
    c.apply((org.locationtech.jts.geom.CoordinateFilter) p -> p.setCoordinate(grid(p)));
    c.geometryChanged();
    return c;
  }

  private static Coordinate somewhere(Random r) {
    return new Coordinate(
        TILE.getMinX() + r.nextDouble() * TILE.getWidth(),
        TILE.getMinY() + r.nextDouble() * TILE.getHeight());
  }

  @Test
  void pointsComeBackWithWhatDrawsThem() throws Exception {
    LayerColumns.Builder b = layer(GeometryKind.POINT);
    Random r = new Random(1);
    for (int i = 0; i < 500; i++) add(b, GeometryJson.WGS84.createPoint(somewhere(r)), i);
    LayerColumns c = b.build();
    List<Geometry> back =
        decoded(
            c,
            "{\"by\":\"class\",\"field\":\"width\",\"classes\":[{\"upTo\":250,\"stack\":[{\"draw\":\"mark\",\"turnBy\":\"bearing\",\"size\":{\"field\":\"width\",\"from\":0,\"to\":499,\"small\":4,\"large\":20}}]}],\"label\":{\"template\":\"{tag}\"}}");
    assertThat(back).hasSize(500);
    for (Geometry g : back) {
      int row = Integer.parseInt(((String) tags(g).get("l")).substring(1));
      Coordinate p = grid(c.geometry(row).orElseThrow().getCoordinate());
      assertThat(g.getCoordinate().distance(p)).isLessThan(1.5);
      assertThat(((Number) tags(g).get("c")).intValue()).isEqualTo(row <= 250 ? 0 : 1);
      assertThat(((Number) tags(g).get("t0")).doubleValue()).isEqualTo(90);
      assertThat(((Number) tags(g).get("s0")).doubleValue())
          .isCloseTo(4 + 16 * row / 499.0, within(0.01));
    }
  }

  @Test
  void thinnedPointsSayHowManyTheyStandFor() throws Exception {
    LayerColumns.Builder b = layer(GeometryKind.POINT);
    Random r = new Random(1);
    for (int i = 0; i < 50_000; i++) add(b, GeometryJson.WGS84.createPoint(somewhere(r)), i);
    LayerColumns c = b.build();
    List<Geometry> back = decoded(c, "{\"by\":\"one\"}");
    assertThat(back.size()).as("one for each strength").isBetween(1, 5);
    assertThat(back.stream().mapToInt(Geometry::getNumGeometries).sum()).isBetween(5000, 17_000);
    assertThat(back.stream().mapToInt(g -> ((Number) tags(g).get("all")).intValue()).sum())
        .isEqualTo(50_000);
  }

  @Test
  void linesAndAreasKeepTheirShapeWithinAStep() throws Exception {
    Random r = new Random(4);
    for (GeometryKind kind : List.of(GeometryKind.LINE, GeometryKind.POLYGON)) {
      LayerColumns.Builder b = layer(kind);
      for (int i = 0; i < 300; i++) {
        Coordinate at = somewhere(r);
        double size = TILE.getWidth() * (0.01 + r.nextDouble() * (i % 20 == 0 ? 3 : 0.2));
        Geometry blob = GeometryJson.WGS84.createPoint(at).buffer(size, 3);
        if (i % 3 == 0)
          blob = blob.difference(GeometryJson.WGS84.createPoint(at).buffer(size / 2, 2));
        if (i % 7 == 0)
          blob =
              blob.union(
                  GeometryJson.WGS84
                      .createPoint(new Coordinate(at.x + 3 * size, at.y))
                      .buffer(size, 2));
        add(b, kind == GeometryKind.LINE ? blob.getBoundary() : blob, i);
      }
      LayerColumns c = b.build();
      Geometry box = new GeometryFactory().toGeometry(new Envelope(0, 4096, 0, 4096));
      List<Geometry> back = decoded(c, "{\"by\":\"one\",\"label\":{\"template\":\"{tag}\"}}");
      assertThat(back.size()).isGreaterThan(280);
      int met = 0;
      for (int row = 0; row < c.rows(); row++)
        if (gridded(c.geometry(row).orElseThrow()).intersects(box)) met++;
      assertThat(back.size()).isGreaterThanOrEqualTo(met);
      for (Geometry g : back) {
        int row = Integer.parseInt(((String) tags(g).get("l")).substring(1));
        Geometry want = gridded(c.geometry(row).orElseThrow()).intersection(box);
        Geometry got = g.buffer(0).isEmpty() ? g.intersection(box) : g.buffer(0).intersection(box);
        if (kind == GeometryKind.LINE) {
          assertThat(got.getLength())
              .isCloseTo(want.getLength(), within(10 + want.getLength() * 0.01));
          assertThat(g.getGeometryN(0)).isInstanceOf(LineString.class);
        } else {
          assertThat(got.getArea()).isCloseTo(want.getArea(), within(200 + want.getLength() * 2));
          assertThat(g.getGeometryN(0)).isInstanceOf(Polygon.class);
          assertThat(g.isValid() || got.isValid()).isTrue();
        }
      }
    }
  }

  @Test
  void nothingGivesNoTile() {
    LayerColumns c = layer(GeometryKind.POINT).build();
    assertThat(new TileWriter(c, rows(c, "{\"by\":\"one\"}"), null).tile(0, 0, 0)).isEmpty();
    assertThat(TileRows.EXTENT).isEqualTo(4096);
  }
}
