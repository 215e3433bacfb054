package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.domain.Domain;
import org.whinridge.core.rules.domain.Satisfiability;
import org.whinridge.core.value.ValueType;

/**
 * Finds questions that can never be asked, and checks that no answer can meet. It reasons over what
 * answers may be ({@link Satisfiability}), through named rules, and with what must hold for a
 * question to be asked at all; it tells only what is proven, and where it is not sure it says
 * nothing.
 */
final class NeverHolds {
  private final List<Compiled> order;
  private final Map<String, Domain> known = new LinkedHashMap<>();
  private final Map<String, Compiled> byName = new LinkedHashMap<>();
  private final Set<String> neverAsked = new LinkedHashSet<>();
  private final List<FormProblem> notes = new ArrayList<>();

  NeverHolds(List<Compiled> order) {
    this.order = order;
    for (Compiled c : order) byName.put(c.name(), c);
  }

  List<FormProblem> notes() {
    for (Compiled c : order) {
      if (c.isHidden()) continue;
      boolean never =
          !c.whens().isEmpty() && !Satisfiability.together(whens(c), List.of(), names(c));
      if (never) {
        neverAsked.add(c.name());
        notes.add(FormProblem.of(c.name(), FormPart.Kind.ASK_WHEN, FormProblem.Reason.NEVER_ASKED));
      }
      known.put(c.name(), never ? Domain.empty() : mayBe(c).orEmpty());
    }
    for (Compiled c : order) if (!c.isHidden()) checks(c);
    return notes;
  }

  private static List<Node> whens(Compiled c) {
    return c.whens().stream().map(Rule::tree).toList();
  }

  /** A check is looked at only where the question is asked and answered. */
  private void checks(Compiled c) {
    List<Node> trees = new ArrayList<>();
    boolean told = false;
    if (neverAsked.contains(c.name())) return; // told already
    for (int i = 0; i < c.checks().size(); i++) {
      trees.add(c.checks().get(i).tree());
      if (Satisfiability.together(whens(c), List.of(trees.get(i)), answered(c))) continue;
      notes.add(FormProblem.of(c.name(), FormPart.check(i), FormProblem.Reason.CHECK_NEVER_MET));
      told = true;
    }
    if (!told && trees.size() > 1 && !Satisfiability.together(whens(c), trees, answered(c)))
      notes.add(
          FormProblem.of(c.name(), FormPart.Kind.CHECKS, FormProblem.Reason.CHECKS_NEVER_MET));
  }

  private Satisfiability.Names names(Compiled of) {
    return new Known(of, Optional.empty());
  }

  private Satisfiability.Names answered(Compiled of) {
    return new Known(of, Optional.of(mayBe(of)));
  }

  /** What is known where a question stands; of itself also that it is answered. */
  private final class Known implements Satisfiability.Names {
    private final Compiled of;
    private final Optional<Domain> own;

    Known(Compiled of, Optional<Domain> own) {
      this.of = of;
      this.own = own;
    }

    @Override
    public Domain mayBe(String name) {
      return own.isPresent() && name.equals(of.name())
          ? own.get()
          : known.getOrDefault(name, Domain.any());
    }

    @Override
    public Optional<Node> rule(String name) {
      Compiled c = byName.get(name);
      return c == null || !c.isHidden() || c.workOut().isEmpty()
          ? Optional.empty()
          : Optional.of(c.workOut().get().tree());
    }

    @Override
    public List<Node> needed(String name) {
      Compiled c = byName.get(name);
      // what stands in rows is another row's, or this row's, outside of them it has many values
      boolean here = c != null && !c.isHidden() && (c.list() < 0 || c.list() == of.list());
      return here ? whens(c) : List.of();
    }
  }

  /** What an answer of a question may be when it is given and holds nothing back. */
  private static Domain mayBe(Compiled c) {
    Question q = c.question();
    if (c.type() == ValueType.YES_NO) return Domain.yesNo();
    // a layer may hold values outside of a code list, which a person may let stand
    if (c.type() != ValueType.NUMBER || q.type().hasCodes()) return Domain.any();
    OptionalDouble from = q.limits().from();
    if (from.isEmpty() && (q.type() == QuestionType.COUNTER || q.type() == QuestionType.DURATION))
      from = OptionalDouble.of(0);
    return Domain.numbers(from, q.limits().to(), q.type().isWhole());
  }
}
