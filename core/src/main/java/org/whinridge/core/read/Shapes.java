package org.whinridge.core.read;

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
  private final Pages<double[]> xs;
  private final Pages<double[]> ys;
  private final Pages<byte[][]> wkb;
  private long wkbBytes;

  Shapes() {
    this(Pages.ofNumbers(), Pages.ofNumbers(), Pages.ofBytes(), 0);
  }

  Shapes(Pages<double[]> xs, Pages<double[]> ys, Pages<byte[][]> wkb, long wkbBytes) {
    this.xs = xs;
    this.ys = ys;
    this.wkb = wkb;
    this.wkbBytes = wkbBytes;
  }

  Shapes newer() {
    return new Shapes(xs.newer(), ys.newer(), wkb.newer(), wkbBytes);
  }

  Pages<double[]> xs() {
    return xs;
  }

  Pages<double[]> ys() {
    return ys;
  }

  private double x(int row) {
    double[] page = xs.at(row);
    int i = Pages.in(row);
    return i < page.length ? page[i] : Double.NaN;
  }

  private double y(int row) {
    return ys.at(row)[Pages.in(row)];
  }

  /** The WKB of a row that is no point; null for none. */
  byte[] wkb(int row) {
    byte[][] page = wkb.at(row);
    int i = Pages.in(row);
    return i < page.length ? page[i] : null;
  }

  void set(int row, Optional<Geometry> g) {
    byte[] old = wkb(row);
    if (old != null) {
      wkbBytes -= old.length + 16;
      wkb.own(row)[Pages.in(row)] = null;
    }
    boolean none = g.isEmpty() || g.get().isEmpty();
    if (!none && g.get() instanceof Point p) {
      xs.own(row)[Pages.in(row)] = p.getX();
      ys.own(row)[Pages.in(row)] = p.getY();
      return;
    }
    if (!Double.isNaN(x(row))) xs.own(row)[Pages.in(row)] = Double.NaN;
    if (none) return;
    byte[] bytes = new WKBWriter(2).write(g.get());
    wkb.own(row)[Pages.in(row)] = bytes;
    wkbBytes += bytes.length + 16;
  }

  Optional<Geometry> get(int row) {
    double x = x(row);
    if (!Double.isNaN(x))
      return Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(x, y(row))));
    byte[] bytes = wkb(row);
    if (bytes == null) return Optional.empty();
    try {
      return Optional.of(new WKBReader(GeometryJson.WGS84).read(bytes));
    } catch (ParseException e) {
      throw new IllegalStateException("own WKB must be readable", e);
    }
  }

  void paths(int row, Paths to, WkbPaths reader) {
    double x = x(row);
    byte[] bytes = Double.isNaN(x) ? wkb(row) : null;
    if (!Double.isNaN(x)) to.part(Paths.Part.POINT, new double[] {x}, new double[] {y(row)}, 1);
    else if (bytes != null) reader.walk(bytes, to);
  }

  boolean hasSeveralParts(int row) {
    return wkb(row) != null && get(row).filter(g -> g.getNumGeometries() > 1).isPresent();
  }

  Optional<Envelope> envelope(int row) {
    double x = x(row);
    if (!Double.isNaN(x)) return Optional.of(new Envelope(x, x, y(row), y(row)));
    return get(row).map(Geometry::getEnvelopeInternal);
  }

  /** Whether a row is a point within a box; decides without making a geometry. */
  boolean isPoint(int row) {
    return !Double.isNaN(x(row));
  }

  boolean pointIn(int row, Envelope box) {
    return box.contains(x(row), y(row));
  }

  void end(int rows) {
    xs.end(rows);
    ys.end(rows);
    wkb.end(rows);
  }

  long wkbBytes() {
    return wkbBytes;
  }

  long bytes(int rows) {
    return 8 * (xs.places(rows) + ys.places(rows) + wkb.places(rows)) + wkbBytes;
  }
}
