package org.whinridge.formats.geopackage;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.io.ByteOrderValues;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.locationtech.jts.io.WKBWriter;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Unfit;

/**
 * The binary form of geometries in a GeoPackage: a header, then WKB. Source: OGC 12-128r18, section
 * 2.1.3.
 */
final class GeoPackageBinary {
  private static final int[] ENVELOPE_BYTES = {0, 32, 48, 48, 64};

  private GeoPackageBinary() {}

  /**
   * Reads a geometry; empty for an empty one.
   *
   * @throws IllegalArgumentException with a sentence part for people
   */
  static Optional<Geometry> read(byte[] b) {
    if (b.length < 8 || b[0] != 'G' || b[1] != 'P') throw new Unfit("file.geometryDoesNotBegin");
    int envelope = b[3] >> 1 & 7;
    if (envelope > 4) throw new Unfit("file.geometryUnknownEnvelope");
    int at = 8 + ENVELOPE_BYTES[envelope];
    if ((b[3] & 16) != 0) return Optional.empty();
    if (b.length == at + 21 && b[at] == 1) {
      ByteBuffer p = ByteBuffer.wrap(b, at + 1, 20).order(ByteOrder.LITTLE_ENDIAN);
      if (p.getInt() == 1) return point(p.getDouble(), p.getDouble());
    }
    return Wkb.read(java.util.Arrays.copyOfRange(b, Math.min(at, b.length), b.length));
  }

  private static Optional<Geometry> point(double x, double y) {
    if (Double.isNaN(x) && Double.isNaN(y)) return Optional.empty();
    return Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(x, y)));
  }

  /** WKB from outside. */
  static final class Wkb {
    private Wkb() {}

    static Optional<Geometry> read(byte[] wkb) {
      try {
        Geometry g = new WKBReader(GeometryJson.WGS84).read(wkb);
        return g.isEmpty() ? Optional.empty() : Optional.of(g);
      } catch (ParseException | RuntimeException | OutOfMemoryError e) {
        // counts in damaged WKB make the reader throw many kinds
        throw new Unfit("file.geometryDamaged").because(e);
      }
    }
  }

  /** Writes a geometry: header with envelope for all but points, little-endian. */
  static byte[] write(Geometry g, int srs) {
    if (g instanceof Point p && !g.isEmpty()) {
      byte[] out = new byte[29];
      ByteBuffer b = ByteBuffer.wrap(out).order(ByteOrder.LITTLE_ENDIAN);
      b.put((byte) 'G').put((byte) 'P').put((byte) 0).put((byte) 1).putInt(srs);
      b.put((byte) 1).putInt(1).putDouble(p.getX()).putDouble(p.getY());
      return out;
    }
    byte[] wkb = new WKBWriter(2, ByteOrderValues.LITTLE_ENDIAN, false).write(g);
    boolean envelope = !g.isEmpty() && g.getDimension() > 0;
    ByteBuffer b =
        ByteBuffer.allocate(8 + (envelope ? 32 : 0) + wkb.length).order(ByteOrder.LITTLE_ENDIAN);
    b.put((byte) 'G').put((byte) 'P').put((byte) 0);
    b.put((byte) (1 | (envelope ? 2 : 0) | (g.isEmpty() ? 16 : 0))).putInt(srs);
    Envelope e = g.getEnvelopeInternal();
    if (envelope)
      b.putDouble(e.getMinX()).putDouble(e.getMaxX()).putDouble(e.getMinY()).putDouble(e.getMaxY());
    return b.put(wkb).array();
  }
}
