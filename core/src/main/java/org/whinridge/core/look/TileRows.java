package org.whinridge.core.look;

import java.util.Arrays;
import java.util.BitSet;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.TileIndex;

/**
 * What of a layer goes into one map tile. Where more features lie in a tile than can be told apart,
 * one stands for all in a small cell: the topmost by the legend, with their number, so that the
 * density can be seen.
 */
public final class TileRows {
  /**
   * When some tile of a zoom has more positions than this, all tiles of that zoom are thinned, so
   * that they look alike.
   */
  public static final int MOST_POSITIONS = 4_000;

  /** More lines and areas than this in a tile are thinned, the small ones first. */
  public static final int MOST_SHAPES = 20_000;

  /** Cells along a tile's side for positions, as a power of two: 128 cells, four pixels of 512. */
  private static final int CELL_BITS = 7;

  /** The grid in a tile (MVT 2.1, clause 4.3.1: the usual extent). */
  public static final int EXTENT = 4096;

  private static final int EXTENT_BITS = 12;

  /** How far lines and areas are drawn beyond the tile's edge, in its grid. */
  public static final int BUFFER = 128;

  /** Takes what goes into the tile. */
  public interface To {
    /** A position in the tile's grid; {@code count} is 0 where nothing was thinned. */
    void position(int row, int x, int y, int count);

    /** A line or area, drawn as it is. */
    void shape(int row);

    /** Lines or areas too small to be told apart, at a place in the tile's grid. */
    void dot(int row, int x, int y, int count);
  }

  private final LayerColumns layer;
  private final TileIndex index;
  private final LookRows look;
  private final BitSet only;
  private final BitSet loose;

  /**
   * @param only the rows to draw, null for all
   */
  public TileRows(LayerColumns layer, LookRows look, BitSet only) {
    this.layer = layer;
    this.index = layer.tiles();
    this.look = look;
    this.only = only;
    this.loose = layer.loose();
  }

  private boolean drawn(int row) {
    return layer.has(row) && (only == null || only.get(row));
  }

  /** Whether the index still knows where the row is, and it is drawn. */
  private boolean indexed(int row) {
    return drawn(row) && !loose.get(row);
  }

  /**
   * Gives what lies in a tile.
   *
   * @param z zoom, 0 to 22
   * @param x 0 to 2^z - 1, to the east
   * @param y the same, to the south
   */
  public void in(int z, int x, int y, To to) {
    positions(z, x, y, to);
    shapes(z, x, y, to);
    loose(z, x, y, to);
  }

  private static int grid(int step, int tile, int z) {
    int bits = TileIndex.BITS - z;
    long in = step - ((long) tile << bits);
    return (int) (bits >= EXTENT_BITS ? in >> bits - EXTENT_BITS : in << EXTENT_BITS - bits);
  }

  private void positions(int z, int x, int y, To to) {
    int[] run = index.run(z, x, y);
    int cellBits = 2 * (TileIndex.BITS - z - CELL_BITS);
    if (index.fullest(z) <= MOST_POSITIONS || cellBits <= 0) {
      for (int p = run[0]; p < run[1]; p++)
        if (indexed(index.row(p)))
          to.position(index.row(p), grid(index.x(p), x, z), grid(index.y(p), y, z), 0);
      return;
    }
    int p = run[0];
    while (p < run[1]) {
      long cell = index.code(p) >>> cellBits;
      int best = -1;
      int count = 0;
      for (; p < run[1] && index.code(p) >>> cellBits == cell; p++) {
        int row = index.row(p);
        if (!indexed(row)) continue;
        count++;
        if (best < 0 || above(row, index.row(best))) best = p;
      }
      if (best >= 0)
        to.position(index.row(best), grid(index.x(best), x, z), grid(index.y(best), y, z), count);
    }
  }

  /** Whether a row is drawn over another: a later entry, what fits nowhere below all. */
  private boolean above(int row, int than) {
    return order(row) > order(than);
  }

  private int order(int row) {
    return look.top(row) == look.other() ? -1 : look.top(row);
  }

  private void shapes(int z, int x, int y, To to) {
    if (index.boxes() == 0) return;
    int bits = TileIndex.BITS - z;
    long margin = ((long) BUFFER << bits) / EXTENT;
    long west = ((long) x << bits) - margin;
    long north = ((long) y << bits) - margin;
    long east = ((long) (x + 1) << bits) + margin;
    long south = ((long) (y + 1) << bits) + margin;
    int[] hits = new int[256];
    int n = 0;
    for (int b = 0; b < index.boxes(); b++)
      if (index.meets(b, west, north, east, south) && indexed(index.boxRow(b))) {
        if (n == hits.length) hits = Arrays.copyOf(hits, 2 * n);
        hits[n++] = b;
      }
    double side = tooSmall(hits, n, bits);
    Dots dots = new Dots();
    for (int i = 0; i < n; i++)
      if (index.side(hits[i]) >= side) to.shape(index.boxRow(hits[i]));
      else
        dots.add(
            index.boxRow(hits[i]),
            grid(index.middleX(hits[i]), x, z),
            grid(index.middleY(hits[i]), y, z));
    dots.give(to);
  }

  /**
   * Below this length in steps shapes are dots: a quarter of a pixel, more where there are many.
   */
  private double tooSmall(int[] hits, int n, int bits) {
    double pixel = Math.scalb(1.0, bits) / 512;
    for (double side = pixel / 4; side < 32 * pixel; side *= 2) {
      int large = 0;
      for (int i = 0; i < n && large <= MOST_SHAPES; i++) if (index.side(hits[i]) >= side) large++;
      if (large <= MOST_SHAPES) return side;
    }
    return 32 * pixel;
  }

  /** One dot for each cell. */
  private final class Dots {
    private static final int SIDE = 1 << CELL_BITS;
    private static final int CELL = EXTENT / SIDE;
    private int[] rows;
    private int[] counts;
    private int[] places;

    void add(int row, int gx, int gy) {
      if (gx < 0 || gy < 0 || gx >= EXTENT || gy >= EXTENT) return; // the tile beside has it
      if (rows == null) {
        rows = new int[SIDE * SIDE];
        counts = new int[SIDE * SIDE];
        places = new int[SIDE * SIDE];
      }
      int cell = gy / CELL * SIDE + gx / CELL;
      if (counts[cell]++ == 0 || above(row, rows[cell])) {
        rows[cell] = row;
        places[cell] = gy * EXTENT + gx;
      }
    }

    void give(To to) {
      if (rows == null) return;
      for (int c = 0; c < counts.length; c++)
        if (counts[c] > 0) to.dot(rows[c], places[c] % EXTENT, places[c] / EXTENT, counts[c]);
    }
  }

  /** What changed since the index was made: few, so looked at one by one. */
  private void loose(int z, int x, int y, To to) {
    double scale = Math.scalb(1.0, z) * EXTENT;
    for (int r = loose.nextSetBit(0); r >= 0; r = loose.nextSetBit(r + 1)) {
      if (!drawn(r)) continue;
      int row = r;
      boolean[] shape = new boolean[1];
      layer.paths(
          r,
          (what, xs, ys, n) -> {
            if (what != org.whinridge.core.read.Paths.Part.POINT) {
              shape[0] = true;
              return;
            }
            int gx = (int) Math.floor(Mercator.x(xs[0]) * scale - (double) x * EXTENT);
            int gy = (int) Math.floor(Mercator.y(ys[0]) * scale - (double) y * EXTENT);
            if (gx >= 0 && gy >= 0 && gx < EXTENT && gy < EXTENT) to.position(row, gx, gy, 0);
          });
      if (shape[0]) to.shape(r);
    }
  }
}
