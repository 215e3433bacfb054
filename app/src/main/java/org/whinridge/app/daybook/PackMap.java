package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.look.LookTiles;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.map.ProjectMap;
import org.whinridge.app.map.ProjectMaps;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.place.Mercator;
import org.whinridge.core.place.Reach;
import org.whinridge.core.travel.Outdoors;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.tiles.TilePictures;

/**
 * The project's map as a device takes it offline: the layers that are on, with their looks and what
 * lies around the stops, and the tiles of its basemap there.
 */
@Component
class PackMap {
  /** What lies this far around the stops' box is taken along, in metres. */
  private static final double AROUND_M = 1000;

  /** A layer with more of them travels as tiles. */
  private static final int MOST_FEATURES = 5000;

  private static final int MOST_VECTOR_BYTES = 3_000_000;

  /** The most tiles of the coarsest level, and the finest level of vector tiles. */
  private static final int FEW_TILES = 6;

  private static final int FINEST = 16;
  private static final int MOST_TILE_BYTES = 6_000_000;

  /** The most tiles of one level. */
  private static final int MOST_TILES = 600;

  private final Layers layers;
  private final LayerQueries queries;
  private final Looks looks;
  private final LookTiles lookTiles;
  private final ProjectMaps maps;
  private final Basemaps basemaps;

  PackMap(
      Layers layers,
      LayerQueries queries,
      Looks looks,
      LookTiles lookTiles,
      ProjectMaps maps,
      Basemaps basemaps) {
    this.lookTiles = lookTiles;
    this.layers = layers;
    this.queries = queries;
    this.looks = looks;
    this.maps = maps;
    this.basemaps = basemaps;
  }

  /** The map's layers from the top down. */
  Pack.MapAround map(UUID project, Envelope stops) {
    ProjectMap map = maps.of(project);
    return new Pack.MapAround(
        map.basemap(),
        map.layers().stream()
            .filter(ProjectMap.Entry::on)
            .map(e -> layer(layers.get(project, UUID.fromString(e.id())), e, stops))
            .toList());
  }

  private Pack.MapLayer layer(Layer layer, ProjectMap.Entry e, Envelope stops) {
    Schema schema = layer.schema();
    List<JsonObject> features = new ArrayList<>();
    int there = 0;
    boolean tiled = isTiled(layer, stops);
    if (!tiled)
      for (Feature f : queries.around(layer, stops, AROUND_M, MOST_FEATURES)) {
        if (++there <= MOST_FEATURES) features.add(Outdoors.json(f, schema));
      }
    return new Pack.MapLayer(
        e.id(),
        e.said(),
        e.opacity(),
        Outdoors.lookJson(looks.of(layer).look(), schema),
        Outdoors.schemaJson(schema),
        there > MOST_FEATURES,
        tiled,
        features);
  }

  /** The layers that travel as tiles. */
  List<UUID> tiled(UUID project, Envelope stops) {
    return maps.of(project).layers().stream()
        .filter(ProjectMap.Entry::on)
        .map(e -> layers.get(project, UUID.fromString(e.id())))
        .filter(l -> isTiled(l, stops))
        .map(Layer::id)
        .toList();
  }

  /**
   * One that is drawn otherwise outdoors than at the desk, since its look shows what stays in the
   * office, never travels as the desk's tiles.
   */
  private boolean isTiled(Layer layer, Envelope stops) {
    if (layer.count() <= MOST_FEATURES || stops.isNull()) return false;
    Look own = looks.of(layer).look();
    return Outdoors.look(own, layer.schema()).equals(own)
        && queries.around(layer, stops, AROUND_M, MOST_FEATURES).size() > MOST_FEATURES;
  }

  /** A layer's tiles around the stops, level by level as long as they fit. */
  Pack.Tiles tiles(Layer layer, Envelope stops) {
    List<Envelope> boxes = Reach.boxes(stops, AROUND_M);
    Map<String, String> out = new LinkedHashMap<>();
    int least = 0;
    while (least < FINEST && webTiles(least + 1, boxes).size() <= FEW_TILES) least++;
    int bytes = 0;
    int most = least;
    for (int z = least; z <= FINEST; z++) {
      List<int[]> at = webTiles(z, boxes);
      if (z > least && (bytes >= MOST_VECTOR_BYTES || at.size() > MOST_TILES)) break;
      for (int[] t : at) {
        byte[] tile = lookTiles.tile(layer, "", LayerFilter.ALL, z, t[0], t[1]);
        if (tile.length == 0) continue;
        bytes += tile.length;
        out.put(z + "/" + t[0] + "/" + t[1], Base64.getEncoder().encodeToString(tile));
      }
      most = z;
    }
    return new Pack.Tiles(least, most, out);
  }

  /** The tiles of Web Mercator that boxes in degrees meet; one more than may be taken at most. */
  private static List<int[]> webTiles(int z, List<Envelope> boxes) {
    int n = 1 << z;
    List<int[]> out = new ArrayList<>();
    Set<Long> seen = new HashSet<>();
    for (Envelope b : boxes)
      for (int x = column(b.getMinX(), n); x <= column(b.getMaxX(), n); x++)
        for (int y = row(b.getMaxY(), n); y <= row(b.getMinY(), n); y++) {
          if (seen.add((long) x << 32 | y)) out.add(new int[] {x, y});
          if (out.size() > MOST_TILES) return out;
        }
    return out;
  }

  private static int column(double lon, int n) {
    return Math.max(0, Math.min(n - 1, (int) Math.floor(Mercator.x(lon) * n)));
  }

  private static int row(double lat, int n) {
    return Math.max(0, Math.min(n - 1, (int) Math.floor(Mercator.y(lat) * n)));
  }

  /**
   * The tiles of the project's basemap around the stops, when it is one of pictures: level by
   * level, as long as they fit.
   */
  Optional<Pack.Ground> ground(UUID project, Envelope stops) {
    String id = maps.of(project).basemap();
    Optional<Basemaps.Basemap> base =
        basemaps.list(project).stream()
            .filter(b -> b.grid().isPresent())
            .filter(b -> b.id().equals(id))
            .findFirst();
    if (base.isEmpty() || stops.isNull()) return Optional.empty();
    try {
      return Optional.of(
          tiles(
              base.get().name(),
              basemaps.pictures(project, UUID.fromString(id)),
              Reach.boxes(stops, AROUND_M)));
    } catch (FileProblem e) {
      throw Refusal.refused("refused.basemapsFileCantBe", "why", Refusal.said(e));
    }
  }

  private static Pack.Ground tiles(String name, TilePictures from, List<Envelope> boxes)
      throws FileProblem {
    Map<String, String> tiles = new LinkedHashMap<>();
    int bytes = 0;
    int last = from.grid().least();
    for (int level = last; level < from.grid().perPixel().length; level++) {
      List<int[]> at = tilesOf(from, level, boxes);
      if (bytes >= MOST_TILE_BYTES || at.size() > MOST_TILES) break;
      for (int[] t : at) {
        Optional<byte[]> b = from.tile(level, t[0], t[1]);
        if (b.isEmpty()) continue;
        bytes += b.get().length;
        tiles.put(level + "/" + t[0] + "/" + t[1], Base64.getEncoder().encodeToString(b.get()));
      }
      last = level;
    }
    boolean cut = last < from.grid().perPixel().length - 1;
    return new Pack.Ground(name, from.grid().upTo(last).json(), cut, tiles);
  }

  /** The tiles that boxes meet, each once; one more than may be taken when there are more. */
  private static List<int[]> tilesOf(TilePictures from, int level, List<Envelope> boxes) {
    List<int[]> out = new ArrayList<>();
    Set<Long> seen = new HashSet<>();
    for (Envelope box : boxes) {
      int[] first = from.grid().at(level, box.getMinX(), box.getMaxY());
      int[] end = from.grid().at(level, box.getMaxX(), box.getMinY());
      for (int x = first[0]; x <= end[0]; x++)
        for (int y = first[1]; y <= end[1]; y++) {
          if (seen.add((long) x << 32 | y)) out.add(new int[] {x, y});
          if (out.size() > MOST_TILES) return out;
        }
    }
    return out;
  }
}
