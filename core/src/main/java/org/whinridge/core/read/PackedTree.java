package org.whinridge.core.read;

import java.util.Arrays;
import java.util.function.IntPredicate;
import org.locationtech.jts.geom.Envelope;

/**
 * A packed R-tree over the boxes of rows, in plain arrays: rows in the order of a Z curve (G. M.
 * Morton, 1966) through the boxes' middles, sixteen to a node, node boxes level by level (packing
 * by a space-filling curve: I. Kamel and C. Faloutsos, 1993). Boxes are whole steps of 1.7
 * ten-millionths of a degree, rounded outwards, so that a search never misses a row; whoever needs
 * more looks at the row itself.
 */
final class PackedTree {
  private static final int NODE = 16;
  private static final double STEPS = 2147483647.0;
  private final int[] rows;
  private final int[] boxes;
  private final int[] levels;

  /**
   * @param rows in the order of the curve
   * @param boxes west, south, east, north of each row, then of each node, level by level
   */
  private PackedTree(int[] rows, int[] boxes) {
    this.rows = rows;
    this.boxes = boxes;
    int n = rows.length;
    int[] starts = new int[16];
    int depth = 0;
    int at = 0;
    while (true) {
      starts[depth++] = at;
      at += n;
      if (n <= 1) break;
      n = (n + NODE - 1) / NODE;
    }
    starts[depth] = at;
    this.levels = Arrays.copyOf(starts, depth + 1);
  }

  /** A tree as it was read from a file. */
  static PackedTree read(int[] rows, int[] boxes) {
    PackedTree t = new PackedTree(rows, boxes);
    if (boxes.length != 4 * t.levels[t.levels.length - 1])
      throw new IllegalArgumentException("the tree has another size than its rows say");
    return t;
  }

  int[] rows() {
    return rows;
  }

  int[] boxes() {
    return boxes;
  }

  private static int step(double degrees, double half, boolean up) {
    double s = (degrees + half) / (2 * half) * STEPS;
    return (int) Math.max(0, Math.min(STEPS, up ? Math.ceil(s) : Math.floor(s)));
  }

  /** The tree over all rows that have a feature with a place. */
  static PackedTree of(LayerColumns layer) {
    int n = 0;
    int[] rowOf = new int[layer.rows()];
    int[] found = new int[4 * layer.rows()];
    long[] codes = new long[layer.rows()];
    Box box = new Box();
    WkbPaths reader = new WkbPaths();
    for (int r = 0; r < layer.rows(); r++) {
      if (!layer.has(r)) continue;
      box.clear();
      layer.paths(r, box, reader);
      if (box.west > box.east) continue;
      rowOf[n] = r;
      int i = 4 * n;
      found[i] = step(box.west, 180, false);
      found[i + 1] = step(box.south, 90, false);
      found[i + 2] = step(box.east, 180, true);
      found[i + 3] = step(box.north, 90, true);
      codes[n] =
          TileIndex.code(
              (int) (((long) found[i] + found[i + 2]) / 2),
              (int) (((long) found[i + 1] + found[i + 3]) / 2));
      n++;
    }
    int[] order = new int[n];
    for (int i = 0; i < n; i++) order[i] = i;
    Radix.sort(Arrays.copyOf(codes, n), order);
    return packed(rowOf, order, found);
  }

  private static PackedTree packed(int[] rowOf, int[] order, int[] found) {
    int n = order.length;
    int total = 0;
    for (int m = n; ; m = (m + NODE - 1) / NODE) {
      total += m;
      if (m <= 1) break;
    }
    int[] boxes = new int[4 * total];
    int[] rows = new int[n];
    for (int k = 0; k < n; k++) {
      rows[k] = rowOf[order[k]];
      System.arraycopy(found, 4 * order[k], boxes, 4 * k, 4);
    }
    int below = 0;
    int at = n;
    for (int m = n; m > 1; m = (m + NODE - 1) / NODE) {
      for (int k = 0; k < m; k += NODE) {
        join(boxes, below + k, Math.min(NODE, m - k), at);
        at++;
      }
      below += m;
    }
    return new PackedTree(rows, boxes);
  }

  private static void join(int[] boxes, int from, int n, int to) {
    int t = 4 * to;
    System.arraycopy(boxes, 4 * from, boxes, t, 4);
    for (int k = 1; k < n; k++) {
      int i = 4 * (from + k);
      boxes[t] = Math.min(boxes[t], boxes[i]);
      boxes[t + 1] = Math.min(boxes[t + 1], boxes[i + 1]);
      boxes[t + 2] = Math.max(boxes[t + 2], boxes[i + 2]);
      boxes[t + 3] = Math.max(boxes[t + 3], boxes[i + 3]);
    }
  }

  private static final class Box implements Paths {
    double west;
    double south;
    double east;
    double north;

    void clear() {
      west = south = Double.POSITIVE_INFINITY;
      east = north = Double.NEGATIVE_INFINITY;
    }

    @Override
    public void part(Part what, double[] xs, double[] ys, int n) {
      for (int i = 0; i < n; i++) {
        west = Math.min(west, xs[i]);
        east = Math.max(east, xs[i]);
        south = Math.min(south, ys[i]);
        north = Math.max(north, ys[i]);
      }
    }
  }

  /** Gives rows whose box meets one, until {@code to} says false. */
  void search(Envelope box, IntPredicate to) {
    if (rows.length == 0 || box.isNull()) return;
    int[] wanted = {
      step(box.getMinX(), 180, false),
      step(box.getMinY(), 90, false),
      step(box.getMaxX(), 180, true),
      step(box.getMaxY(), 90, true)
    };
    search(levels.length - 2, 0, 1, wanted, to);
  }

  private boolean search(int level, int from, int n, int[] wanted, IntPredicate to) {
    for (int k = from; k < from + n; k++) {
      int i = 4 * (levels[level] + k);
      if (boxes[i] > wanted[2]
          || boxes[i + 2] < wanted[0]
          || boxes[i + 1] > wanted[3]
          || boxes[i + 3] < wanted[1]) continue;
      if (level == 0) {
        if (!to.test(rows[k])) return false;
      } else {
        int size = levels[level] - levels[level - 1];
        int first = k * NODE;
        if (!search(level - 1, first, Math.min(NODE, size - first), wanted, to)) return false;
      }
    }
    return true;
  }

  /** Memory taken, in bytes. */
  long bytes() {
    return 4L * rows.length + 4L * boxes.length;
  }
}
