package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntConsumer;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Well-known text of a geometry, or a BBOX, inside a rule; two ordinates to a position, degrees.
 */
final class GeometryText {
  private final List<Token> tokens;
  private int i;
  private final String kind;
  private final Span at;

  GeometryText(List<Token> tokens, int i, String kind, Span at) {
    this.tokens = tokens;
    this.i = i;
    this.kind = kind;
    this.at = at;
  }

  Node read(IntConsumer goOnAt) {
    try {
      Geometry g = geometry();
      goOnAt.accept(i);
      return new Node.Literal(new Value.Place(g), at.to(tokens.get(i - 1).at()));
    } catch (IllegalArgumentException e) {
      throw bad(Said.of("rule.unsound", "kind", kind));
    }
  }

  private Geometry geometry() {
    var f = GeometryJson.WGS84;
    switch (kind) {
      case "BBOX":
        {
          List<Double> v = parts(this::number);
          if (v.size() != 4 && v.size() != 6) throw bad(Said.of("rule.bboxNumbers"));
          int half = v.size() / 2;
          return box(v.get(0), v.get(1), v.get(half), v.get(half + 1));
        }
      case "GEOMETRYCOLLECTION":
        return f.createGeometryCollection(parts(this::member).toArray(new Geometry[0]));
      case "POINT":
        return f.createPoint(positions().get(0));
      case "LINESTRING":
        return f.createLineString(array());
      case "POLYGON":
        return polygon();
      case "MULTIPOINT":
        return f.createMultiPointFromCoords(array());
      case "MULTILINESTRING":
        return f.createMultiLineString(
            parts(() -> f.createLineString(array())).toArray(new LineString[0]));
      default:
        return f.createMultiPolygon(parts(this::polygon).toArray(new Polygon[0]));
    }
  }

  /** A box; where west lies east of east it reaches over the date line. */
  private Geometry box(double west, double south, double east, double north) {
    if (!GeometryJson.inRange(west, south) || !GeometryJson.inRange(east, north) || south > north)
      throw bad(Said.of("rule.bboxDegrees"));
    var f = GeometryJson.WGS84;
    if (west <= east) return f.toGeometry(new Envelope(west, east, south, north));
    return f.createMultiPolygon(
        new Polygon[] {
          (Polygon) f.toGeometry(new Envelope(west, 180, south, north)),
          (Polygon) f.toGeometry(new Envelope(-180, east, south, north))
        });
  }

  private Geometry member() {
    String inner = tokens.get(i).text().toUpperCase(java.util.Locale.ROOT);
    if (inner.equals("GEOMETRYCOLLECTION")) throw bad(Said.of("rule.collectionInside"));
    if (!Parser.WKT.contains(inner))
      throw bad(Said.of("rule.wantGeometry", "found", tokens.get(i).said()));
    i++;
    GeometryText one = new GeometryText(tokens, i, inner, at);
    Geometry g = one.geometry();
    i = one.i;
    return g;
  }

  private Polygon polygon() {
    List<LinearRing> rings = parts(() -> GeometryJson.WGS84.createLinearRing(array()));
    return GeometryJson.WGS84.createPolygon(
        rings.get(0), rings.subList(1, rings.size()).toArray(new LinearRing[0]));
  }

  private <T> List<T> parts(java.util.function.Supplier<T> one) {
    List<T> out = new ArrayList<>();
    sign("(");
    out.add(one.get());
    while (tokens.get(i).sign(",")) {
      i++;
      out.add(one.get());
    }
    sign(")");
    return out;
  }

  private Coordinate[] array() {
    return positions().toArray(new Coordinate[0]);
  }

  private List<Coordinate> positions() {
    return parts(
        () -> {
          boolean bracket = tokens.get(i).sign("(");
          if (bracket) i++;
          double x = number();
          double y = number();
          if (tokens.get(i).kind() == Token.Kind.NUMBER || tokens.get(i).sign("-"))
            number(); // a height is read over
          if (bracket) sign(")");
          if (!GeometryJson.inRange(x, y)) throw bad(Said.of("rule.degrees"));
          return new Coordinate(x, y);
        });
  }

  private void sign(String s) {
    if (!tokens.get(i).sign(s))
      throw bad(Said.of("rule.wantSign", "sign", s, "kind", kind, "found", tokens.get(i).said()));
    i++;
  }

  private double number() {
    boolean minus = tokens.get(i).sign("-");
    if (minus) i++;
    Token t = tokens.get(i);
    if (t.kind() != Token.Kind.NUMBER)
      throw bad(Said.of("rule.wantNumber", "kind", kind, "found", t.said()));
    i++;
    try {
      return minus ? -Double.parseDouble(t.text()) : Double.parseDouble(t.text());
    } catch (NumberFormatException e) {
      throw bad(Said.of("rule.notANumber", "found", t.said()));
    }
  }

  private RuleSyntax bad(Said message) {
    return new RuleSyntax(
        new RuleProblem(RuleProblem.Kind.BAD_LITERAL, tokens.get(i).at(), message, ""));
  }
}
