package org.whinridge.app.layer;

import java.util.Optional;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.rules.Condition;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;

/**
 * Which features of a layer: those that a rule holds for, as somebody wrote it or as it was made of
 * values.
 *
 * @param text the rule as text; it tells filters apart
 * @param made the condition, when it was made of values
 */
public record LayerFilter(String text, Optional<Condition> made) {
  /** All features. */
  public static final LayerFilter ALL = new LayerFilter("", Optional.empty());

  /** A rule that somebody wrote; blank for all features. */
  public static LayerFilter written(String text) {
    return text.isBlank() ? ALL : new LayerFilter(text, Optional.empty());
  }

  /** A condition made of values. */
  public static LayerFilter of(Condition c) {
    return new LayerFilter(c.text(), Optional.of(c));
  }

  /** Features outside the area where the layer expects them; none when it expects none. */
  public static LayerFilter outside(Layer layer) {
    return GeometryJson.parse(layer.expectedArea())
        .map(g -> of(Condition.isNotWithin(LayerScope.PLACE, g)))
        .orElse(written("FALSE"));
  }

  public boolean isAll() {
    return text.isEmpty();
  }

  /** The rule over a schema; a problem says where it is wrong and what was expected. */
  public Rule rule(Schema schema) {
    LayerScope scope = new LayerScope(schema);
    Rules.Outcome out = made.map(c -> c.in(scope)).orElseGet(() -> Rules.condition(text, scope));
    return out.rule()
        .orElseThrow(
            () -> {
              RuleProblem p = out.problems().get(0);
              return Refusal.refused("refused.filter", "at", p.at().from() + 1, "why", p.message());
            });
  }
}
