package org.whinridge.app.layer;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.function.BiFunction;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.io.WKTWriter;
import org.springframework.stereotype.Service;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.Filter;
import org.whinridge.core.read.InView;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;

/** Filters of the rules language over layers, on their read models. */
@Service
public class LayerQueries {
  private final ReadModels models;

  LayerQueries(ReadModels models) {
    this.models = models;
  }

  /** Uses the rows of a layer that a filter holds for; an empty filter holds for all. */
  public <T> T where(Layer layer, String filter, BiFunction<LayerColumns, BitSet, T> use) {
    if (filter.isBlank()) return models.read(layer, c -> use.apply(c, c.all()));
    Rule rule = rule(layer.schema(), filter);
    Clock clock = clock();
    return models.read(layer, c -> use.apply(c, Filter.rows(rule, c, clock)));
  }

  /** The clock of this moment, with the day of UTC. */
  static Clock clock() {
    Instant now = Instant.now();
    return new Clock(LocalDate.ofInstant(now, ZoneOffset.UTC), now);
  }

  /**
   * The features that meet a box in degrees: at most {@code most}, and one more if there are more.
   */
  public List<Feature> in(Layer layer, Envelope box, int most) {
    return models.read(
        layer, c -> Arrays.stream(InView.rows(c, box, null, most)).mapToObj(c::feature).toList());
  }

  /** How many features a filter holds for. */
  public int count(Layer layer, String filter) {
    return where(layer, filter, (c, rows) -> rows.cardinality());
  }

  /**
   * How many features lie outside the area where the layer expects them; 0 when it expects none.
   */
  public int outside(Layer layer) {
    return layer.expectedArea().isEmpty() ? 0 : count(layer, outsideFilter(layer));
  }

  /** The filter for features outside the expected area. */
  static String outsideFilter(Layer layer) {
    return GeometryJson.parse(layer.expectedArea())
        .map(g -> "NOT S_WITHIN(" + LayerScope.PLACE + ", " + new WKTWriter().write(g) + ")")
        .orElse("FALSE");
  }

  /** The filter as a rule; a problem says where it is wrong and what was expected. */
  static Rule rule(Schema schema, String filter) {
    Rules.Outcome out = Rules.condition(filter, new LayerScope(schema));
    return out.rule()
        .orElseThrow(
            () -> {
              var p = out.problems().get(0);
              return Refusal.refused(
                  "The filter can't be used, at character "
                      + (p.at().from() + 1)
                      + ": "
                      + p.message()
                      + ".");
            });
  }
}
