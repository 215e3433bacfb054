package org.whinridge.app.layer.look;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.look.Picture;
import org.whinridge.core.place.PlaneNearest;
import org.whinridge.core.place.Reach;
import org.whinridge.core.read.InView;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.text.Numbers;

/** What the desk's maps show of a layer: features and tiles as its look draws them. */
@RestController
class LayerMapApi {
  /** Vectors on the map up to this number; above it the map shows tiles. */
  static final int MOST_DRAWN = 5_000;

  private final Projects projects;
  private final Layers layers;
  private final LayerQueries queries;
  private final Looks looks;
  private final LookTiles tiles;

  LayerMapApi(
      Projects projects, Layers layers, Looks looks, LookTiles tiles, LayerQueries queries) {
    this.queries = queries;
    this.projects = projects;
    this.layers = layers;
    this.looks = looks;
    this.tiles = tiles;
  }

  private Layer layer(String project, UUID id) {
    return layers.get(projects.byKey(project).id(), id);
  }

  /**
   * The features that a filter finds, with how the look draws them, when they are few enough to be
   * drawn one by one: all of them, or those in a box. Otherwise only their number; the map then
   * shows tiles.
   *
   * @param box degrees west, south, east, north; "" for everywhere
   * @param look the key of a look that is being tried; "" for the saved one
   */
  @Needs(Right.SEE_REGISTER)
  @GetMapping(value = "/api/p/{project}/layers/{id}/features", produces = "application/geo+json")
  ResponseEntity<String> features(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String filter,
      @RequestParam(defaultValue = "false") boolean outside,
      @RequestParam(defaultValue = "") String box,
      @RequestParam(defaultValue = "") String look) {
    Layer layer = layer(project, id);
    LayerFilter rule = outside ? LayerFilter.outside(layer) : LayerFilter.written(filter);
    return ResponseEntity.ok(
        tiles.with(layer, look, rule, (c, s) -> collection(layer, c, s, box(box))));
  }

  private static String collection(Layer layer, LayerColumns c, LookTiles.Sorted s, Envelope box) {
    int count = s.only == null ? c.count() : s.only.cardinality();
    boolean whole = count <= MOST_DRAWN;
    int[] rows =
        whole
            ? (s.only == null ? c.all() : s.only).stream().toArray()
            : box.isNull() ? new int[0] : InView.rows(c, box, s.only, MOST_DRAWN);
    boolean drawn = whole || !box.isNull() && rows.length <= MOST_DRAWN;
    StringBuilder b = new StringBuilder();
    if (drawn)
      for (int row : rows) {
        Feature f = c.feature(row);
        b.append(b.length() == 0 ? "" : ",")
            .append(
                f.json(c.schema())
                    .add("caption", c.schema().caption(f.values()))
                    .add("drawn", s.rows.draw(row, true).json()));
      }
    return "{\"type\":\"FeatureCollection\",\"count\":"
        + count
        + ",\"whole\":"
        + whole
        + ",\"drawn\":"
        + drawn
        + ",\"version\":\""
        + layer.revision()
        + "-"
        + layer.lookRevision()
        + "\",\"features\":["
        + b
        + "]}";
  }

  private static Envelope box(String text) {
    if (text.isBlank()) return new Envelope();
    double[] n = new double[4];
    String[] parts = text.split(",");
    for (int i = 0; i < 4; i++)
      n[i] =
          (parts.length == 4 ? Numbers.read(parts[i]) : java.util.OptionalDouble.empty())
              .orElseThrow(() -> Refusal.refused("refused.boxFourNumbersDegrees"));
    return new Envelope(n[0], n[2], n[1], n[3]);
  }

  /**
   * A vector tile of the layer. Its address has all that it depends on, so that a browser may keep
   * it.
   */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layers/{id}/tiles/{z}/{x}/{y}")
  ResponseEntity<byte[]> tile(
      @PathVariable String project,
      @PathVariable UUID id,
      @PathVariable int z,
      @PathVariable int x,
      @PathVariable int y,
      @RequestParam(defaultValue = "") String filter,
      @RequestParam(defaultValue = "") String look) {
    Layer layer = layer(project, id);
    if (z < 0 || z > 22 || x < 0 || y < 0 || x >= 1 << z || y >= 1 << z)
      throw Refusal.notFound("thing.mapTile");
    return ResponseEntity.ok()
        .header("Cache-Control", "private, max-age=86400")
        .header("Content-Type", "application/vnd.mapbox-vector-tile")
        .body(tiles.tile(layer, look, LayerFilter.written(filter), z, x, y));
  }

  /** The id of a feature; "" for none. */
  record Nearest(String id) {}

  /** The feature that is nearest to a place, at most so many metres away. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/api/p/{project}/layers/{id}/at")
  Nearest at(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam double lon,
      @RequestParam double lat,
      @RequestParam double within,
      @RequestParam(defaultValue = "") String filter) {
    Layer layer = layer(project, id);
    Coordinate here = new Coordinate(lon, lat);
    double metres = Math.max(0, Math.min(50_000, within));
    return tiles.with(
        layer,
        "",
        LayerFilter.written(filter),
        (c, s) -> {
          int best = -1;
          double least = metres;
          for (Envelope box : Reach.boxes(new Envelope(here), metres))
            for (int row : InView.rows(c, box, s.only, MOST_DRAWN)) {
              double d = PlaneNearest.distanceM(c.geometry(row).orElseThrow(), here);
              if (d <= least) {
                least = d;
                best = row;
              }
            }
          return new Nearest(best < 0 ? "" : c.id(best));
        });
  }

  /** Layers drawn small, each state of each once. */
  private final Cache<String, String> shapes =
      Caffeine.newBuilder()
          .maximumWeight(20_000_000)
          .weigher((String k, String svg) -> svg.length())
          .build();

  /** The layer drawn small; its address has the revision, so that a browser may keep it. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping(value = "/api/p/{project}/layers/{id}/shape.svg", produces = "image/svg+xml")
  ResponseEntity<String> shape(@PathVariable String project, @PathVariable UUID id) {
    Layer layer = layer(project, id);
    return ResponseEntity.ok()
        .header("Cache-Control", "private, max-age=604800")
        .body(
            shapes.get(
                layer.id()
                    + " "
                    + layer.revision()
                    + " "
                    + layer.lookRevision()
                    + " "
                    + queries.clock(layer).today(),
                k ->
                    new Picture(
                            looks.ready(layer),
                            layer.extent().orElse(new Envelope()),
                            360,
                            120,
                            0.55)
                        .svg(layers.first(layer, 500), queries.clock(layer), "#f5f3ea")));
  }
}
