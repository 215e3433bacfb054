package org.whinridge.core.form.compile;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Question;
import org.whinridge.core.layer.Code;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.value.ValueType;

/**
 * One question with its rules read, or one named rule, which is evaluated like a hidden yes / no
 * question.
 *
 * @param section the section's index; -1 for a named rule
 * @param list the list it stands in, by {@link ExecutableForm#lists}; -1 for none
 * @param type the kind of value of an answer
 * @param whens all conditions under which it is asked: of the section, of the block, its own
 * @param fits the codes that are offered only where a rule holds
 * @param starts the formulas of its prefill chain, by their place in it
 * @param prefillReads the names that its prefill chain reads, "place" among them
 * @param scope the names where it stands
 */
public record Compiled(
    Question question,
    int section,
    int list,
    ValueType type,
    List<Rule> whens,
    Optional<Rule> workOut,
    List<Rule> checks,
    List<Fit> fits,
    List<Optional<Rule>> starts,
    Set<String> prefillReads,
    Scope scope) {
  /** A code and the rule under which it is offered. */
  public record Fit(Code code, Rule rule) {}

  /** The name of the question or of the rule. */
  public String name() {
    return question.name();
  }

  /** Whether it is a named rule or a list's condition, which no sheet shows. */
  public boolean isHidden() {
    return section < 0;
  }

  /** What must be known before this one's value is. */
  Set<String> reads() {
    Set<String> out = new LinkedHashSet<>();
    for (Rule r : whens) out.addAll(r.names());
    workOut.ifPresent(r -> out.addAll(r.names()));
    out.addAll(prefillReads);
    return out;
  }

  /** What its open points and offered codes read besides its own value. */
  Set<String> pointsRead() {
    Set<String> out = new LinkedHashSet<>();
    for (Rule r : checks) out.addAll(r.names());
    for (Fit f : fits) out.addAll(f.rule.names());
    return out;
  }

  /** The same with its rules asking by slots. */
  Compiled bound(java.util.function.ToIntFunction<String> slots) {
    return new Compiled(
        question,
        section,
        list,
        type,
        whens.stream().map(r -> r.bound(slots)).toList(),
        workOut.map(r -> r.bound(slots)),
        checks.stream().map(r -> r.bound(slots)).toList(),
        fits.stream().map(f -> new Fit(f.code, f.rule.bound(slots))).toList(),
        starts.stream().map(s -> s.map(r -> r.bound(slots))).toList(),
        prefillReads,
        scope);
  }
}
