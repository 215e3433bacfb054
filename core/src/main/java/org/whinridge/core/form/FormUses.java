package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rules;

/**
 * What depends on what in a form: which questions, named rules and look-ups each rule reads. Rules
 * that can't be read depend on nothing.
 */
public final class FormUses {
  /** What of a question, section or rule reads something. */
  public enum Part {
    SECTION_ASK_WHEN,
    BLOCK_ASK_WHEN,
    ASK_WHEN,
    WORK_OUT,
    CHECK,
    MESSAGE,
    CODE_FITS,
    PREFILL,
    SHARED_RULE;

    /** The word in data. */
    public String id() {
      return name().toLowerCase(java.util.Locale.ROOT);
    }
  }

  /**
   * One reads another.
   *
   * @param by the question, list, named rule or shared look-up that reads; of a section without a
   *     name its title
   * @param reads the question, list, named rule or shared look-up that is read
   */
  public record Use(String by, Part part, String reads) {}

  private final Set<String> names = new TreeSet<>();
  private final Set<String> lookUps = new TreeSet<>();
  private final List<Use> uses = new ArrayList<>();
  private boolean readsLastVisit;

  private FormUses(Form form) {
    for (Section s : form.sections()) {
      if (s.isList()) names.add(s.name());
      for (Question q : s.questions()) names.add(q.name());
    }
    form.rules().forEach(r -> names.add(r.name()));
    lookUps.addAll(form.lookUps().keySet());
  }

  /** All uses, in the order of the sheet; the same one once. */
  public static List<Use> of(Form form) {
    return List.copyOf(all(form).uses);
  }

  /** Whether anything in a form asks for what the last visit of the same feature answered. */
  public static boolean readsLastVisit(Form form) {
    return all(form).readsLastVisit;
  }

  private static FormUses all(Form form) {
    FormUses all = new FormUses(form);
    for (Section s : form.sections()) {
      all.readsLastVisit |= s.rows().filter(Section.Rows::fromLastVisit).isPresent();
      String by = s.name().isEmpty() ? s.title() : s.name();
      all.rule(by, Part.SECTION_ASK_WHEN, s.askWhen());
      for (Section.Block b : s.blocks()) all.rule(by, Part.BLOCK_ASK_WHEN, b.askWhen());
      s.questions().forEach(all::question);
    }
    for (NamedRule r : form.rules()) all.rule(r.name(), Part.SHARED_RULE, r.rule());
    form.lookUps().forEach((name, l) -> all.filter(name, l));
    return all;
  }

  private void question(Question q) {
    rule(q.name(), Part.ASK_WHEN, q.logic().askWhen());
    rule(q.name(), Part.WORK_OUT, q.logic().workOut());
    for (Check c : q.logic().checks()) {
      rule(q.name(), Part.CHECK, c.rule());
      message(q.name(), c.message());
    }
    for (Code c : q.codes()) rule(q.name(), Part.CODE_FITS, c.fitsWhen());
    for (Source s : q.prefill()) {
      readsLastVisit |= s instanceof Source.LastVisit;
      if (s instanceof Source.WorkedOut w) rule(q.name(), Part.PREFILL, w.formula());
      if (!(s instanceof Source.Place p)) continue;
      p.own().ifPresent(l -> filter(q.name(), l));
      if (lookUps.contains(p.shared())) add(q.name(), Part.PREFILL, p.shared());
    }
  }

  /** Answers in a message stand in curly brackets. */
  private void message(String by, String text) {
    for (String name : Check.namesIn(text)) read(name).ifPresent(n -> add(by, Part.MESSAGE, n));
  }

  private void filter(String by, LookUp l) {
    for (String name : Rules.namesIn(l.filter()))
      if (name.startsWith(LookUp.ANSWERS))
        read(name.substring(LookUp.ANSWERS.length())).ifPresent(n -> add(by, Part.PREFILL, n));
  }

  private void rule(String by, Part part, String text) {
    if (text.isEmpty()) return;
    for (String name : Rules.namesIn(text)) read(name).ifPresent(n -> add(by, part, n));
  }

  /** What a name of a rule stands for: a column is its question, last.x is x. */
  private Optional<String> read(String name) {
    readsLastVisit |= name.startsWith("last.");
    if (names.contains(name)) return Optional.of(name);
    int dot = name.indexOf('.');
    if (dot < 0 || name.startsWith("before.")) return Optional.empty();
    return Optional.of(name.substring(dot + 1)).filter(names::contains);
  }

  private void add(String by, Part part, String reads) {
    Use u = new Use(by, part, reads);
    if (!by.equals(reads) && !uses.contains(u)) uses.add(u);
  }

  /** The JSON form: [{by, part, reads}]. */
  public static JsonArray json(List<Use> uses) {
    JsonArray a = new JsonArray();
    for (Use u : uses)
      a.add(new JsonObject().add("by", u.by).add("part", u.part.id()).add("reads", u.reads));
    return a;
  }
}
