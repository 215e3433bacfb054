package org.whinridge.bench;

import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.JtsAdapter;
import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.MvtEncoder;
import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.UserDataKeyValueMapConverter;
import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.model.JtsLayer;
import io.github.sebasbaumh.mapbox.vectortile.adapt.jts.model.JtsMvt;
import io.github.sebasbaumh.mapbox.vectortile.build.MvtLayerParams;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.function.IntSupplier;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Breaks;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookRows;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.value.Value;
import org.whinridge.formats.tiles.TileWriter;

/**
 * Vector tiles out of the read model, beside an independent library (io.github.sebasbaumh:
 * mapbox-vector-tile-java) and a bare loop that encodes the same features; and class breaks of a
 * million numbers.
 */
public final class MapTiles {
  private static final int Z = 12;
  private static final Clock CLOCK = new Clock(LocalDate.EPOCH, Instant.EPOCH);
  private static final String LOOK =
      "{\"by\":\"code\",\"field\":\"kind\",\"classes\":[{\"code\":\"weir\"},{\"code\":\"pump\"},{\"code\":\"sluice\"}]}";

  private MapTiles() {}

  /** Runs all and prints. */
  public static void main(String[] args) {
    twentyThousand(GeometryKind.LINE);
    twentyThousand(GeometryKind.POLYGON);
    million();
    breaks();
  }

  private static LookRows rows(LayerColumns c) {
    return new LookRows(ReadyLook.of(Look.read(LOOK), c.schema()), c, CLOCK);
  }

  /** A tile with 20,000 features, so many that none is thinned. */
  private static void twentyThousand(GeometryKind kind) {
    Random r = new Random(3);
    int tx = (int) (Mercator.x(-10.2) * (1 << Z));
    int ty = (int) (Mercator.y(57.9) * (1 << Z));
    Envelope box =
        new Envelope(
            Mercator.lon((double) tx / (1 << Z)),
            Mercator.lon((tx + 1.0) / (1 << Z)),
            Mercator.lat((ty + 1.0) / (1 << Z)),
            Mercator.lat((double) ty / (1 << Z)));
    LayerColumns.Builder rows =
        new LayerColumns.Builder(
            new Schema(kind, MillionPoints.SCHEMA.fields(), "tag", List.of("tag")));
    List<Geometry> plain = new ArrayList<>();
    String[] kinds = {"weir", "pump", "sluice", "outfall"};
    GeometryFactory f = new GeometryFactory();
    for (int i = 0; i < 20_000; i++) {
      Coordinate at =
          new Coordinate(
              box.getMinX() + (0.02 + 0.96 * r.nextDouble()) * box.getWidth(),
              box.getMinY() + (0.02 + 0.96 * r.nextDouble()) * box.getHeight());
      Geometry g = shape(kind, at, box.getWidth() * (0.004 + 0.01 * r.nextDouble()), r);
      String k = kinds[r.nextInt(4)];
      Map<String, Value> v = new LinkedHashMap<>();
      v.put("tag", Value.text("T" + i));
      v.put("kind", Value.text(k));
      rows.add(
          new Feature(
              new UUID(0x4000L | (long) i << 16, 0x8000000000000000L | i).toString(),
              Optional.of(g),
              v,
              1));
      Geometry m = f.createGeometry(g);
      m.apply(
          (org.locationtech.jts.geom.CoordinateFilter)
              p -> p.setCoordinate(new Coordinate(Mercator.x(p.x), 1 - Mercator.y(p.y))));
      m.geometryChanged();
      m.setUserData(new LinkedHashMap<>(Map.of("c", (long) Arrays.asList(kinds).indexOf(k))));
      plain.add(m);
    }
    LayerColumns c = rows.build();
    TileWriter w = new TileWriter(c, rows(c), null);
    Envelope unit =
        new Envelope(
            (double) tx / (1 << Z),
            (tx + 1.0) / (1 << Z),
            1 - (ty + 1.0) / (1 << Z),
            1 - (double) ty / (1 << Z));
    double own = medianMs(40, () -> w.tile(Z, tx, ty).length);
    double bare = medianMs(40, () -> bare(plain, unit).length);
    double library = medianMs(5, () -> library(plain, unit).length);
    System.out.printf(
        Locale.ROOT,
        "tile of 20,000 %ss: from the read model %.1f ms (%,d bytes), bare loop %.1f ms, ratio %.2f (at most 1.5); library %.0f ms, %.1f times as long (at least 5)%n",
        kind.id(),
        own,
        w.tile(Z, tx, ty).length,
        bare,
        own / bare,
        library,
        library / own);
  }

  private static Geometry shape(GeometryKind kind, Coordinate at, double size, Random r) {
    int n = 8;
    Coordinate[] cs = new Coordinate[kind == GeometryKind.LINE ? n : n + 1];
    for (int i = 0; i < n; i++) {
      double a = 2 * Math.PI * i / n;
      double d = size * (0.6 + 0.4 * r.nextDouble());
      cs[i] =
          kind == GeometryKind.LINE
              ? new Coordinate(at.x + i * size / n, at.y + d * 0.4 * (r.nextDouble() - 0.5))
              : new Coordinate(at.x + d * Math.cos(a), at.y + d * 0.6 * Math.sin(a));
    }
    if (kind == GeometryKind.LINE) return GeometryJson.WGS84.createLineString(cs);
    cs[n] = cs[0];
    return GeometryJson.WGS84.createPolygon(cs);
  }

  /** A row of bytes that grows, without locks. */
  private static final class Row {
    private byte[] b = new byte[1 << 12];
    private int n;

    void varint(long value) {
      if (n + 10 > b.length) b = Arrays.copyOf(b, 2 * b.length);
      long v = value;
      while ((v & ~0x7fL) != 0) {
        b[n++] = (byte) (v & 0x7f | 0x80);
        v >>>= 7;
      }
      b[n++] = (byte) v;
    }

    void add(Row r) {
      if (n + r.n > b.length) b = Arrays.copyOf(b, 2 * (n + r.n));
      System.arraycopy(r.b, 0, b, n, r.n);
      n += r.n;
    }
  }

  /** What encoding costs at the least: geometries in Mercator, none to be cut or sorted. */
  private static byte[] bare(List<Geometry> all, Envelope tile) {
    Row out = new Row();
    Row one = new Row();
    Row commands = new Row();
    double s = 4096 / tile.getWidth();
    long id = 0;
    for (Geometry g : all) {
      commands.n = 0;
      Coordinate[] cs = g.getCoordinates();
      int n = g.getDimension() == 2 ? cs.length - 1 : cs.length;
      int px = 0;
      int py = 0;
      for (int i = 0; i < n; i++) {
        if (i < 2) commands.varint(i == 0 ? 9 : (long) (n - 1) << 3 | 2);
        int x = (int) Math.round((cs[i].x - tile.getMinX()) * s);
        int y = (int) Math.round((tile.getMaxY() - cs[i].y) * s);
        commands.varint((x - px << 1 ^ x - px >> 31) & 0xffffffffL);
        commands.varint((y - py << 1 ^ y - py >> 31) & 0xffffffffL);
        px = x;
        py = y;
      }
      if (g.getDimension() == 2) commands.varint(15);
      one.n = 0;
      long c = (Long) ((Map<?, ?>) g.getUserData()).get("c");
      for (long v : new long[] {8, id++, 18, 2, 0, c, 24, g.getDimension() + 1, 34, commands.n})
        one.varint(v);
      one.add(commands);
      out.varint(18);
      out.varint(one.n);
      out.add(one);
    }
    return Arrays.copyOf(out.b, out.n);
  }

  private static byte[] library(List<Geometry> all, Envelope unit) {
    GeometryFactory f = new GeometryFactory();
    MvtLayerParams params = new MvtLayerParams(4096);
    List<Geometry> cut = new ArrayList<>(all.size());
    for (Geometry g : all) {
      Geometry in = JtsAdapter.createTileGeom(g, unit, f, params, x -> true);
      if (in == null) continue;
      in.setUserData(g.getUserData());
      cut.add(in);
    }
    JtsMvt tile = new JtsMvt(List.of(new JtsLayer("features", cut)));
    return MvtEncoder.encode(tile, params, new UserDataKeyValueMapConverter());
  }

  private static double medianMs(int n, IntSupplier run) {
    long kept = 0;
    for (int i = 0; i < n; i++) kept += run.getAsInt();
    double[] ms = new double[n];
    for (int i = 0; i < n; i++) {
      long t = System.nanoTime();
      kept += run.getAsInt();
      ms[i] = (System.nanoTime() - t) / 1e6;
    }
    if (kept == 42) System.out.println(kept);
    Arrays.sort(ms);
    return ms[n / 2];
  }

  private static void million() {
    LayerColumns.Builder points = new LayerColumns.Builder(MillionPoints.SCHEMA);
    MillionPoints.each(points::add);
    long t = System.nanoTime();
    LayerColumns c = points.build();
    System.out.printf(
        Locale.ROOT,
        "1,000,000 points: both indexes by place in %.0f ms%n",
        (System.nanoTime() - t) / 1e6);
    t = System.nanoTime();
    LookRows rows = rows(c);
    System.out.printf(
        Locale.ROOT,
        "1,000,000 points: sorted into classes in %.0f ms%n",
        (System.nanoTime() - t) / 1e6);
    TileWriter w = new TileWriter(c, rows, null);
    for (int z : new int[] {0, 6, 12}) {
      List<int[]> tiles = new ArrayList<>();
      int side = 1 << z;
      for (int x = (int) (Mercator.x(-10.6) * side); x <= (int) (Mercator.x(-9.8) * side); x++)
        for (int y = (int) (Mercator.y(58.1) * side); y <= (int) (Mercator.y(57.7) * side); y++)
          tiles.add(new int[] {x, y});
      for (int i = 0; i < 3; i++) for (int[] at : tiles) w.tile(z, at[0], at[1]);
      int times = Math.max(1, 60 / tiles.size());
      double[] ms = new double[tiles.size() * times];
      int n = 0;
      long bytes = 0;
      for (int i = 0; i < times; i++)
        for (int[] at : tiles) {
          t = System.nanoTime();
          bytes += w.tile(z, at[0], at[1]).length;
          ms[n++] = (System.nanoTime() - t) / 1e6;
        }
      Arrays.sort(ms);
      System.out.printf(
          Locale.ROOT,
          "1,000,000 points, zoom %2d: %d tiles, median %.1f ms, p95 %.1f ms, %,d bytes each%n",
          z,
          tiles.size(),
          ms[n / 2],
          ms[(int) (n * 0.95)],
          bytes / n);
    }
  }

  private static void breaks() {
    Random r = new Random(11);
    double[] v = r.doubles(1_000_000).map(d -> d * d * 1000 + (d > 0.7 ? 400 : 0)).toArray();
    long t = System.nanoTime();
    Arrays.sort(v);
    double sort = (System.nanoTime() - t) / 1e6;
    System.out.printf(Locale.ROOT, "1,000,000 numbers sorted (baseline): %.0f ms%n", sort);
    for (Breaks.Method m :
        List.of(
            Breaks.Method.EQUAL,
            Breaks.Method.QUANTILE,
            Breaks.Method.DEVIATION,
            Breaks.Method.NATURAL)) {
      double ms = medianMs(m == Breaks.Method.NATURAL ? 3 : 9, () -> Breaks.by(m, v, 9).length);
      System.out.printf(
          Locale.ROOT, "9 classes, %-26s %.1f ms, %.1f times the sorting%n", m.id(), ms, ms / sort);
    }
  }
}
