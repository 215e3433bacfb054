package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.NeededFor;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.Value;

/**
 * For how many features a condition holds while a draft is made: each is visited now, nothing is
 * answered, and the condition is asked. Features come one by one. Not for several threads at once.
 */
public final class RuleTally {
  private final ExecutableForm form;
  private final String name;
  private final VisitStart start;
  private int features;
  private int holds;
  private int fails;

  private RuleTally(ExecutableForm form, String name, VisitStart start) {
    this.form = form;
    this.name = name;
    this.start = start;
  }

  /**
   * A tally; empty when the condition, or what it reads of the form, can't be run. Nothing else of
   * the form is, so that a long one takes no longer than a short one.
   *
   * @param text a condition as it stands outside of lists, CQL2 Text
   * @param start gives the day, the look-up layers and the person, by the form that is run
   */
  public static Optional<RuleTally> of(
      Form form, Schema schema, String text, Function<ExecutableForm, VisitStart> start) {
    Set<String> taken = new TreeSet<>();
    form.questions().forEach(q -> taken.add(q.name()));
    form.rules().forEach(r -> taken.add(r.name()));
    String name = "tallied";
    while (taken.contains(name)) name += "_";
    String own = name;
    Form part = NeededFor.names(form, Rules.namesIn(text));
    List<NamedRule> rules = new ArrayList<>(part.rules());
    rules.add(new NamedRule(own, own, text));
    return FormCompiler.compile(part.withRules(rules), schema)
        .form()
        .map(f -> new RuleTally(f, own, start.apply(f)));
  }

  /** Whether the condition holds for one more feature, of which no last visit is known. */
  public boolean add(Feature feature) {
    return add(feature, VisitStart.Last.NONE);
  }

  /** The same of a feature that was visited before. */
  public boolean add(Feature feature, VisitStart.Last last) {
    Value v = Filling.open(form, start.on(feature, last)).value(name);
    features++;
    if (v.equals(Value.YES)) holds++;
    if (v.equals(Value.NO)) fails++;
    return v.equals(Value.YES);
  }

  /** The form that is run: the draft with the condition. */
  public ExecutableForm form() {
    return form;
  }

  /** The features so far. */
  public int features() {
    return features;
  }

  /** Those for which it does not hold. */
  public int fails() {
    return fails;
  }

  /** Those for which it holds; one for which it is unknown is not among them. */
  public int holds() {
    return holds;
  }
}
