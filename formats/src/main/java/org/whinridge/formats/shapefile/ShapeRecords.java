package org.whinridge.formats.shapefile;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.algorithm.Area;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.algorithm.PointLocation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateArrays;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.formats.source.ZAndM;

/**
 * The contents of the records of a .shp file. Source: the published Shapefile Technical Description
 * (July 1998), from memory.
 */
final class ShapeRecords {
  static final int NULL = 0;
  static final int POINT = 1;
  static final int LINE = 3;
  static final int POLYGON = 5;
  static final int MULTIPOINT = 8;
  private static final GeometryFactory GEOMETRIES = GeometryJson.WGS84;

  private ShapeRecords() {}

  /**
   * Reads a record; empty for a null shape and for one without positions. For heights and measures
   * see {@link #zAndM}.
   *
   * @throws IllegalArgumentException with a sentence part for people
   */
  static Optional<Geometry> read(byte[] content) {
    ByteBuffer b = ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN);
    try {
      int type = b.getInt();
      if (type == NULL) return Optional.empty();
      int kind = type % 10;
      if (type < 0
          || type > 28
          || !(kind == POINT || kind == LINE || kind == POLYGON || kind == MULTIPOINT))
        throw new Unfit("file.shapeTypeCantBe", "type", type);
      if (kind == POINT) {
        Coordinate c = new Coordinate(b.getDouble(), b.getDouble());
        return Double.isNaN(c.x) || c.x < -1e38
            ? Optional.empty()
            : Optional.of(GEOMETRIES.createPoint(c));
      }
      return several(b, kind, content.length);
    } catch (java.nio.BufferUnderflowException e) {
      throw new Unfit("file.shapeShorterThanSays").because(e);
    }
  }

  /**
   * Adds the heights and measures of a record to the values of its feature. What is damaged is left
   * out here; the reading of the shape tells it.
   */
  static void zAndM(byte[] content, Map<String, Value> values) {
    ByteBuffer b = ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN);
    if (content.length < 4) return;
    int type = b.getInt(0);
    boolean z = type > 10 && type < 20;
    if (!z && type < 21) return;
    int kind = type % 10;
    try {
      if (kind == POINT) {
        double[] first = {b.getDouble(20)};
        double[] second = content.length >= 36 ? new double[] {b.getDouble(28)} : new double[0];
        ZAndM.put(z ? first : new double[0], z ? second : first, values);
        return;
      }
      int parts = kind == MULTIPOINT ? 0 : b.getInt(36);
      int n = b.getInt(kind == MULTIPOINT ? 36 : 40);
      long at = (kind == MULTIPOINT ? 40 : 44) + 4L * parts + 16L * n;
      double[] heights = z ? column(b, at, n) : new double[0];
      ZAndM.put(heights, column(b, z ? at + 16 + 8L * n : at, n), values);
    } catch (IndexOutOfBoundsException e) {
      // shorter than it says: told with its shape
    }
  }

  /** The numbers after their least and greatest; none when the record ends before them. */
  private static double[] column(ByteBuffer b, long at, int n) {
    if (n < 0 || at < 0 || at + 16 + 8L * n > b.limit()) return new double[0];
    double[] out = new double[n];
    for (int i = 0; i < n; i++) out[i] = b.getDouble((int) at + 16 + 8 * i);
    return out;
  }

  private static Optional<Geometry> several(ByteBuffer b, int kind, int length) {
    b.position(Math.min(b.limit(), 36));
    int parts = kind == MULTIPOINT ? 1 : b.getInt();
    int n = b.getInt();
    if (parts < 0 || n < 0 || (long) n * 16 + (long) parts * 4 > length)
      throw new Unfit("file.shapeSaysMorePositions");
    if (n == 0 || parts == 0) return Optional.empty();
    int[] starts = new int[parts + 1];
    starts[parts] = n;
    if (kind != MULTIPOINT)
      for (int i = 0; i < parts; i++) {
        starts[i] = b.getInt();
        if (starts[i] < 0 || starts[i] > n || i > 0 && starts[i] < starts[i - 1])
          throw new Unfit("file.partsShapeOutOrder");
      }
    Coordinate[] all = new Coordinate[n];
    for (int i = 0; i < n; i++) all[i] = new Coordinate(b.getDouble(), b.getDouble());
    if (kind == MULTIPOINT)
      return Optional.of(
          n == 1 ? GEOMETRIES.createPoint(all[0]) : GEOMETRIES.createMultiPointFromCoords(all));
    List<Coordinate[]> pieces = new ArrayList<>();
    for (int i = 0; i < parts; i++) pieces.add(Arrays.copyOfRange(all, starts[i], starts[i + 1]));
    return kind == LINE ? lines(pieces) : polygons(pieces);
  }

  private static Optional<Geometry> lines(List<Coordinate[]> pieces) {
    LineString[] lines =
        pieces.stream()
            .filter(p -> p.length > 1)
            .map(GEOMETRIES::createLineString)
            .toArray(LineString[]::new);
    if (lines.length == 0) throw new Unfit("file.lineSinglePosition");
    return Optional.of(lines.length == 1 ? lines[0] : GEOMETRIES.createMultiLineString(lines));
  }

  /** Clockwise rings are shells, the others holes of the smallest shell around them. */
  private static Optional<Geometry> polygons(List<Coordinate[]> pieces) {
    List<LinearRing> shells = new ArrayList<>();
    List<LinearRing> holes = new ArrayList<>();
    for (Coordinate[] p : pieces) {
      if (p.length < 4) continue;
      if (!p[0].equals2D(p[p.length - 1])) throw new Unfit("file.ringPolygonNotClosed");
      (Area.ofRingSigned(p) >= 0 ? shells : holes).add(GEOMETRIES.createLinearRing(p));
    }
    if (shells.isEmpty()) {
      shells.addAll(holes);
      holes.clear();
    }
    if (shells.isEmpty()) throw new Unfit("file.polygonNoRingFour");
    List<List<LinearRing>> holesOf = new ArrayList<>();
    for (int i = 0; i < shells.size(); i++) holesOf.add(new ArrayList<>());
    for (LinearRing h : holes) {
      int best = shellOf(h, shells);
      if (best < 0) {
        shells.add(h);
        holesOf.add(new ArrayList<>());
      } else holesOf.get(best).add(h);
    }
    Polygon[] out = new Polygon[shells.size()];
    for (int i = 0; i < out.length; i++)
      out[i] = GEOMETRIES.createPolygon(shells.get(i), holesOf.get(i).toArray(new LinearRing[0]));
    return Optional.of(out.length == 1 ? out[0] : GEOMETRIES.createMultiPolygon(out));
  }

  private static int shellOf(LinearRing hole, List<LinearRing> shells) {
    int best = -1;
    for (int i = 0; i < shells.size(); i++) {
      Envelope e = shells.get(i).getEnvelopeInternal();
      if (e.covers(hole.getEnvelopeInternal())
          && PointLocation.isInRing(hole.getCoordinateN(0), shells.get(i).getCoordinates())
          && (best < 0 || shells.get(best).getEnvelopeInternal().covers(e))) best = i;
    }
    return best;
  }

  /** The content of a record for a geometry of the file's type. */
  static byte[] write(Optional<Geometry> geometry, int type) {
    if (geometry.isEmpty() || geometry.get().isEmpty()) return new byte[4];
    Geometry g = geometry.get();
    if (type == POINT) {
      Coordinate c = g.getCoordinate();
      return little(20).putInt(POINT).putDouble(c.x).putDouble(c.y).array();
    }
    List<Coordinate[]> parts = new ArrayList<>();
    for (int i = 0; i < g.getNumGeometries(); i++) {
      if (g.getGeometryN(i) instanceof Polygon p) {
        parts.add(wound(p.getExteriorRing(), false));
        for (int k = 0; k < p.getNumInteriorRing(); k++)
          parts.add(wound(p.getInteriorRingN(k), true));
      } else parts.add(g.getGeometryN(i).getCoordinates());
    }
    int n = parts.stream().mapToInt(p -> p.length).sum();
    boolean points = type == MULTIPOINT;
    Envelope e = g.getEnvelopeInternal();
    ByteBuffer b = little((points ? 40 : 44 + 4 * parts.size()) + 16 * n).putInt(type);
    b.putDouble(e.getMinX()).putDouble(e.getMinY()).putDouble(e.getMaxX()).putDouble(e.getMaxY());
    if (!points) b.putInt(parts.size());
    b.putInt(n);
    int at = 0;
    if (!points)
      for (Coordinate[] p : parts) {
        b.putInt(at);
        at += p.length;
      }
    for (Coordinate[] p : parts) for (Coordinate c : p) b.putDouble(c.x).putDouble(c.y);
    return b.array();
  }

  static ByteBuffer little(int bytes) {
    return ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
  }

  private static Coordinate[] wound(LinearRing r, boolean counterClockwise) {
    Coordinate[] c = r.getCoordinates();
    if (Orientation.isCCW(c) == counterClockwise) return c;
    Coordinate[] turned = c.clone();
    CoordinateArrays.reverse(turned);
    return turned;
  }
}
