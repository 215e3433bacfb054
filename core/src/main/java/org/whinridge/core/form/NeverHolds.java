package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Possible;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * Finds questions that can never be asked, and checks that no answer can meet. It reasons over
 * ranges and codes ({@link Possible}) and tells only what is proven; where it is not sure it says
 * nothing.
 */
final class NeverHolds {
  private final Schema schema;
  private final List<Compiled> order;
  private final Map<String, Possible.Domain> domains = new LinkedHashMap<>();
  private final List<FormProblem> notes = new ArrayList<>();

  NeverHolds(Schema schema, List<Compiled> order) {
    this.schema = schema;
    this.order = order;
  }

  List<FormProblem> notes() {
    for (Compiled c : order) {
      if (c.isHidden()) continue;
      boolean never = neverAsked(c);
      if (never)
        notes.add(
            FormProblem.of(
                c.name(), "ask when", "this can never hold, so the question is never asked"));
      domains.put(c.name(), never ? Possible.Domain.empty() : domain(c).orEmpty());
    }
    for (Compiled c : order) if (!c.isHidden()) checks(c);
    return notes;
  }

  private boolean neverAsked(Compiled c) {
    if (c.whens().isEmpty()) return false;
    List<Node> trees = c.whens().stream().map(Rule::tree).toList();
    return !Possible.allYes(trees, this::of);
  }

  private void checks(Compiled c) {
    Possible.Domain own = domain(c);
    List<Node> trees = new ArrayList<>();
    boolean told = false;
    for (int i = 0; i < c.checks().size(); i++) {
      trees.add(c.checks().get(i).tree());
      if (Possible.notBroken(List.of(trees.get(i)), n -> n.equals(c.name()) ? own : of(n)))
        continue;
      notes.add(
          FormProblem.of(
              c.name(), "check " + (i + 1), "no answer of this question can ever meet this check"));
      told = true;
    }
    boolean together =
        told
            || trees.size() < 2
            || Possible.notBroken(trees, n -> n.equals(c.name()) ? own : of(n));
    if (!together)
      notes.add(
          FormProblem.of(
              c.name(), "checks", "no answer of this question can ever meet all its checks"));
  }

  private Possible.Domain of(String name) {
    return domains.getOrDefault(name, Possible.Domain.any());
  }

  /** What an answer of a question may be when it is given and holds nothing back. */
  private Possible.Domain domain(Compiled c) {
    Question q = c.question();
    if (c.type() == ValueType.YES_NO) return Possible.Domain.yesNo();
    if (q.type() == QuestionType.CHOICE || q.type() == QuestionType.GRADE) {
      Set<Value> codes = new LinkedHashSet<>();
      for (Code code : q.codes())
        codes.add(org.whinridge.core.value.ValueJson.readText(code.code(), q.valueType(schema)));
      // a layer may hold values outside of the list, which a person may let stand
      return Possible.Domain.codes(codes);
    }
    if (c.type() == ValueType.NUMBER) {
      OptionalDouble from = q.limits().from();
      if (from.isEmpty() && (q.type() == QuestionType.COUNTER || q.type() == QuestionType.DURATION))
        from = OptionalDouble.of(0);
      return Possible.Domain.numbers(from, q.limits().to());
    }
    return Possible.Domain.any();
  }
}
