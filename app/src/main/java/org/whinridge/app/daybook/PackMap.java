package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.Base64;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.Looks;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.map.ProjectMap;
import org.whinridge.app.map.ProjectMaps;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.LocalPlane;
import org.whinridge.core.place.Mercator;

/**
 * The project's map as a device takes it offline: the layers that are on, with their looks and what
 * lies around the stops, and the tiles of its basemap there.
 */
@Component
class PackMap {
  /** What lies this far around the stops' box is taken along, in metres. */
  private static final double AROUND_M = 1000;

  private static final int MOST_FEATURES = 1500;
  private static final int MOST_TILE_BYTES = 6_000_000;

  private final Layers layers;
  private final LayerQueries queries;
  private final Looks looks;
  private final ProjectMaps maps;
  private final Basemaps basemaps;

  PackMap(Layers layers, LayerQueries queries, Looks looks, ProjectMaps maps, Basemaps basemaps) {
    this.layers = layers;
    this.queries = queries;
    this.looks = looks;
    this.maps = maps;
    this.basemaps = basemaps;
  }

  private static Envelope around(Envelope stops) {
    Envelope box = new Envelope(stops);
    LocalPlane plane = new LocalPlane(box.isNull() ? new Coordinate() : box.centre());
    box.expandBy(plane.degreesEast(AROUND_M), plane.degreesNorth(AROUND_M));
    return box;
  }

  /** The map's layers from the top down; office only fields stay in the office. */
  JsonObject map(UUID project, Envelope stops) {
    ProjectMap map = maps.of(project);
    Envelope box = around(stops);
    JsonArray out = new JsonArray();
    for (ProjectMap.Entry e : map.layers())
      if (e.on()) out.add(layer(layers.get(project, UUID.fromString(e.id())), e, box));
    return new JsonObject().add("basemap", map.basemap()).add("layers", out);
  }

  private JsonObject layer(Layer layer, ProjectMap.Entry e, Envelope box) {
    Schema schema = layer.schema().outdoors();
    JsonArray features = new JsonArray();
    int there = 0;
    for (Feature f : queries.in(layer, box, MOST_FEATURES)) {
      if (++there <= MOST_FEATURES) features.add(Packs.travelling(f, schema).json(schema));
    }
    return new JsonObject()
        .add("id", e.id())
        .add("name", e.said())
        .add("opacity", e.opacity())
        .add("look", looks.of(layer).look().json())
        .add("schema", schema.json())
        .add("cut", there > MOST_FEATURES)
        .add("features", features);
  }

  /**
   * The tiles of the project's basemap around the stops, when it is one of pictures: level by
   * level, as long as they fit.
   */
  Optional<JsonObject> ground(UUID project, Envelope stops) {
    String id = maps.of(project).basemap();
    Optional<Basemaps.Basemap> base =
        basemaps.list(project).stream()
            .filter(b -> b.grid().isPresent())
            .filter(b -> b.id().equals(id))
            .findFirst();
    if (base.isEmpty() || stops.isNull()) return Optional.empty();
    JsonObject grid = base.get().grid().orElseThrow();
    JsonObject tiles = new JsonObject();
    Envelope box = around(stops);
    int bytes = 0;
    JsonArray levels = grid.get("perPixel").asArray();
    int level = grid.getInt("least", 0);
    int last = level;
    for (; level < levels.size() && bytes < MOST_TILE_BYTES; level++) {
      int[] r = range(grid, level, box);
      if ((long) (r[2] - r[0] + 1) * (r[3] - r[1] + 1) > 600) break;
      for (int x = r[0]; x <= r[2]; x++)
        for (int y = r[1]; y <= r[3]; y++) {
          Optional<byte[]> b = basemaps.tile(project, UUID.fromString(id), level, x, y);
          if (b.isEmpty()) continue;
          bytes += b.get().length;
          tiles.add(level + "/" + x + "/" + y, Base64.getEncoder().encodeToString(b.get()));
        }
      last = level;
    }
    JsonArray kept = new JsonArray();
    for (int i = 0; i <= last; i++) kept.add(levels.get(i));
    return Optional.of(
        new JsonObject()
            .add("name", base.get().name())
            .add("grid", Json.parse(grid.toString()).asObject().set("perPixel", kept))
            .add("tiles", tiles));
  }

  /** The first and last column and row of a box. */
  private static int[] range(JsonObject grid, int level, Envelope box) {
    boolean degrees = grid.getString("system", "").equals("EPSG:4326");
    double per = grid.get("perPixel").asArray().get(level).asDouble();
    double w = per * grid.getInt("width", 256);
    double h = per * grid.getInt("height", 256);
    double west = grid.getDouble("west", 0);
    double north = grid.getDouble("north", 0);
    double x0 = degrees ? box.getMinX() : (Mercator.x(box.getMinX()) - 0.5) * Mercator.WORLD_M;
    double x1 = degrees ? box.getMaxX() : (Mercator.x(box.getMaxX()) - 0.5) * Mercator.WORLD_M;
    double y0 = degrees ? box.getMaxY() : (0.5 - Mercator.y(box.getMaxY())) * Mercator.WORLD_M;
    double y1 = degrees ? box.getMinY() : (0.5 - Mercator.y(box.getMinY())) * Mercator.WORLD_M;
    return new int[] {
      (int) Math.floor((x0 - west) / w),
      (int) Math.floor((north - y0) / h),
      (int) Math.floor((x1 - west) / w),
      (int) Math.floor((north - y1) / h)
    };
  }
}
