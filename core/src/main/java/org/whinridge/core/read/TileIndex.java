package org.whinridge.core.read;

import java.util.Arrays;
import org.whinridge.core.place.Mercator;

/**
 * Where the features of a layer lie in the world of map tiles, in whole steps: the world is 2^31
 * steps wide and high, x to the east, y to the south. Positions are kept in the order of a Z curve
 * (G. M. Morton, 1966), in which a tile of any zoom is one run; lines and areas by their boxes.
 */
public final class TileIndex {
  /** The bits of a step's number. */
  public static final int BITS = 31;

  private long[] codes = new long[1024];
  private int[] rows = new int[1024];
  private int positions;
  private int[] boxRows = new int[64];
  private int[] boxes = new int[256];
  private int boxed;
  private final int[] fullest = new int[BITS + 1];

  private TileIndex() {}

  /** An index as it was read from a file. */
  static TileIndex read(long[] codes, int[] rows, int[] boxRows, int[] boxes) {
    if (codes.length != rows.length || boxes.length != 4 * boxRows.length)
      throw new IllegalArgumentException("the index of tiles is not whole");
    TileIndex t = new TileIndex();
    t.codes = codes;
    t.rows = rows;
    t.positions = codes.length;
    t.boxRows = boxRows;
    t.boxes = boxes;
    t.boxed = boxRows.length;
    t.countFullest();
    return t;
  }

  long[] codes() {
    return codes;
  }

  int[] rows() {
    return rows;
  }

  int[] boxRows() {
    return boxRows;
  }

  int[] boxCorners() {
    return boxes;
  }

  /** The index of all rows. */
  static TileIndex of(LayerColumns layer) {
    TileIndex t = new TileIndex();
    Box box = new Box();
    WkbPaths reader = new WkbPaths();
    for (int r = 0; r < layer.rows(); r++) {
      if (!layer.has(r)) continue;
      box.clear();
      int row = r;
      layer.paths(
          r,
          (what, xs, ys, n) -> {
            if (what == Paths.Part.POINT) t.position(xs[0], ys[0], row);
            else box.add(xs, ys, n);
          },
          reader);
      if (!box.isEmpty()) t.box(box, row);
    }
    t.codes = Arrays.copyOf(t.codes, t.positions);
    t.rows = Arrays.copyOf(t.rows, t.positions);
    t.boxRows = Arrays.copyOf(t.boxRows, t.boxed);
    t.boxes = Arrays.copyOf(t.boxes, 4 * t.boxed);
    Radix.sort(t.codes, t.rows);
    t.countFullest();
    return t;
  }

  /** Counts for each zoom what lies in its fullest tile, in one walk along the curve. */
  private void countFullest() {
    int[] from = new int[BITS + 1];
    for (int p = 1; p <= positions; p++) {
      // neighbours part at the zoom where their codes first differ, and at all below it
      long differs = p == positions ? -1 : codes[p] ^ codes[p - 1];
      int parts = differs < 0 ? 0 : BITS - (63 - Long.numberOfLeadingZeros(differs)) / 2;
      if (differs == 0) continue;
      for (int z = Math.max(0, parts); z <= BITS; z++) {
        fullest[z] = Math.max(fullest[z], p - from[z]);
        from[z] = p;
      }
    }
  }

  private static final class Box {
    int west;
    int north;
    int east;
    int south;

    void clear() {
      west = north = Integer.MAX_VALUE;
      east = south = -1;
    }

    boolean isEmpty() {
      return east < 0;
    }

    void add(double[] xs, double[] ys, int n) {
      for (int i = 0; i < n; i++) {
        int x = step(Mercator.x(xs[i]));
        int y = step(Mercator.y(ys[i]));
        west = Math.min(west, x);
        east = Math.max(east, x);
        north = Math.min(north, y);
        south = Math.max(south, y);
      }
    }
  }

  private void position(double lon, double lat, int row) {
    if (positions == codes.length) {
      codes = Arrays.copyOf(codes, 2 * positions);
      rows = Arrays.copyOf(rows, 2 * positions);
    }
    codes[positions] = code(step(Mercator.x(lon)), step(Mercator.y(lat)));
    rows[positions++] = row;
  }

  private void box(Box b, int row) {
    if (boxed == boxRows.length) {
      boxRows = Arrays.copyOf(boxRows, 2 * boxed);
      boxes = Arrays.copyOf(boxes, 8 * boxed);
    }
    boxRows[boxed] = row;
    boxes[4 * boxed] = b.west;
    boxes[4 * boxed + 1] = b.north;
    boxes[4 * boxed + 2] = b.east;
    boxes[4 * boxed + 3] = b.south;
    boxed++;
  }

  /** A place of 0 to 1 as a step; outside it is at the edge. */
  public static int step(double place) {
    return (int) Math.max(0, Math.min(Integer.MAX_VALUE, Math.floor(place * 2147483648.0)));
  }

  /** The place on the Z curve of a step. */
  static long code(int x, int y) {
    return spread(x) | spread(y) << 1;
  }

  private static long spread(int v) {
    long n = v;
    n = (n | n << 16) & 0x0000ffff0000ffffL;
    n = (n | n << 8) & 0x00ff00ff00ff00ffL;
    n = (n | n << 4) & 0x0f0f0f0f0f0f0f0fL;
    n = (n | n << 2) & 0x3333333333333333L;
    return (n | n << 1) & 0x5555555555555555L;
  }

  private static int gather(long n) {
    n &= 0x5555555555555555L;
    n = (n | n >>> 1) & 0x3333333333333333L;
    n = (n | n >>> 2) & 0x0f0f0f0f0f0f0f0fL;
    n = (n | n >>> 4) & 0x00ff00ff00ff00ffL;
    n = (n | n >>> 8) & 0x0000ffff0000ffffL;
    return (int) (n | n >>> 16);
  }

  /**
   * The first position of a square: that of the tile z / x / y, when {@code shift} is twice (31 -
   * z) and {@code code} its place on the curve of zoom z.
   */
  int from(long code, int shift) {
    long wanted = shift >= 62 ? 0 : code << shift;
    int low = 0;
    int high = positions;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (codes[middle] < wanted) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** The run of positions in a tile: the first, and the one after the last. */
  public int[] run(int z, int x, int y) {
    int shift = 2 * (BITS - z);
    if (shift >= 62) return new int[] {0, positions};
    long code = code(x, y);
    return new int[] {from(code, shift), from(code + 1, shift)};
  }

  /** How many positions the fullest tile of a zoom has. */
  public int fullest(int z) {
    return fullest[z];
  }

  /** The row of a position. */
  public int row(int position) {
    return rows[position];
  }

  /** The place on the curve of a position. */
  public long code(int position) {
    return codes[position];
  }

  /** A position's step to the east. */
  public int x(int position) {
    return gather(codes[position]);
  }

  /** A position's step to the south. */
  public int y(int position) {
    return gather(codes[position] >>> 1);
  }

  /** How many lines and areas there are. */
  public int boxes() {
    return boxed;
  }

  /** The row of a line or area. */
  public int boxRow(int box) {
    return boxRows[box];
  }

  /** Whether a box meets one in steps. */
  public boolean meets(int box, long west, long north, long east, long south) {
    int i = 4 * box;
    return boxes[i] <= east
        && boxes[i + 2] >= west
        && boxes[i + 1] <= south
        && boxes[i + 3] >= north;
  }

  /** The longer side of a box in steps. */
  public int side(int box) {
    int i = 4 * box;
    return Math.max(boxes[i + 2] - boxes[i], boxes[i + 3] - boxes[i + 1]);
  }

  /** The middle of a box, a step to the east. */
  public int middleX(int box) {
    return (int) (((long) boxes[4 * box] + boxes[4 * box + 2]) / 2);
  }

  /** The middle of a box, a step to the south. */
  public int middleY(int box) {
    return (int) (((long) boxes[4 * box + 1] + boxes[4 * box + 3]) / 2);
  }

  /** Memory taken, in bytes. */
  long bytes() {
    return 12L * codes.length + 20L * boxRows.length;
  }
}
