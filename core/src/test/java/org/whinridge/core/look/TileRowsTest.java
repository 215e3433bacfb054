package org.whinridge.core.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.value.Value;

class TileRowsTest {
  private static Feature at(Geometry g, double width) {
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("width", Value.of(width));
    return new Feature(UUID.randomUUID().toString(), Optional.of(g), v, 1);
  }

  private static Geometry point(Random r) {
    return GeometryJson.WGS84.createPoint(
        new Coordinate(-10.4 + r.nextDouble() * 0.4, 57.7 + r.nextDouble() * 0.4));
  }

  private static final class Got implements TileRows.To {
    final TreeMap<Integer, Integer> positions = new TreeMap<>();
    final TreeSet<Integer> shapes = new TreeSet<>();
    int dots;
    int all;

    @Override
    public void position(int row, int x, int y, int count) {
      assertThat(x).isBetween(0, 4095);
      assertThat(y).isBetween(0, 4095);
      positions.put(row, count);
      all += Math.max(1, count);
    }

    @Override
    public void shape(int row) {
      shapes.add(row);
      all++;
    }

    @Override
    public void dot(int row, int x, int y, int count) {
      dots++;
      all += count;
    }
  }

  private static LookRows rows(LayerColumns c) {
    return new LookRows(
        ReadyLook.of(
            Look.read(
                "{\"by\":\"class\",\"field\":\"width\",\"classes\":[{\"upTo\":900},{\"upTo\":1000}]}"),
            c.schema()),
        c,
        LookTest.CLOCK);
  }

  @Test
  void eachPositionLiesInOneTileOfEachZoom() {
    Random r = new Random(9);
    LayerColumns.Builder b = new LayerColumns.Builder(LookTest.GATES);
    for (int i = 0; i < 3000; i++) b.add(at(point(r), r.nextInt(1000)));
    LayerColumns c = b.build();
    TileRows tiles = new TileRows(c, rows(c), null);
    for (int z : new int[] {0, 9, 13, 17}) {
      int side = 1 << z;
      int seen = 0;
      int x0 = (int) (Mercator.x(-10.4) * side);
      int x1 = (int) (Mercator.x(-10.0) * side);
      int y0 = (int) (Mercator.y(58.1) * side);
      int y1 = (int) (Mercator.y(57.7) * side);
      for (int x = x0; x <= x1 && x - x0 < 40; x++)
        for (int y = y0; y <= y1 && y - y0 < 40; y++) {
          Got got = new Got();
          tiles.in(z, x, y, got);
          seen += got.all;
          for (int row : got.positions.keySet()) {
            Coordinate p = c.geometry(row).orElseThrow().getCoordinate();
            assertThat((int) (Mercator.x(p.x) * side)).isEqualTo(x);
            assertThat((int) (Mercator.y(p.y) * side)).isEqualTo(y);
          }
        }
      if (z < 14) assertThat(seen).as("zoom %d", z).isEqualTo(3000);
    }
  }

  @Test
  void manyPositionsAreThinnedToTheTopmostWithTheirNumber() {
    Random r = new Random(9);
    LayerColumns.Builder b = new LayerColumns.Builder(LookTest.GATES);
    for (int i = 0; i < 30_000; i++) b.add(at(point(r), i % 500 == 0 ? 950 : r.nextInt(900)));
    LayerColumns c = b.build();
    Got got = new Got();
    new TileRows(c, rows(c), null)
        .in(9, (int) (Mercator.x(-10.2) * 512), (int) (Mercator.y(57.9) * 512), got);
    assertThat(got.positions.size()).isLessThan(10_000);
    LookRows look = rows(c);
    long worst = got.positions.keySet().stream().filter(row -> look.top(row) == 1).count();
    long inTile = 0;
    for (int row = 0; row < c.rows(); row++) {
      Coordinate p = c.geometry(row).orElseThrow().getCoordinate();
      if (look.top(row) == 1
          && (int) (Mercator.x(p.x) * 512) == (int) (Mercator.x(-10.2) * 512)
          && (int) (Mercator.y(p.y) * 512) == (int) (Mercator.y(57.9) * 512)) inTile++;
    }
    assertThat(worst)
        .as("the few on top stay, but for cells that they share")
        .isBetween(inTile - 2, inTile);
    assertThat(got.all).isGreaterThan(got.positions.size());
  }

  @Test
  void changesAreSeenAtOnce() {
    Random r = new Random(2);
    LayerColumns.Builder fifty = new LayerColumns.Builder(LookTest.GATES);
    for (int i = 0; i < 50; i++) fifty.add(at(point(r), 1));
    LayerColumns before = fifty.build();
    Feature moved = before.feature(7);
    LayerColumns c =
        before.with(
            java.util.List.of(
                new Feature(
                    moved.id(),
                    Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(10, 10))),
                    moved.values(),
                    2),
                at(GeometryJson.WGS84.createPoint(new Coordinate(20, 20)), 3)),
            java.util.List.of(before.id(3)));
    Got got = new Got();
    new TileRows(c, rows(c), null).in(0, 0, 0, got);
    assertThat(got.all).isEqualTo(50);
    Got east = new Got();
    new TileRows(c, rows(c), null).in(1, 1, 0, east);
    assertThat(east.positions).containsOnlyKeys(7, 50);
  }

  @Test
  void smallAreasBecomeDotsAndLargeOnesStay() {
    Random r = new Random(2);
    LayerColumns.Builder b =
        new LayerColumns.Builder(
            new Schema(GeometryKind.POLYGON, LookTest.GATES.fields(), "", java.util.List.of()));
    for (int i = 0; i < 2000; i++) b.add(at(point(r).buffer(0.0001, 1), 1));
    b.add(at(GeometryJson.WGS84.toGeometry(new Envelope(-30, 0, 40, 60)), 1));
    LayerColumns c = b.build();
    Got got = new Got();
    new TileRows(c, rows(c), null).in(2, 1, 1, got);
    assertThat(got.shapes).containsExactly(2000);
    assertThat(got.all).isEqualTo(2001);
    assertThat(got.dots).isLessThan(60);
    Got near = new Got();
    int side = 1 << 12;
    new TileRows(c, rows(c), null)
        .in(12, (int) (Mercator.x(-10.2) * side), (int) (Mercator.y(57.9) * side), near);
    assertThat(near.dots).isZero();
    assertThat(near.shapes.size()).isBetween(20, 200);
  }
}
