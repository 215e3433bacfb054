package org.whinridge.core.read;

import java.util.Arrays;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.locationtech.jts.io.WKBWriter;
import org.whinridge.core.place.GeometryJson;

/** The geometries of a layer: points as two doubles, all others as WKB (OGC 06-103r4). */
final class Shapes {
  private double[] xs = new double[0];
  private double[] ys = new double[0];
  private byte[][] wkb = new byte[0][];
  private long wkbBytes;

  void set(int row, Optional<Geometry> g) {
    if (row >= xs.length) {
      int before = xs.length;
      xs = Arrays.copyOf(xs, row + row / 2 + 16);
      ys = Arrays.copyOf(ys, xs.length);
      Arrays.fill(xs, before, xs.length, Double.NaN);
    }
    xs[row] = Double.NaN;
    if (row < wkb.length && wkb[row] != null) {
      wkbBytes -= wkb[row].length + 16;
      wkb[row] = null;
    }
    if (g.isEmpty() || g.get().isEmpty()) return;
    if (g.get() instanceof Point p) {
      xs[row] = p.getX();
      ys[row] = p.getY();
      return;
    }
    if (row >= wkb.length) wkb = Arrays.copyOf(wkb, row + row / 2 + 16);
    wkb[row] = new WKBWriter(2).write(g.get());
    wkbBytes += wkb[row].length + 16;
  }

  Optional<Geometry> get(int row) {
    if (row < xs.length && !Double.isNaN(xs[row]))
      return Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(xs[row], ys[row])));
    if (row >= wkb.length || wkb[row] == null) return Optional.empty();
    try {
      return Optional.of(new WKBReader(GeometryJson.WGS84).read(wkb[row]));
    } catch (ParseException e) {
      throw new IllegalStateException("own WKB must be readable", e);
    }
  }

  void paths(int row, Paths to, WkbPaths reader) {
    if (row < xs.length && !Double.isNaN(xs[row]))
      to.part(Paths.Part.POINT, new double[] {xs[row]}, new double[] {ys[row]}, 1);
    else if (row < wkb.length && wkb[row] != null) reader.walk(wkb[row], to);
  }

  boolean hasSeveralParts(int row) {
    return row < wkb.length
        && wkb[row] != null
        && get(row).filter(g -> g.getNumGeometries() > 1).isPresent();
  }

  Optional<Envelope> envelope(int row) {
    if (row < xs.length && !Double.isNaN(xs[row]))
      return Optional.of(new Envelope(xs[row], xs[row], ys[row], ys[row]));
    return get(row).map(Geometry::getEnvelopeInternal);
  }

  void trim(int rows) {
    if (xs.length > rows + rows / 8 + 16) {
      xs = Arrays.copyOf(xs, rows);
      ys = Arrays.copyOf(ys, rows);
    }
  }

  long bytes() {
    return 16L * xs.length + 8L * wkb.length + wkbBytes;
  }
}
