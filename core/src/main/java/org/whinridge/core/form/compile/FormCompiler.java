package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Check;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.ValueType;

/** Draft to executable form: every rule read and checked, names and wiring sound, no cycle. */
public final class FormCompiler {
  private final Form form;
  private final Schema schema;
  private final Map<String, Schema> layers;
  private final Scope outer;
  private final List<FormProblem> problems = new ArrayList<>();
  private final List<FormProblem> notes = new ArrayList<>();
  private final Map<String, Compiled> compiled = new LinkedHashMap<>();
  private Scope scope;
  private String at = "";

  private FormCompiler(Form form, Schema schema, Map<String, Schema> layers) {
    this.form = form;
    this.schema = schema;
    this.layers = layers;
    outer = new FormScope(form, schema, "");
    scope = outer;
  }

  /**
   * The executable form, or all that keeps it from being one.
   *
   * @param form present exactly when there is no problem
   * @param notes what keeps nothing back, but its author should know
   */
  public record Outcome(
      Optional<ExecutableForm> form, List<FormProblem> problems, List<FormProblem> notes) {}

  /** Compiles a draft or an edition against its layer's schema. */
  public static Outcome compile(Form form, Schema schema) {
    return compile(form, schema, Map.of());
  }

  /**
   * Compiles a draft, with the schemas of the layers that its look-ups go to, by layer id: their
   * fields and filters are checked too.
   */
  public static Outcome compile(Form form, Schema schema, Map<String, Schema> layers) {
    return new FormCompiler(form, schema, layers).run();
  }

  private Outcome run() {
    Set<String> names = new LinkedHashSet<>();
    Wiring wiring = new Wiring(schema);
    for (NamedRule r : form.rules()) named(r, names);
    form.lookUps().forEach(this::lookUp);
    int list = -1;
    for (int s = 0; s < form.sections().size(); s++) {
      Section section = form.sections().get(s);
      if (section.isList()) list++;
      section(section, s, section.isList() ? list : -1, names, wiring);
    }
    if (form.questions().isEmpty())
      problems.add(FormProblem.of("", FormPart.Kind.FORM, FormProblem.Reason.NO_QUESTION));
    if (form.allowed().map(a -> a.layerId().isEmpty()).orElse(false))
      problems.add(
          FormProblem.of("", FormPart.Kind.ALLOWED_AREA, FormProblem.Reason.NO_ALLOWED_LAYER));
    List<Compiled> order = problems.isEmpty() ? order() : List.of();
    if (!problems.isEmpty())
      return new Outcome(Optional.empty(), List.copyOf(problems), List.copyOf(notes));
    notes.addAll(new NeverHolds(order).notes());
    return new Outcome(
        Optional.of(new ExecutableForm(form, schema, outer, order)), List.of(), List.copyOf(notes));
  }

  private void named(NamedRule r, Set<String> names) {
    at = r.name();
    name(r.name(), names);
    Optional<Rule> rule =
        r.rule().isBlank()
            ? Optional.empty()
            : take(FormPart.of(FormPart.Kind.NAMED_RULE), Rules.condition(r.rule(), outer), false);
    if (r.rule().isBlank()) problem(FormPart.Kind.NAMED_RULE, FormProblem.Reason.RULE_EMPTY);
    hidden(r.name(), r.label(), rule);
  }

  /** A condition that is evaluated like a yes / no question that nobody sees. */
  private void hidden(String name, String label, Optional<Rule> rule) {
    compiled.put(
        name,
        new Compiled(
            Question.of(name, label, QuestionType.YES_NO),
            -1,
            -1,
            ValueType.YES_NO,
            List.of(),
            rule,
            List.of(),
            List.of(),
            List.of(),
            Set.of(),
            outer));
  }

  private void name(String name, Set<String> names) {
    FormNames.problem(name).ifPresent(p -> problem(FormPart.Kind.NAME, FormProblem.Reason.NAME, p));
    if (!names.add(name)) problem(FormPart.Kind.NAME, FormProblem.Reason.NAME_TWICE, name);
  }

  private void section(Section section, int s, int list, Set<String> names, Wiring wiring) {
    at = section.name().isEmpty() ? section.title() : section.name();
    if (section.isList()) {
      name(section.name(), names);
      if (FormNames.problem(section.name()).isEmpty())
        FormNames.problemOfList(section.name())
            .ifPresent(p -> problem(FormPart.Kind.NAME, FormProblem.Reason.NAME, p));
    }
    scope = section.isList() ? new FormScope(form, schema, section.name()) : outer;
    section
        .rows()
        .filter(r -> r.most() > 0 && r.least() > r.most())
        .ifPresent(r -> problem(FormPart.Kind.ROWS, FormProblem.Reason.ROWS_TURNED));
    List<Rule> sectionWhen =
        condition(FormPart.of(FormPart.Kind.SECTION_ASK_WHEN), section.askWhen());
    if (section.isList() && !sectionWhen.isEmpty()) gate(section);
    Map<String, List<Rule>> blocks = new LinkedHashMap<>();
    String whole = at;
    for (Section.Block b : section.blocks()) {
      at = b.name().isEmpty() ? whole : b.name();
      List<Rule> whens = new ArrayList<>(sectionWhen);
      whens.addAll(condition(FormPart.of(FormPart.Kind.BLOCK_ASK_WHEN), b.askWhen()));
      if (b.name().isEmpty() || blocks.put(b.name(), whens) != null)
        problem(FormPart.Kind.BLOCK, FormProblem.Reason.BLOCK_UNNAMED);
    }
    for (Question q : section.questions()) {
      at = q.name();
      name(q.name(), names);
      for (FormProblem p : wiring.problems(q, section.isList())) problems.add(p);
      notes.addAll(wiring.notes(q));
      String block = q.layout().block();
      if (!block.isEmpty() && !blocks.containsKey(block))
        problem(FormPart.Kind.BLOCK, FormProblem.Reason.BLOCK_UNKNOWN, block);
      question(q, s, list, blocks.getOrDefault(block, sectionWhen));
    }
  }

  /** A list is asked or not before it has any row, so its condition stands outside of them. */
  private void gate(Section section) {
    Optional<Rule> rule = Rules.condition(section.askWhen(), outer).rule();
    if (rule.isEmpty())
      problem(FormPart.Kind.SECTION_ASK_WHEN, FormProblem.Reason.LIST_ASKED_BY_ROW);
    hidden(ExecutableForm.gateName(section.name()), section.title(), rule);
  }

  private void question(Question q, int section, int list, List<Rule> outerWhens) {
    List<Rule> whens = new ArrayList<>(outerWhens);
    whens.addAll(condition(FormPart.of(FormPart.Kind.ASK_WHEN), q.logic().askWhen()));
    ValueType type = q.valueType(schema);
    Optional<Rule> workOut =
        q.isWorkedOut()
            ? take(
                FormPart.of(FormPart.Kind.WORK_OUT),
                Rules.formula(q.logic().workOut(), scope, type),
                q.officeOnly())
            : Optional.empty();
    if (workOut.isPresent() && (q.type().isMedia() || !q.type().hasAnswer()))
      problem(FormPart.Kind.WORK_OUT, FormProblem.Reason.NOT_WORKED_OUT);
    List<Rule> checks = new ArrayList<>();
    for (int i = 0; i < q.logic().checks().size(); i++) check(q, i, checks);
    List<Compiled.Fit> fits = new ArrayList<>();
    for (Code c : q.codes())
      for (Rule r : condition(FormPart.code(c.code()), c.fitsWhen()))
        fits.add(new Compiled.Fit(c, r));
    List<Optional<Rule>> starts = new ArrayList<>();
    Set<String> reads = new LinkedHashSet<>();
    for (Source s : q.prefill()) starts.add(source(q, s, type, reads));
    if (q.refresh() == Refresh.ALWAYS && q.prefill().isEmpty())
      problem(FormPart.Kind.REFRESH, FormProblem.Reason.NO_SOURCE);
    compiled.put(
        q.name(),
        new Compiled(q, section, list, type, whens, workOut, checks, fits, starts, reads, scope));
  }

  private void check(Question q, int i, List<Rule> into) {
    Check check = q.logic().checks().get(i);
    FormPart part = FormPart.check(i);
    if (check.rule().isBlank()) {
      problem(part, FormProblem.Reason.CHECK_EMPTY);
      return;
    }
    into.addAll(condition(part, check.rule()));
    for (String name : Check.namesIn(check.message()))
      if (scope.find(name).isEmpty())
        notes.add(FormProblem.of(at, part, FormProblem.Reason.MESSAGE_NAME_UNKNOWN, name));
    if (!check.message().isEmpty()
        && !check.writtenFor().isEmpty()
        && !check.writtenFor().equals(check.rule()))
      notes.add(
          FormProblem.of(at, part, FormProblem.Reason.MESSAGE_OF_OTHER_RULE, check.writtenFor()));
  }

  private Optional<Rule> source(Question q, Source s, ValueType type, Set<String> reads) {
    if (s instanceof Source.Device d && !Source.DEVICE_ITEMS.contains(d.item()))
      problem(FormPart.Kind.PREFILL, FormProblem.Reason.DEVICE_ITEM_UNKNOWN, d.item());
    if (s instanceof Source.WorkedOut w) {
      Optional<Rule> rule =
          take(
              FormPart.of(FormPart.Kind.START_VALUE),
              Rules.formula(w.formula(), scope, type),
              q.officeOnly());
      rule.ifPresent(r -> reads.addAll(r.names()));
      return rule;
    }
    if (s instanceof Source.Place p) {
      LookUp lookUp = p.own().orElse(form.lookUps().get(p.shared()));
      if (lookUp == null)
        problem(FormPart.Kind.LOOK_UP, FormProblem.Reason.LOOK_UP_UNKNOWN, p.shared());
      else placed(p, lookUp, reads);
    }
    return Optional.empty();
  }

  private void placed(Source.Place p, LookUp lookUp, Set<String> reads) {
    reads.add("place");
    for (String n : Rules.namesIn(lookUp.filter()))
      if (n.startsWith(LookUp.ANSWERS)) reads.add(n.substring(LookUp.ANSWERS.length()));
    if (p.own().isPresent()) lookUp("", lookUp);
    String field = p.take().field();
    if (p.take().measure().needsField() && field.isEmpty() && !lookUp.layerId().isEmpty())
      problem(FormPart.Kind.LOOK_UP, FormProblem.Reason.LOOK_UP_UNSET);
    Schema of = layers.get(lookUp.layerId());
    if (of != null && !field.isEmpty() && of.field(field).isEmpty())
      problem(
          FormPart.Kind.LOOK_UP,
          FormProblem.Reason.LOOK_UP_FIELD_UNKNOWN,
          lookUp.layerName(),
          field);
  }

  private void lookUp(String name, LookUp lookUp) {
    if (!name.isEmpty()) at = name;
    if (lookUp.layerId().isEmpty())
      problem(FormPart.Kind.LOOK_UP, FormProblem.Reason.LOOK_UP_UNSET);
    boolean near = lookUp.how() == LookUp.How.NEAREST || lookUp.how() == LookUp.How.ALONG;
    if (near && lookUp.withinM() == 0)
      problem(FormPart.Kind.LOOK_UP, FormProblem.Reason.LOOK_UP_UNBOUNDED);
    Schema of = layers.get(lookUp.layerId());
    if (of == null || lookUp.filter().isEmpty()) return;
    for (RuleProblem p : Rules.condition(lookUp.filter(), new LookUpScope(of, outer)).problems())
      problems.add(FormProblem.of(at, FormPart.of(FormPart.Kind.LOOK_UP_FILTER), p));
  }

  private List<Rule> condition(FormPart part, String text) {
    if (text.isBlank()) return List.of();
    boolean office = form.question(at).map(Question::officeOnly).orElse(false);
    return take(part, Rules.condition(text, scope), office).map(List::of).orElse(List.of());
  }

  private Optional<Rule> take(FormPart part, Rules.Outcome outcome, boolean office) {
    for (RuleProblem p : outcome.problems()) problems.add(FormProblem.of(at, part, p));
    outcome.rule().filter(r -> !office).ifPresent(r -> outdoors(part, r));
    return outcome.rule();
  }

  private void outdoors(FormPart part, Rule rule) {
    for (String name : rule.names()) {
      String last = name.substring(name.lastIndexOf('.') + 1);
      boolean question =
          (name.equals(last)
                  || form.sections().stream().anyMatch(s -> name.startsWith(s.name() + ".")))
              && form.question(last).map(Question::officeOnly).orElse(false);
      boolean field =
          name.startsWith("before.") && schema.field(last).map(Field::officeOnly).orElse(false);
      if (question || field) problem(part, FormProblem.Reason.OFFICE_ONLY_OUTDOORS, name);
    }
  }

  private void problem(FormPart.Kind part, FormProblem.Reason reason, Object... arguments) {
    problem(FormPart.of(part), reason, arguments);
  }

  private void problem(FormPart part, FormProblem.Reason reason, Object... arguments) {
    problems.add(FormProblem.of(at, part, reason, arguments));
  }

  /**
   * Questions so that each comes after what its value reads; reports a cycle with its path. Walked
   * with a stack of its own, since a chain may be as long as the form.
   */
  private List<Compiled> order() {
    List<Compiled> done = new ArrayList<>();
    Set<String> ready = new LinkedHashSet<>();
    for (String name : compiled.keySet()) {
      Set<String> path = new LinkedHashSet<>();
      List<String> stack = new ArrayList<>(List.of(name));
      while (!stack.isEmpty()) {
        String top = stack.get(stack.size() - 1);
        if (ready.contains(top)) {
          stack.remove(stack.size() - 1);
          continue;
        }
        if (path.contains(top)) { // all that it reads is ready now
          stack.remove(stack.size() - 1);
          path.remove(top);
          ready.add(top);
          done.add(compiled.get(top));
          continue;
        }
        path.add(top);
        for (String needs : needs(top)) {
          if (ready.contains(needs)) continue;
          if (path.contains(needs)) {
            circle(path, needs);
            return List.of();
          }
          stack.add(needs);
        }
      }
    }
    return done;
  }

  /** The questions that a question's value reads, a list's column counting as its question. */
  private List<String> needs(String name) {
    List<String> out = new ArrayList<>();
    for (String n : compiled.get(name).reads()) {
      int dot = n.indexOf('.');
      String q = dot < 0 ? n : n.substring(dot + 1);
      boolean column =
          dot > 0
              && form.sections().stream()
                  .anyMatch(s -> s.isList() && s.name().equals(n.substring(0, dot)));
      if (compiled.containsKey(q) && (dot < 0 || column)) out.add(q);
    }
    return out;
  }

  private void circle(Set<String> path, String from) {
    List<String> cycle = new ArrayList<>(path);
    cycle = new ArrayList<>(cycle.subList(cycle.indexOf(from), cycle.size()));
    cycle.add(from);
    problems.add(
        FormProblem.of(
            from,
            FormPart.Kind.RULES,
            FormProblem.Reason.CIRCLE,
            Said.row(cycle.stream().map(Said::text).toList(), "list.thenComma", "list.thenComma")));
  }
}
