package org.whinridge.core.place;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.PrecisionModel;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;

/**
 * GeoJSON geometry objects (RFC 7946 section 3.1) to JTS and back; heights are dropped, coordinates
 * are longitude, latitude.
 */
public final class GeometryJson {
  /** The one factory: WGS 84 (4326), full precision. */
  public static final GeometryFactory WGS84 = new GeometryFactory(new PrecisionModel(), 4326);

  private GeometryJson() {}

  /** The GeoJSON form, rings wound by the right-hand rule (RFC 7946 section 3.1.6). */
  public static JsonObject write(Geometry g) {
    JsonObject o = new JsonObject().add("type", g.getGeometryType());
    if (!g.getGeometryType().equals("GeometryCollection"))
      return o.add("coordinates", coordinates(g));
    JsonArray parts = new JsonArray();
    for (int i = 0; i < g.getNumGeometries(); i++) parts.add(write(g.getGeometryN(i)));
    return o.add("geometries", parts);
  }

  private static JsonValue coordinates(Geometry g) {
    if (g instanceof Point p) return p.isEmpty() ? new JsonArray() : position(p.getCoordinate());
    if (g instanceof LineString l) return positions(l.getCoordinates());
    JsonArray a = new JsonArray();
    if (g instanceof Polygon p) {
      if (p.isEmpty()) return a;
      a.add(ring(p.getExteriorRing(), true));
      for (int i = 0; i < p.getNumInteriorRing(); i++) a.add(ring(p.getInteriorRingN(i), false));
      return a;
    }
    for (int i = 0; i < g.getNumGeometries(); i++) a.add(coordinates(g.getGeometryN(i)));
    return a;
  }

  private static JsonArray ring(LinearRing ring, boolean counterClockwise) {
    boolean ccw = org.locationtech.jts.algorithm.Orientation.isCCW(ring.getCoordinateSequence());
    return positions(
        ccw == counterClockwise ? ring.getCoordinates() : ring.reverse().getCoordinates());
  }

  private static JsonArray positions(Coordinate[] cs) {
    JsonArray a = new JsonArray();
    for (Coordinate c : cs) a.add(position(c));
    return a;
  }

  private static JsonArray position(Coordinate c) {
    return new JsonArray().add(Numbers.json(c.x)).add(Numbers.json(c.y));
  }

  /**
   * Reads a point, line or polygon, single or multi-part. Empty when the object is not one of
   * these, a position is out of range (longitude -180 to 180, latitude -90 to 90), or a ring is not
   * closed or has fewer than four positions.
   */
  public static Optional<Geometry> read(JsonObject o) {
    try {
      return Optional.of(readOrSay(o));
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  /**
   * As {@link #read}, but says what is wrong.
   *
   * @throws IllegalArgumentException with a sentence part for people, such as "longitude 181 is out
   *     of range"
   */
  public static Geometry readOrSay(JsonObject o) {
    return readOrSay(o, true);
  }

  private static Geometry readOrSay(JsonObject o, boolean degrees) {
    JsonValue type = o.get("type");
    JsonValue c = o.get("coordinates");
    if (type == null || !type.isString()) throw new Unfit("geometry.noType");
    if (c == null || !c.isArray())
      throw new Unfit("geometry.noCoordinates", "type", type.asString());
    try {
      return geometry(type.asString(), c.asArray(), degrees);
    } catch (UnsupportedOperationException | IndexOutOfBoundsException e) {
      throw new Unfit("geometry.nesting", "type", type.asString()).because(e);
    }
  }

  /**
   * As {@link #readOrSay}, but takes positions of any system: finite, of any range.
   *
   * @throws IllegalArgumentException with a sentence part for people
   */
  public static Geometry readAnywhere(JsonObject o) {
    JsonValue type = o.get("type");
    if (type != null && type.isString() && type.asString().equals("GeometryCollection")) {
      JsonValue parts = o.get("geometries");
      if (parts == null || !parts.isArray()) throw new Unfit("geometry.noGeometries");
      java.util.List<Geometry> out = new java.util.ArrayList<>();
      for (JsonValue p : parts.asArray()) {
        if (!p.isObject()) throw new Unfit("geometry.noGeometry");
        out.add(readAnywhere(p.asObject()));
      }
      return WGS84.createGeometryCollection(out.toArray(new Geometry[0]));
    }
    return readOrSay(o, false);
  }

  private static Geometry geometry(String type, JsonArray c, boolean degrees) {
    switch (type) {
      case "Point":
        return WGS84.createPoint(at(c, degrees));
      case "LineString":
        return lineString(type, c, degrees);
      case "Polygon":
        return polygon(type, c, degrees);
      case "MultiPoint":
        return WGS84.createMultiPointFromCoords(line(c, degrees));
      case "MultiLineString":
        {
          LineString[] parts = new LineString[c.size()];
          for (int i = 0; i < parts.length; i++)
            parts[i] = lineString(type, c.get(i).asArray(), degrees);
          return WGS84.createMultiLineString(parts);
        }
      case "MultiPolygon":
        {
          Polygon[] parts = new Polygon[c.size()];
          for (int i = 0; i < parts.length; i++)
            parts[i] = polygon(type, c.get(i).asArray(), degrees);
          return WGS84.createMultiPolygon(parts);
        }
      default:
        throw new Unfit("geometry.type", "type", type);
    }
  }

  private static Polygon polygon(String type, JsonArray c, boolean degrees) {
    LinearRing[] holes = new LinearRing[Math.max(0, c.size() - 1)];
    for (int i = 0; i < holes.length; i++)
      holes[i] = linearRing(type, c.get(i + 1).asArray(), degrees);
    return WGS84.createPolygon(linearRing(type, c.get(0).asArray(), degrees), holes);
  }

  private static LinearRing linearRing(String type, JsonArray c, boolean degrees) {
    Coordinate[] cs = line(c, degrees);
    if (cs.length > 0 && (cs.length < 4 || !cs[0].equals2D(cs[cs.length - 1])))
      throw new Unfit("geometry.ring", "type", type);
    return WGS84.createLinearRing(cs);
  }

  private static LineString lineString(String type, JsonArray c, boolean degrees) {
    Coordinate[] cs = line(c, degrees);
    if (cs.length == 1) throw new Unfit("geometry.onePosition", "type", type);
    return WGS84.createLineString(cs);
  }

  private static Coordinate[] line(JsonArray c, boolean degrees) {
    Coordinate[] cs = new Coordinate[c.size()];
    for (int i = 0; i < cs.length; i++) cs[i] = at(c.get(i).asArray(), degrees);
    return cs;
  }

  private static Coordinate at(JsonArray c, boolean degrees) {
    double x = c.get(0).asDouble();
    double y = c.get(1).asDouble();
    if (degrees && !inRange(x, y))
      throw x >= -180 && x <= 180
          ? new Unfit("geometry.latitude", "n", c.get(1))
          : new Unfit("geometry.longitude", "n", c.get(0));
    return new Coordinate(x, y);
  }

  /** Whether a position is on the earth: longitude -180 to 180, latitude -90 to 90, both finite. */
  public static boolean inRange(double longitude, double latitude) {
    return longitude >= -180 && longitude <= 180 && latitude >= -90 && latitude <= 90;
  }

  /** Parses and reads in one go; empty also when the text is not JSON. */
  public static Optional<Geometry> parse(String json) {
    try {
      JsonValue v = Json.parse(json);
      return v.isObject() ? read(v.asObject()) : Optional.empty();
    } catch (com.eclipsesource.json.ParseException e) {
      return Optional.empty();
    }
  }
}
