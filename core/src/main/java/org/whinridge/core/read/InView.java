package org.whinridge.core.read;

import java.util.Arrays;
import java.util.BitSet;
import org.locationtech.jts.geom.Envelope;

/** Finds the rows in a box, up to a number of them. */
public final class InView {
  private InView() {}

  /** Collects rows up to a number. */
  private static final class Hits {
    private int[] rows = new int[64];
    private int n;
    private final int most;

    Hits(int most) {
      this.most = most;
    }

    boolean add(int row) {
      if (n == rows.length) rows = Arrays.copyOf(rows, 2 * n);
      rows[n++] = row;
      return n < most;
    }
  }

  /**
   * The rows whose envelope meets a box in degrees, in rising order; at most {@code most} and one
   * more, which says that there are more.
   *
   * @param only the rows to look at, null for all
   */
  public static int[] rows(LayerColumns layer, Envelope box, BitSet only, int most) {
    Hits hits = new Hits(most + 1);
    BitSet loose = layer.loose();
    for (int r = loose.nextSetBit(0); r >= 0 && hits.n <= most; r = loose.nextSetBit(r + 1))
      if (counts(layer, r, only) && layer.meets(r, box)) hits.add(r);
    if (hits.n <= most)
      layer
          .tree()
          .search(
              box,
              row ->
                  loose.get(row)
                      || !counts(layer, row, only)
                      || !layer.meets(row, box)
                      || hits.add(row));
    return Arrays.stream(hits.rows, 0, hits.n).sorted().toArray();
  }

  private static boolean counts(LayerColumns layer, int row, BitSet only) {
    return layer.has(row) && (only == null || only.get(row));
  }
}
