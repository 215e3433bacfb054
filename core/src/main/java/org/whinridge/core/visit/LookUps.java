package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.LookUpScope;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * The place look-ups of one visit. One look-up answers all questions that share it: it is made
 * again only when the place or an answer that its filter reads has changed.
 */
final class LookUps {
  private record Filter(Optional<Rule> rule, List<String> answers, Said problem) {}

  private record Made(Geometry place, List<Value> answers, LookupResult result) {}

  private final ExecutableForm form;
  private final VisitStart start;
  private final VisitSituation situation;
  private final Map<LookUp, Filter> filters = new LinkedHashMap<>();
  private final Map<LookUp, Made> made = new LinkedHashMap<>();

  LookUps(ExecutableForm form, VisitStart start, VisitSituation situation) {
    this.form = form;
    this.start = start;
    this.situation = situation;
  }

  LookUp named(Source.Place p) {
    return p.own().orElseGet(() -> form.form().lookUps().get(p.shared()));
  }

  LookupResult lookUp(LookUp lookUp) {
    PlaceIndex index = start.lookups().get(lookUp.layerId());
    if (index == null) return new LookupResult.LayerMissing();
    if (!(situation.place() instanceof Value.Place at)) return new LookupResult.NoPosition();
    Filter filter = filters.computeIfAbsent(lookUp, l -> filter(l, index));
    if (!filter.problem.isEmpty()) return new LookupResult.FilterBroken(filter.problem);
    List<Value> answers = new ArrayList<>(filter.answers.size());
    for (String n : filter.answers) answers.add(situation.value(n));
    Made before = made.get(lookUp);
    if (before != null && before.place == at.geometry() && before.answers.equals(answers))
      return before.result;
    LookupResult r = index.lookUp(lookUp, at.geometry(), test(filter));
    made.put(lookUp, new Made(at.geometry(), answers, r));
    return r;
  }

  private Filter filter(LookUp lookUp, PlaceIndex index) {
    if (lookUp.filter().isEmpty()) return new Filter(Optional.empty(), List.of(), Said.NONE);
    if (index.schema().isEmpty())
      return new Filter(Optional.empty(), List.of(), Said.of("prefill.noFields"));
    Rules.Outcome o =
        Rules.condition(lookUp.filter(), new LookUpScope(index.schema().get(), form.scope()));
    if (o.rule().isEmpty())
      return new Filter(Optional.empty(), List.of(), o.problems().get(0).message());
    List<String> answers = new ArrayList<>();
    for (String n : o.rule().get().names())
      if (n.startsWith(LookUp.ANSWERS)) answers.add(n.substring(LookUp.ANSWERS.length()));
    return new Filter(o.rule(), answers, Said.NONE);
  }

  private Predicate<Feature> test(Filter filter) {
    return filter
        .rule
        .<Predicate<Feature>>map(r -> f -> r.holds(new FeatureSituation(f, situation)))
        .orElse(f -> true);
  }
}
