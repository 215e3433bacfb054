package org.whinridge.formats.tiles;

import java.util.Arrays;
import org.whinridge.core.look.TileRows;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.read.Paths;

/**
 * Turns parts of a geometry into the commands of a vector tile (MVT 2.1, clause 4.3): put into the
 * tile's grid, cut at its buffer, without repeated points, rings wound as the specification wants.
 */
final class TileGeometry implements Paths {
  static final int POINT = 1;
  static final int LINE = 2;
  static final int POLYGON = 3;
  private static final double LOW = -TileRows.BUFFER;
  private static final double HIGH = TileRows.EXTENT + TileRows.BUFFER;

  final Bytes commands = new Bytes();
  private double scale;
  private double left;
  private double top;
  private Mercator.Near near;
  private int type;
  private int atX;
  private int atY;
  private boolean shellDrawn;
  private double[] xs = new double[256];
  private double[] ys = new double[256];
  private double[] otherXs = new double[256];
  private double[] otherYs = new double[256];
  private int[] gridXs = new int[256];
  private int[] gridYs = new int[256];

  void tile(int z, int x, int y) {
    scale = Math.scalb(1.0, z) * TileRows.EXTENT;
    left = (double) x * TileRows.EXTENT;
    top = (double) y * TileRows.EXTENT;
    near = new Mercator.Near(Mercator.lat((y + 0.5) / Math.scalb(1.0, z)));
  }

  void begin() {
    commands.clear();
    type = 0;
    atX = 0;
    atY = 0;
    shellDrawn = false;
  }

  /** The type of what was drawn; 0 when nothing lies in the tile. */
  int type() {
    return commands.length == 0 ? 0 : type;
  }

  void position(int x, int y) {
    type = POINT;
    commands.varint(1 << 3 | 1);
    move(x, y);
  }

  @Override
  public void part(Part what, double[] lons, double[] lats, int n) {
    if (what == Part.POINT) return;
    room(n);
    boolean inside = true;
    for (int i = 0; i < n; i++) {
      xs[i] = Mercator.x(lons[i]) * scale - left;
      ys[i] = near.y(lats[i]) * scale - top;
      inside &= xs[i] >= LOW && xs[i] <= HIGH && ys[i] >= LOW && ys[i] <= HIGH;
    }
    if (what == Part.LINE) {
      type = LINE;
      if (inside) path(0, n);
      else clippedLine(n);
      return;
    }
    type = POLYGON;
    if (what == Part.HOLE && !shellDrawn) return;
    int open = n - 1;
    if (!inside) open = clippedRing(open);
    boolean drawn = open >= 3 && ring(open, what == Part.SHELL);
    if (what == Part.SHELL) shellDrawn = drawn;
  }

  private void room(int n) {
    if (2 * n + 16 <= xs.length) return;
    int size = 3 * n + 16;
    xs = Arrays.copyOf(xs, size);
    ys = Arrays.copyOf(ys, size);
    otherXs = Arrays.copyOf(otherXs, size);
    otherYs = Arrays.copyOf(otherYs, size);
    gridXs = new int[size];
    gridYs = new int[size];
  }

  private void move(int x, int y) {
    commands.zigzag(x - atX);
    commands.zigzag(y - atY);
    atX = x;
    atY = y;
  }

  /** Puts points into the grid, those that fall on the one before left out. */
  private int grid(double[] x, double[] y, int from, int to) {
    int n = 0;
    for (int i = from; i < to; i++) {
      int gx = (int) Math.floor(x[i] + 0.5);
      int gy = (int) Math.floor(y[i] + 0.5);
      if (n > 0 && gridXs[n - 1] == gx && gridYs[n - 1] == gy) continue;
      gridXs[n] = gx;
      gridYs[n++] = gy;
    }
    return n;
  }

  private void path(int from, int to) {
    int n = grid(xs, ys, from, to);
    if (n < 2) return;
    commands.varint(1 << 3 | 1);
    move(gridXs[0], gridYs[0]);
    commands.varint((long) (n - 1) << 3 | 2);
    for (int i = 1; i < n; i++) move(gridXs[i], gridYs[i]);
  }

  /**
   * Cuts each stretch at the box (Y.-D. Liang, B. A. Barsky, 1984) and joins what hangs together.
   */
  private void clippedLine(int n) {
    int kept = 0;
    double[] cut = new double[4];
    for (int i = 1; i < n; i++) {
      boolean in = stretch(xs[i - 1], ys[i - 1], xs[i], ys[i], cut);
      boolean joins = in && kept > 0 && cut[0] == otherXs[kept - 1] && cut[1] == otherYs[kept - 1];
      if (!joins) kept = done(kept);
      if (!in) continue;
      if (kept == 0) {
        otherXs[0] = cut[0];
        otherYs[kept++] = cut[1];
      }
      otherXs[kept] = cut[2];
      otherYs[kept++] = cut[3];
    }
    done(kept);
  }

  private int done(int kept) {
    if (kept > 1) {
      double[] x = xs;
      double[] y = ys;
      xs = otherXs;
      ys = otherYs;
      path(0, kept);
      xs = x;
      ys = y;
    }
    return 0;
  }

  private static boolean stretch(double x0, double y0, double x1, double y1, double[] cut) {
    double from = 0;
    double to = 1;
    double dx = x1 - x0;
    double dy = y1 - y0;
    double[] p = {-dx, dx, -dy, dy};
    double[] q = {x0 - LOW, HIGH - x0, y0 - LOW, HIGH - y0};
    for (int i = 0; i < 4; i++) {
      if (p[i] == 0) {
        if (q[i] < 0) return false;
      } else if (p[i] < 0) from = Math.max(from, q[i] / p[i]);
      else to = Math.min(to, q[i] / p[i]);
    }
    if (from > to) return false;
    cut[0] = from == 0 ? x0 : x0 + from * dx;
    cut[1] = from == 0 ? y0 : y0 + from * dy;
    cut[2] = to == 1 ? x1 : x0 + to * dx;
    cut[3] = to == 1 ? y1 : y0 + to * dy;
    return true;
  }

  /** Cuts a ring at each side of the box in turn (I. E. Sutherland, G. W. Hodgman, 1974). */
  private int clippedRing(int n) {
    int left = n;
    for (int side = 0; side < 4 && left > 0; side++) {
      int kept = 0;
      for (int i = 0; i < left; i++) {
        int before = i == 0 ? left - 1 : i - 1;
        double a = depth(xs[before], ys[before], side);
        double b = depth(xs[i], ys[i], side);
        if (a >= 0 != b >= 0) {
          double t = a / (a - b);
          otherXs[kept] = xs[before] + t * (xs[i] - xs[before]);
          otherYs[kept++] = ys[before] + t * (ys[i] - ys[before]);
        }
        if (b >= 0) {
          otherXs[kept] = xs[i];
          otherYs[kept++] = ys[i];
        }
      }
      double[] x = xs;
      xs = otherXs;
      otherXs = x;
      double[] y = ys;
      ys = otherYs;
      otherYs = y;
      left = kept;
      grow(2 * left + 8);
    }
    return left;
  }

  private void grow(int n) {
    if (n <= Math.min(Math.min(xs.length, otherXs.length), gridXs.length)) return;
    xs = Arrays.copyOf(xs, 2 * n);
    ys = Arrays.copyOf(ys, 2 * n);
    otherXs = Arrays.copyOf(otherXs, 2 * n);
    otherYs = Arrays.copyOf(otherYs, 2 * n);
    gridXs = Arrays.copyOf(gridXs, 2 * n);
    gridYs = Arrays.copyOf(gridYs, 2 * n);
  }

  /** How far inside of a side a point is. */
  private static double depth(double x, double y, int side) {
    return switch (side) {
      case 0 -> x - LOW;
      case 1 -> HIGH - x;
      case 2 -> y - LOW;
      default -> HIGH - y;
    };
  }

  private boolean ring(int open, boolean shell) {
    int n = grid(xs, ys, 0, open);
    while (n > 1 && gridXs[0] == gridXs[n - 1] && gridYs[0] == gridYs[n - 1]) n--;
    if (n < 3) return false;
    long twice = 0;
    for (int i = 0, k = n - 1; i < n; k = i++)
      twice += (long) gridXs[k] * gridYs[i] - (long) gridXs[i] * gridYs[k];
    if (twice == 0) return false;
    boolean turn = twice > 0 != shell;
    commands.varint(1 << 3 | 1);
    move(gridXs[turn ? n - 1 : 0], gridYs[turn ? n - 1 : 0]);
    commands.varint((long) (n - 1) << 3 | 2);
    for (int i = 1; i < n; i++) move(gridXs[turn ? n - 1 - i : i], gridYs[turn ? n - 1 - i : i]);
    commands.varint(1 << 3 | 7);
    return true;
  }
}
