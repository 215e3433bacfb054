package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.round.Round;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.travel.Outdoors;
import org.whinridge.core.value.ValueType;

/**
 * Assets that a round allows and that did not travel with its pack: found at the office, while
 * there is a link.
 */
@Component
class RoundAssets {
  /** So many are told at once. */
  private static final int MOST = 30;

  /** The furthest that somebody looks around a spot, in metres. */
  static final int FURTHEST_M = 1000;

  private final PackParts parts;
  private final LayerQueries queries;

  RoundAssets(PackParts parts, LayerQueries queries) {
    this.parts = parts;
    this.queries = queries;
  }

  /** A feature as packs have it, and its layer. */
  record Found(UUID layer, JsonObject feature) {}

  /** Those whose caption holds a text, whatever its case. */
  List<Found> called(Round round, String text) {
    List<Found> out = new ArrayList<>();
    for (Layer l : parts.layersOf(round)) {
      String rule = rule(Outdoors.schema(l.schema()), text);
      if (rule.isEmpty() || out.size() >= MOST) continue;
      out.addAll(
          queries.where(
              l,
              LayerFilter.written(rule),
              (c, rows) ->
                  rows.stream()
                      .limit(MOST - out.size())
                      .mapToObj(c::feature)
                      .map(f -> found(l, f))
                      .toList()));
    }
    return out;
  }

  /** Those around a spot. */
  List<Found> around(Round round, Coordinate at, double metres) {
    List<Found> out = new ArrayList<>();
    for (Layer l : parts.layersOf(round)) {
      if (l.schema().kind() == GeometryKind.TABLE || out.size() >= MOST) continue;
      queries.around(l, new Envelope(at), metres, MOST - out.size() - 1).stream()
          .limit(MOST - out.size())
          .forEach(f -> out.add(found(l, f)));
    }
    return out;
  }

  private static Found found(Layer layer, Feature f) {
    Schema schema = layer.schema();
    return new Found(
        layer.id(), Outdoors.json(f, schema).add("caption", Outdoors.caption(f, schema)));
  }

  /** The fields that name a feature outdoors, looked through for a text; "" when there is none. */
  private static String rule(Schema schema, String text) {
    Set<String> names = new LinkedHashSet<>(schema.captionFields());
    names.add(schema.tagField());
    String wanted =
        text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_").replace("'", "''");
    return names.stream()
        .flatMap(n -> schema.field(n).stream())
        .filter(f -> f.type().valueType() == ValueType.TEXT)
        .map(Field::name)
        .map(n -> "CASEI(" + n + ") LIKE CASEI('%" + wanted + "%')")
        .collect(Collectors.joining(" OR "));
  }
}
