package org.whinridge.core.read;

import java.util.Arrays;
import java.util.BitSet;
import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.place.Mercator;

/** Finds the rows in a box, up to a number of them. */
public final class InView {
  private InView() {}

  /**
   * The rows whose position or box meets a box in degrees, in rising order; at most {@code most}
   * and one more, which says that there are more.
   *
   * @param only the rows to look at, null for all
   */
  public static int[] rows(LayerColumns layer, Envelope box, BitSet only, int most) {
    TileIndex index = layer.tiles();
    BitSet changed = layer.changedTiles();
    int west = TileIndex.step(Mercator.x(box.getMinX()));
    int east = TileIndex.step(Mercator.x(box.getMaxX()));
    int north = TileIndex.step(Mercator.y(box.getMaxY()));
    int south = TileIndex.step(Mercator.y(box.getMinY()));
    int[] out = new int[Math.min(most + 1, layer.rows())];
    int n = 0;
    int[] run = index.run(0, 0, 0);
    for (int p = run[0]; p < run[1] && n < out.length; p++) {
      int x = index.x(p);
      int y = index.y(p);
      if (x >= west
          && x <= east
          && y >= north
          && y <= south
          && counts(layer, index.row(p), only, changed)) out[n++] = index.row(p);
    }
    for (int b = 0; b < index.boxes() && n < out.length; b++)
      if (index.meets(b, west, north, east, south) && counts(layer, index.boxRow(b), only, changed))
        out[n++] = index.boxRow(b);
    for (int r = changed.nextSetBit(0); r >= 0 && n < out.length; r = changed.nextSetBit(r + 1))
      if (layer.has(r) && (only == null || only.get(r)) && layer.meets(r, box)) out[n++] = r;
    return Arrays.stream(out, 0, n).sorted().distinct().toArray();
  }

  private static boolean counts(LayerColumns layer, int row, BitSet only, BitSet changed) {
    return layer.has(row) && !changed.get(row) && (only == null || only.get(row));
  }
}
