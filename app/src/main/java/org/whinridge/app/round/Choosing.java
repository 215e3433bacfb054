package org.whinridge.app.round;

import com.eclipsesource.json.JsonObject;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.DateLine;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.round.TagList;

/** Finds features for a round: by shape, by filter, by tags, by when they were last visited. */
@Service
public class Choosing {
  /** More features than these are counted and not given. */
  public static final int MOST_GIVEN = 10_000;

  /** So many features are looked at for a shape; their boxes tell it before. */
  static final int MOST_NEAR = 200_000;

  private static final Envelope WORLD = new Envelope(-180, 180, -90, 90);
  private static final int MOST_CORNERS = 10_000;
  private static final int MOST_LAYERS = 50;
  private static final int LONGEST = 200_000;

  private final Layers layers;
  private final LayerQueries queries;
  private final VisitsForRounds visits;

  Choosing(Layers layers, LayerQueries queries, VisitsForRounds visits) {
    this.layers = layers;
    this.queries = queries;
    this.visits = visits;
  }

  /**
   * Which features of which layers are wanted, by one of these; all of them when none is said.
   *
   * @param shape GeoJSON in degrees
   * @param withinM so far from the shape, metres, too; null for what meets it
   * @param filter a rule over the fields
   * @param tags a pasted list
   * @param notSince those that were not visited on this day or after it
   * @param ids by id
   */
  record Asked(
      @NotEmpty(message = "border.isMissing")
          @Size(max = MOST_LAYERS, message = "border.hasMoreThanFit")
          List<@NotNull(message = "border.isNoId") UUID> layers,
      JsonObject shape,
      Double withinM,
      @Size(max = LONGEST, message = "border.isTooLong") String filter,
      @Size(max = LONGEST, message = "border.isTooLong") String tags,
      LocalDate notSince,
      @Size(max = MOST_GIVEN, message = "border.hasMoreThanFit")
          List<@NotNull(message = "border.isNoId") UUID> ids) {}

  /**
   * What was found.
   *
   * @param missing tags that no feature has
   * @param several tags that more than one feature has
   * @param twice tags that were in the list more than once
   */
  record Chosen(
      List<OfLayer> layers, List<String> missing, List<String> several, List<String> twice) {}

  /**
   * What was found in a layer.
   *
   * @param found how many
   * @param features none when more were found than are given
   */
  record OfLayer(UUID layer, int found, List<Spot> features) {}

  /** A feature that may become a stop; {@code at} is null without a place, else [lon, lat]. */
  record Spot(UUID id, String caption, double[] at) {}

  /** Finds them. Not within a transaction, since it asks read models. */
  Chosen find(UUID project, Asked asked) {
    List<Layer> in =
        new LinkedHashSet<>(asked.layers).stream().map(id -> layers.get(project, id)).toList();
    if (asked.tags != null) return byTags(in, TagList.read(asked.tags));
    List<List<Feature>> found = new ArrayList<>();
    List<OfLayer> out = new ArrayList<>();
    int all = 0;
    Optional<Geometry> shape = Optional.ofNullable(asked.shape).map(Choosing::shape);
    for (Layer l : in) {
      Found f = shape.map(s -> byShape(l, s, asked.withinM)).orElseGet(() -> byRule(l, asked));
      all += f.n;
      found.add(all <= MOST_GIVEN ? f.features : List.of());
      out.add(new OfLayer(l.id(), f.n, List.of()));
    }
    if (all > MOST_GIVEN) return new Chosen(out, List.of(), List.of(), List.of());
    out.clear();
    for (int i = 0; i < in.size(); i++) out.add(of(in.get(i), found.get(i)));
    return new Chosen(out, List.of(), List.of(), List.of());
  }

  private record Found(int n, List<Feature> features) {}

  private static OfLayer of(Layer layer, List<Feature> features) {
    return new OfLayer(
        layer.id(), features.size(), features.stream().map(f -> spot(layer.schema(), f)).toList());
  }

  /** A feature as a stop would show it. */
  static Spot spot(Schema schema, Feature f) {
    return new Spot(
        UUID.fromString(f.id()),
        schema.caption(f.values()),
        place(f).map(c -> new double[] {c.x, c.y}).orElse(null));
  }

  /** Where a feature is visited. */
  static Optional<Coordinate> place(Feature f) {
    return f.geometry().filter(g -> !g.isEmpty()).map(Geodesy::anchor);
  }

  /** A shape that was drawn on a map, which may go on across the date line. */
  static Geometry shape(JsonObject json) {
    // a map goes on across the date line, and so may what is drawn on it
    Geometry g = DateLine.wrapped(GeometryJson.readAnywhere(json));
    if (DateLine.isBeyond(g) || !GeometryJson.WGS84.toGeometry(WORLD).covers(g))
      throw Refusal.refused("refused.shapeOutOfWorld");
    if (g.getNumPoints() > MOST_CORNERS)
      throw Refusal.refused(
          "refused.shapeTooManyCorners", "n", g.getNumPoints(), "most", MOST_CORNERS);
    return g;
  }

  private Found byShape(Layer layer, Geometry shape, Double withinM) {
    if (layer.schema().kind() == GeometryKind.TABLE) return new Found(0, List.of());
    double metres = withinM == null ? 0 : withinM;
    if (!(metres >= 0 && metres <= LookUp.FARTHEST_M))
      throw Refusal.refused("refused.withinMetres", "most", LookUp.FARTHEST_M);
    int near = queries.near(layer, shape, metres);
    if (near > MOST_NEAR) return new Found(near, List.of());
    List<Feature> hits = queries.within(layer, shape, metres);
    return new Found(hits.size(), hits);
  }

  private Found byRule(Layer layer, Asked asked) {
    if (asked.ids != null) {
      List<Feature> some = queries.some(layer, new LinkedHashSet<>(asked.ids));
      return new Found(some.size(), some);
    }
    Set<UUID> visited =
        asked.notSince == null ? Set.of() : visits.visitedSince(layer, asked.notSince);
    LayerFilter filter = LayerFilter.written(asked.filter == null ? "" : asked.filter);
    return queries.where(
        layer,
        filter,
        (c, rows) -> {
          BitSet left = (BitSet) rows.clone();
          visited.stream()
              .mapToInt(id -> c.row(id.toString()))
              .filter(r -> r >= 0)
              .forEach(left::clear);
          return given(c, left);
        });
  }

  private static Found given(LayerColumns c, BitSet rows) {
    int n = rows.cardinality();
    return new Found(n, n > MOST_GIVEN ? List.of() : rows.stream().mapToObj(c::feature).toList());
  }

  /** By the field that is painted on the asset; a layer without one by what names its features. */
  private Chosen byTags(List<Layer> in, TagList tags) {
    List<OfLayer> out = new ArrayList<>();
    Set<String> missing = new LinkedHashSet<>(tags.tags());
    Set<String> several = new LinkedHashSet<>();
    for (Layer l : in) {
      String field =
          !l.schema().tagField().isEmpty()
              ? l.schema().tagField()
              : l.schema().captionFields().stream().findFirst().orElse("");
      if (l.schema().field(field).isEmpty()) {
        out.add(new OfLayer(l.id(), 0, List.of()));
        continue;
      }
      TagList.Found found = queries.where(l, LayerFilter.ALL, (c, rows) -> tags.in(c, field));
      missing.retainAll(found.missing());
      several.addAll(found.several());
      List<Feature> features =
          queries.some(l, found.features().stream().map(UUID::fromString).toList());
      out.add(
          features.size() > MOST_GIVEN
              ? new OfLayer(l.id(), features.size(), List.of())
              : of(l, features));
    }
    return new Chosen(out, List.copyOf(missing), List.copyOf(several), tags.twice());
  }
}
