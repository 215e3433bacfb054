package org.whinridge.core.form.compile;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.ValueType;

/**
 * A form's condition as a filter of its layer, where the two mean the same at the begin of every
 * visit: all it reads is what the layer holds. So it can be counted over any number of features
 * without opening a visit for each.
 */
public final class OnLayer {
  private OnLayer() {}

  /**
   * The filter, CQL2 Text; empty when the condition is none, or reads anything else than answers
   * that are always asked and begin with the layer's field alone, {@code before.*} and {@code
   * place}.
   *
   * @param text a condition as it stands outside of lists
   */
  public static Optional<String> of(Form form, Schema schema, String text) {
    Optional<Rule> rule = Rules.condition(text, new FormScope(form, schema, "")).rule();
    if (rule.isEmpty() || isOfAVisit(rule.get().tree())) return Optional.empty();
    for (String name : rule.get().names())
      if (field(form, schema, name).isEmpty()) return Optional.empty();
    String filter = Rules.rename(text, name -> field(form, schema, name).orElse(name));
    return Rules.condition(filter, new LayerScope(schema)).rule().map(r -> filter);
  }

  /** Labels are the form's own, and the project's coordinate system is the visit's. */
  private static final Set<String> OF_A_VISIT = Set.of("label", "easting", "northing");

  private static boolean isOfAVisit(Node n) {
    if (n instanceof Node.Call c && OF_A_VISIT.contains(c.function())) return true;
    return n.parts().stream().anyMatch(OnLayer::isOfAVisit);
  }

  private static Optional<String> field(Form form, Schema schema, String name) {
    if (name.equals(LayerScope.PLACE)) return Optional.of(name);
    if (name.startsWith("before."))
      return schema.field(name.substring("before.".length())).map(Field::name);
    for (Section s : form.sections()) {
      if (s.isList()) continue;
      for (Question q : s.questions())
        if (q.name().equals(name))
          return schema.field(q.writesTo()).filter(f -> isAsHeld(s, q, f, schema)).map(Field::name);
    }
    return Optional.empty();
  }

  private static boolean isAsHeld(Section s, Question q, Field f, Schema schema) {
    boolean always =
        s.askWhen().isEmpty()
            && q.logic().askWhen().isEmpty()
            && q.logic().workOut().isEmpty()
            && s.blocks().stream()
                .noneMatch(b -> b.name().equals(q.layout().block()) && !b.askWhen().isEmpty());
    ValueType held = f.type().valueType();
    return always
        && q.prefill().equals(List.of(new Source.Asset()))
        && held == q.valueType(schema)
        && held != ValueType.GEOMETRY;
  }
}
