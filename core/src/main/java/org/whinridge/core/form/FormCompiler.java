package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.ValueType;

/** Draft to executable form: every rule read and checked, names and wiring sound, no cycle. */
public final class FormCompiler {
  private final Form form;
  private final Schema schema;
  private final FormScope scope;
  private final List<FormProblem> problems = new ArrayList<>();
  private final Map<String, ExecutableForm.Compiled> compiled = new LinkedHashMap<>();
  private String at = "";

  private FormCompiler(Form form, Schema schema) {
    this.form = form;
    this.schema = schema;
    this.scope = new FormScope(form, schema);
  }

  /**
   * The executable form, or all that keeps it from being one; present exactly when there is no
   * problem.
   */
  public record Outcome(Optional<ExecutableForm> form, List<FormProblem> problems) {}

  /** Compiles a draft or an edition against its layer's schema. */
  public static Outcome compile(Form form, Schema schema) {
    return new FormCompiler(form, schema).run();
  }

  private Outcome run() {
    Set<String> names = new LinkedHashSet<>();
    Map<String, String> writers = new LinkedHashMap<>();
    for (int s = 0; s < form.sections().size(); s++) {
      Section section = form.sections().get(s);
      at = section.title();
      Optional<Rule> sectionWhen = condition("section's ask when", section.askWhen());
      for (Question q : section.questions()) {
        at = q.name();
        if (!Field.isName(q.name()))
          problem("name", "a question's name has letters, digits and underscores");
        if (!names.add(q.name())) problem("name", "two questions are called ‘" + q.name() + "’");
        wiring(q, writers);
        prefill(q);
        question(q, s, sectionWhen);
      }
    }
    if (names.isEmpty())
      problems.add(
          new FormProblem("", "form", "a form needs at least one question", Optional.empty()));
    List<String> order = problems.isEmpty() ? order() : List.of();
    return problems.isEmpty()
        ? new Outcome(
            Optional.of(new ExecutableForm(form, schema, scope, compiled, order)), List.of())
        : new Outcome(Optional.empty(), List.copyOf(problems));
  }

  private void question(Question q, int section, Optional<Rule> sectionWhen) {
    Optional<Rule> when = condition("ask when", q.askWhen());
    ValueType type = q.valueType(schema);
    Optional<Rule> workOut =
        q.isWorkedOut()
            ? take("work out", Rules.formula(q.workOut(), scope, type))
            : Optional.empty();
    if (workOut.isPresent() && (q.type() == QuestionType.PHOTO || q.type() == QuestionType.READ))
      problem("work out", "this kind of question can't be worked out");
    List<Rule> checks = new ArrayList<>();
    for (int i = 0; i < q.checks().size(); i++)
      condition("check " + (i + 1), q.checks().get(i).rule()).ifPresent(checks::add);
    if (q.need() == Question.Need.NEEDED && q.officeOnly())
      problem("needed", "an office only question can't be needed: nobody outdoors could answer it");
    if ((q.type() == QuestionType.CHOICE || q.type() == QuestionType.CHOICES)
        && q.codes().isEmpty()) problem("codes", "a choice needs codes to choose from");
    if (q.most() > 0 && q.least() > q.most())
      problem("least", "the least, " + q.least() + ", is more than the most, " + q.most());
    compiled.put(
        q.name(), new ExecutableForm.Compiled(q, section, sectionWhen, when, workOut, checks));
  }

  private void wiring(Question q, Map<String, String> writers) {
    if (q.writesTo().isEmpty()) return;
    Optional<Field> field = schema.field(q.writesTo());
    if (field.isEmpty()) {
      problem("writes to", "the layer has no field ‘" + q.writesTo() + "’");
      return;
    }
    String other = writers.put(q.writesTo(), q.name());
    if (other != null)
      problem("writes to", "‘" + other + "’ already writes to the field " + q.writesTo());
    FieldType t = field.get().type();
    boolean fits =
        t.valueType() == q.valueType(schema)
            && !(t == FieldType.WHOLE && q.type() == QuestionType.DECIMAL);
    if (!fits)
      problem(
          "writes to",
          "the field "
              + q.writesTo()
              + " holds "
              + t.said()
              + ", which this kind of question does not give");
  }

  private void prefill(Question q) {
    for (Source s : q.prefill()) {
      if (s instanceof Source.Place p && (p.layerId().isEmpty() || p.field().isEmpty()))
        problem("place look-up", "choose the layer and the field to look up");
      if (s instanceof Source.Device d && !Source.DEVICE_ITEMS.contains(d.item()))
        problem("prefill", "a device does not know ‘" + d.item() + "’");
    }
  }

  private Optional<Rule> condition(String part, String text) {
    return text.isBlank() ? Optional.empty() : take(part, Rules.condition(text, scope));
  }

  private Optional<Rule> take(String part, Rules.Outcome outcome) {
    for (RuleProblem p : outcome.problems())
      problems.add(new FormProblem(at, part, p.message(), Optional.of(p)));
    outcome.rule().ifPresent(r -> outdoors(part, r));
    return outcome.rule();
  }

  private void outdoors(String part, Rule rule) {
    boolean inOffice = form.question(at).map(Question::officeOnly).orElse(false);
    if (inOffice) return;
    for (String name : rule.names())
      if (form.question(name).map(Question::officeOnly).orElse(false)
          || (name.startsWith("before.")
              && schema.field(name.substring(7)).map(Field::officeOnly).orElse(false)))
        problem(
            part, "this rule runs outdoors, but ‘" + name + "’ is office only and does not travel");
  }

  private void problem(String part, String message) {
    problems.add(new FormProblem(at, part, message, Optional.empty()));
  }

  /**
   * Questions so that each comes after what its ask when and its formula read; reports a cycle with
   * its path.
   */
  private List<String> order() {
    List<String> done = new ArrayList<>();
    for (String name : compiled.keySet()) visit(name, done, new ArrayList<>());
    return done;
  }

  private void visit(String name, List<String> done, List<String> path) {
    if (!problems.isEmpty() || done.contains(name)) return;
    if (path.contains(name)) {
      List<String> cycle = new ArrayList<>(path.subList(path.indexOf(name), path.size()));
      cycle.add(name);
      problems.add(
          new FormProblem(
              name,
              "rules",
              "these questions depend on each other in a circle: " + String.join(" → ", cycle),
              Optional.empty()));
      return;
    }
    path.add(name);
    for (String needs : compiled.get(name).reads())
      if (compiled.containsKey(needs)) visit(needs, done, path);
    path.remove(path.size() - 1);
    if (!done.contains(name)) done.add(name);
  }
}
