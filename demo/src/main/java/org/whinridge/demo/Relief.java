package org.whinridge.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.imageio.ImageIO;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.place.Mercator;
import org.whinridge.formats.tiles.MbTilesWriter;

/**
 * The relief basemap: the island's slopes shaded from the north-west over a height grid that is
 * made up from its coast and ridge, as picture tiles. Pale, so that features stand out.
 */
public final class Relief {
  private static final int LEAST_ZOOM = 9;
  private static final int MOST_ZOOM = 14;
  private static final int TILE = 256;

  /** Kilometres of a cell of the height grid. */
  private static final double CELL = 0.015;

  private static final double WEST = -9;
  private static final double SOUTH = -6.2;
  private static final int COLUMNS = 1200;
  private static final int ROWS = 830;

  private final Ground ground;
  private final float[] heights = new float[COLUMNS * ROWS];
  private final boolean[] land = new boolean[COLUMNS * ROWS];

  private Relief(Ground ground) {
    this.ground = ground;
    heights();
  }

  /** Writes the basemap as MBTiles; the same bytes of pictures each time. */
  public static void write(Path file) throws IOException, SQLException {
    new Relief(new Ground(Ostrey.SEED)).tiles(file);
  }

  private void heights() {
    BufferedImage mask = new BufferedImage(COLUMNS, ROWS, BufferedImage.TYPE_BYTE_GRAY);
    Graphics2D g = mask.createGraphics();
    g.setColor(Color.WHITE);
    g.fill(path(ground.land, x -> (x - WEST) / CELL, y -> ROWS - (y - SOUTH) / CELL));
    g.dispose();
    float[] inland = new float[heights.length];
    for (int i = 0; i < inland.length; i++) {
      land[i] = (mask.getRaster().getSample(i % COLUMNS, i / COLUMNS, 0) & 0xff) > 127;
      inland[i] = land[i] ? 1 : 0;
    }
    for (int k = 0; k < 3; k++) blur(inland, 14);
    for (int i = 0; i < heights.length; i++) {
      double x = WEST + (i % COLUMNS + 0.5) * CELL;
      double y = SOUTH + (ROWS - i / COLUMNS - 0.5) * CELL;
      double ridge = Math.exp(-Math.pow((x - 2.3) / 2.7, 2) - Math.pow((y - 2.35) / 1.05, 2));
      double rough = 0;
      for (int k = 0; k < 6; k++) rough += noise(x * (1 << k), y * (1 << k), k) / (1 << k);
      double shore = Math.max(0, inland[i] - 0.5) * 2;
      heights[i] =
          land[i]
              ? (float) (shore * (3 + 1.6 * rough) + ridge * (80 + 60 * rough))
              : (float) -(6 * (1 - inland[i]));
    }
  }

  /** Smooth noise of -0.5 to 0.5, one bump a unit. */
  private static double noise(double x, double y, int octave) {
    int i = (int) Math.floor(x);
    int j = (int) Math.floor(y);
    double fx = x - i;
    double fy = y - j;
    double sx = fx * fx * (3 - 2 * fx);
    double sy = fy * fy * (3 - 2 * fy);
    double below = bump(i, j, octave) * (1 - sx) + bump(i + 1, j, octave) * sx;
    double above = bump(i, j + 1, octave) * (1 - sx) + bump(i + 1, j + 1, octave) * sx;
    return below * (1 - sy) + above * sy;
  }

  private static double bump(int i, int j, int octave) {
    long n =
        Ostrey.SEED + 0x9E3779B97F4A7C15L * (i * 73856093L ^ j * 19349663L ^ octave * 83492791L);
    n = (n ^ n >>> 30) * 0xBF58476D1CE4E5B9L;
    n = (n ^ n >>> 27) * 0x94D049BB133111EBL;
    return ((n ^ n >>> 31) >>> 11) / (double) (1L << 53) - 0.5;
  }

  /** A mean over a square, by rows and by columns. */
  private static void blur(float[] v, int half) {
    float[] out = new float[v.length];
    for (int y = 0; y < ROWS; y++) {
      double sum = 0;
      for (int x = -half; x < COLUMNS + half; x++) {
        if (x + half < COLUMNS) sum += v[y * COLUMNS + Math.max(0, x + half)];
        if (x - half - 1 >= 0) sum -= v[y * COLUMNS + x - half - 1];
        if (x >= 0 && x < COLUMNS) out[y * COLUMNS + x] = (float) (sum / (2 * half + 1));
      }
    }
    for (int x = 0; x < COLUMNS; x++) {
      double sum = 0;
      for (int y = -half; y < ROWS + half; y++) {
        if (y + half < ROWS) sum += out[Math.max(0, y + half) * COLUMNS + x];
        if (y - half - 1 >= 0) sum -= out[(y - half - 1) * COLUMNS + x];
        if (y >= 0 && y < ROWS) v[y * COLUMNS + x] = (float) (sum / (2 * half + 1));
      }
    }
  }

  private double height(double x, double y) {
    double cx = (x - WEST) / CELL - 0.5;
    double cy = ROWS - (y - SOUTH) / CELL - 0.5;
    int i = (int) Math.floor(cx);
    int j = (int) Math.floor(cy);
    if (i < 0 || j < 0 || i >= COLUMNS - 1 || j >= ROWS - 1) return -6;
    double fx = cx - i;
    double fy = cy - j;
    int at = j * COLUMNS + i;
    return (heights[at] * (1 - fx) + heights[at + 1] * fx) * (1 - fy)
        + (heights[at + COLUMNS] * (1 - fx) + heights[at + COLUMNS + 1] * fx) * fy;
  }

  private interface To {
    double of(double km);
  }

  private static Path2D path(Geometry g, To px, To py) {
    Path2D p = new Path2D.Double(Path2D.WIND_EVEN_ODD);
    for (int i = 0; i < g.getNumGeometries(); i++) {
      Geometry part = g.getGeometryN(i);
      LineString l = part instanceof Polygon a ? a.getExteriorRing() : (LineString) part;
      for (int k = 0; k < l.getNumPoints(); k++) {
        Coordinate c = l.getCoordinateN(k);
        if (k == 0) p.moveTo(px.of(c.x), py.of(c.y));
        else p.lineTo(px.of(c.x), py.of(c.y));
      }
      if (part instanceof Polygon) p.closePath();
    }
    return p;
  }

  private void tiles(Path file) throws IOException, SQLException {
    Map<String, String> about = new LinkedHashMap<>();
    about.put("name", "Relief");
    about.put("format", "png");
    about.put("minzoom", String.valueOf(LEAST_ZOOM));
    about.put("maxzoom", String.valueOf(MOST_ZOOM));
    about.put("type", "baselayer");
    about.put("description", "Shaded slopes of the Isle of Ostrey");
    try (MbTilesWriter w = new MbTilesWriter(file, about)) {
      for (int z = LEAST_ZOOM; z <= MOST_ZOOM; z++) {
        double side = Math.scalb(1.0, z);
        double reach = z >= 13 ? 7.9 : 8.8;
        int x1 = (int) (Mercator.x(Ground.lon(reach)) * side);
        int y1 = (int) (Mercator.y(Ground.lat(z >= 13 ? -5.2 : -6)) * side);
        for (int x = (int) (Mercator.x(Ground.lon(-reach)) * side); x <= x1; x++)
          for (int y = (int) (Mercator.y(Ground.lat(z >= 13 ? 5.2 : 6)) * side); y <= y1; y++)
            w.add(z, x, y, tile(z, x, y));
      }
    }
  }

  private byte[] tile(int z, int tx, int ty) throws IOException {
    double side = Math.scalb(1.0, z) * TILE;
    BufferedImage image = new BufferedImage(TILE, TILE, BufferedImage.TYPE_INT_RGB);
    double step =
        Math.max(CELL, Ground.kmEast(Mercator.lon(1 / side)) - Ground.kmEast(Mercator.lon(0)));
    for (int py = 0; py < TILE; py++) {
      double y = Ground.kmNorth(Mercator.lat((ty * (double) TILE + py + 0.5) / side));
      for (int px = 0; px < TILE; px++) {
        double x = Ground.kmEast(Mercator.lon((tx * (double) TILE + px + 0.5) / side));
        image.setRGB(px, py, colour(x, y, step));
      }
    }
    lines(image, z, tx, ty);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(image, "png", out);
    return out.toByteArray();
  }

  private int colour(double x, double y, double step) {
    double h = height(x, y);
    if (h <= 0) return mix(0xdbe6e8, 0xc3d5db, Math.min(1, -h / 6));
    double east = (height(x + step, y) - height(x - step, y)) / (2000 * step);
    double north = (height(x, y + step) - height(x, y - step)) / (2000 * step);
    // light from the north-west, 45 degrees up; slopes are shown six times as steep
    double nx = -6 * east;
    double ny = -6 * north;
    double light = (-0.5 * nx + 0.5 * ny + 0.7071) / Math.sqrt(nx * nx + ny * ny + 1);
    int base =
        h < 6
            ? mix(0xe9ecd9, 0xefe9cf, h / 6)
            : mix(0xefe9cf, 0xd9c7a3, Math.min(1, (h - 6) / 100));
    double shade = Math.max(-1, Math.min(1, (light - 0.7071) * 1.5));
    return shade < 0 ? mix(base, 0x6d6450, -shade * 0.75) : mix(base, 0xffffff, shade * 0.75);
  }

  private static int mix(int a, int b, double t) {
    int out = 0;
    for (int shift = 0; shift <= 16; shift += 8) {
      int p = a >> shift & 255;
      int q = b >> shift & 255;
      out |= (int) Math.round(p + (q - p) * t) << shift;
    }
    return out;
  }

  /** Coast, drains and roads, as thin as they may be. */
  private void lines(BufferedImage image, int z, int tx, int ty) {
    double side = Math.scalb(1.0, z) * TILE;
    To px = x -> Mercator.x(Ground.lon(x)) * side - tx * (double) TILE;
    To py = y -> Mercator.y(Ground.lat(y)) * side - ty * (double) TILE;
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
    float w = (float) Math.max(0.6, Math.scalb(1.0, z - 13));
    pen(g, 0x8f988f, 0.8f * w);
    g.draw(path(ground.land, px, py));
    pen(g, 0x9bb6c2, w);
    for (LineString l : ground.sideDrains) g.draw(path(l, px, py));
    pen(g, 0x86a9ba, 2.2f * w);
    g.draw(path(ground.mainDrain.intersection(ground.land), px, py));
    for (int round = 0; round < 2; round++) {
      pen(g, round == 0 ? 0xa99f88 : 0xfffdf6, round == 0 ? 2.4f * w : 1.4f * w);
      for (LineString l : ground.roads) g.draw(path(l, px, py));
    }
    g.setColor(new Color(0xb3a58c));
    for (Ground.Hamlet h : ground.hamlets) for (Polygon b : h.buildings()) g.fill(path(b, px, py));
    g.dispose();
  }

  private static void pen(Graphics2D g, int rgb, float width) {
    g.setColor(new Color(rgb));
    g.setStroke(new BasicStroke(width, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
  }
}
