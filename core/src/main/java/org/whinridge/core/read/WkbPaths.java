package org.whinridge.core.read;

import java.nio.ByteBuffer;
import java.util.Arrays;

/**
 * Walks through WKB (OGC 06-103r4) of two dimensions, as {@link Shapes} keeps it, without making
 * geometries. One that is used for many rows keeps its arrays; for one thread.
 */
public final class WkbPaths {
  private double[] xs = new double[64];
  private double[] ys = new double[64];

  void walk(byte[] wkb, Paths to) {
    geometry(ByteBuffer.wrap(wkb), to);
  }

  private void geometry(ByteBuffer b, Paths to) {
    if (b.get() != 0) throw new IllegalStateException("own WKB is big-endian");
    int type = b.getInt();
    switch (type) {
      case 1 -> {
        coordinates(b, 1);
        to.part(Paths.Part.POINT, xs, ys, 1);
      }
      case 2 -> to.part(Paths.Part.LINE, xs, ys, coordinates(b, b.getInt()));
      case 3 -> {
        int rings = b.getInt();
        for (int i = 0; i < rings; i++)
          to.part(i == 0 ? Paths.Part.SHELL : Paths.Part.HOLE, xs, ys, coordinates(b, b.getInt()));
      }
      default -> {
        int parts = b.getInt();
        for (int i = 0; i < parts; i++) geometry(b, to);
      }
    }
  }

  private int coordinates(ByteBuffer b, int n) {
    if (n > xs.length) {
      xs = Arrays.copyOf(xs, n + n / 2);
      ys = Arrays.copyOf(ys, xs.length);
    }
    for (int i = 0; i < n; i++) {
      xs[i] = b.getDouble();
      ys[i] = b.getDouble();
    }
    return n;
  }
}
