package org.whinridge.engine;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygon;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.PlaneNearest;
import org.whinridge.core.place.Reach;
import org.whinridge.core.place.Reshaping;
import org.whinridge.core.place.TypedPlace;
import org.whinridge.core.text.Numbers;

/** Measuring, reshaping and typed positions across the border, JSON in and out. */
final class ShapeBorder {
  private ShapeBorder() {}

  /**
   * {@code {op, geometry, …}}: measure (kind) gives lengthM, areaM2 and what is wrong; split, less
   * and fill (lon, lat), part and hole (with) give geometries; typed (text, code, definition) gives
   * a position; reach (metres) gives the boxes [west, south, east, north] that hold all that lies
   * so near. What can't be done gives {@code {}}.
   */
  static JsonObject run(JsonObject o) {
    if (o.getString("op", "").equals("typed")) return typed(o);
    Optional<Geometry> g = geometry(o.get("geometry"));
    if (g.isEmpty()) return new JsonObject();
    Coordinate at = new Coordinate(o.getDouble("lon", 0), o.getDouble("lat", 0));
    return switch (o.getString("op", "")) {
      case "distance" ->
          new JsonObject().add("distanceM", Numbers.round(PlaneNearest.distanceM(g.get(), at), 2));
      case "reach" -> reach(g.get(), o.getDouble("metres", 0));
      case "measure" -> measure(g.get(), o.getString("kind", ""));
      case "split" -> Reshaping.split(g.get(), at).map(ShapeBorder::two).orElse(new JsonObject());
      case "less" -> one(Reshaping.withoutPart(g.get(), at));
      case "fill" -> one(Reshaping.withoutHole(g.get(), at));
      case "part" -> one(geometry(o.get("with")).map(p -> Reshaping.withPart(g.get(), p)));
      case "hole" ->
          one(
              geometry(o.get("with"))
                  .filter(p -> p instanceof Polygon)
                  .flatMap(p -> Reshaping.withHole(g.get(), (Polygon) p)));
      default -> new JsonObject();
    };
  }

  private static JsonObject reach(Geometry g, double metres) {
    JsonArray boxes = new JsonArray();
    for (Envelope e : Reach.boxes(g.getEnvelopeInternal(), metres))
      boxes.add(
          new JsonArray()
              .add(Numbers.json(e.getMinX()))
              .add(Numbers.json(e.getMinY()))
              .add(Numbers.json(e.getMaxX()))
              .add(Numbers.json(e.getMaxY())));
    return new JsonObject().add("boxes", boxes);
  }

  private static Optional<Geometry> geometry(JsonValue v) {
    return v == null || !v.isObject() ? Optional.empty() : GeometryJson.read(v.asObject());
  }

  private static JsonObject one(Optional<Geometry> g) {
    return g.map(x -> new JsonObject().add("geometry", GeometryJson.write(x)))
        .orElse(new JsonObject());
  }

  private static JsonObject two(List<Geometry> parts) {
    return new JsonObject()
        .add("geometry", GeometryJson.write(parts.get(0)))
        .add("rest", GeometryJson.write(parts.get(1)));
  }

  private static JsonObject measure(Geometry g, String kind) {
    JsonObject o =
        new JsonObject()
            .add("lengthM", Numbers.round(Geodesy.lengthM(g), 4))
            .add("areaM2", Numbers.round(Geodesy.areaM2(g), 2));
    if (g.isEmpty()) o.add("empty", true);
    Reshaping.fault(g, GeometryKind.of(kind).orElse(GeometryKind.POINT))
        .ifPresent(
            f -> {
              o.add("fault", f.message().json());
              f.at().ifPresent(c -> o.add("at", Json.array(c.x, c.y)));
            });
    return o;
  }

  private static JsonObject typed(JsonObject o) {
    TypedPlace.Read r =
        TypedPlace.read(
            o.getString("text", ""),
            CoordinateSystem.of(o.getString("code", ""), o.getString("definition", "")));
    JsonObject out = new JsonObject().add("message", r.message().json());
    r.at().ifPresent(c -> out.add("at", Json.array(c.x, c.y)));
    return out;
  }
}
