package org.whinridge.core.form;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rules;

/**
 * The part of a form that some of its answers follow from: the questions, named rules and look-ups
 * that they read, and what these read in turn. It gives the same answers as the whole form, and
 * tells of nothing that is open: checks are left out.
 */
public final class NeededFor {
  private final Form form;
  private final Set<String> names = new TreeSet<>();
  private final Set<String> lookUps = new TreeSet<>();
  private final Deque<String> open = new ArrayDeque<>();

  private NeededFor(Form form) {
    this.form = form;
  }

  /**
   * The part that is needed.
   *
   * @param read names as a rule outside of lists reads them; what is no name of the form, such as
   *     the place, needs nothing
   */
  public static Form names(Form form, Collection<String> read) {
    NeededFor n = new NeededFor(form);
    read.forEach(n::read);
    while (!n.open.isEmpty()) n.follow(n.open.pop());
    return n.part();
  }

  /** A column needs its list as a whole, last.x needs x, before.x is the layer's. */
  private void read(String name) {
    if (name.startsWith("before.")) return;
    if (name.startsWith(LookUp.ANSWERS)) {
      read(name.substring(LookUp.ANSWERS.length()));
      return;
    }
    int dot = name.indexOf('.');
    String own =
        dot < 0 ? name : name.startsWith("last.") ? name.substring(5) : name.substring(0, dot);
    if (own.indexOf('.') > 0) own = own.substring(0, own.indexOf('.'));
    if (names.add(own)) open.push(own);
  }

  private void rule(String text) {
    if (!text.isEmpty()) Rules.namesIn(text).forEach(this::read);
  }

  private void follow(String name) {
    form.rules().stream().filter(r -> r.name().equals(name)).forEach(r -> rule(r.rule()));
    for (Section s : form.sections()) {
      boolean list = s.isList() && s.name().equals(name);
      for (Question q : s.questions()) if (list || q.name().equals(name)) question(s, q);
      if (list) rule(s.askWhen());
    }
  }

  private void question(Section s, Question q) {
    read(q.name());
    if (s.isList()) read(s.name());
    rule(s.askWhen());
    s.block(q.layout().block()).ifPresent(b -> rule(b.askWhen()));
    rule(q.logic().askWhen());
    rule(q.logic().workOut());
    for (Source source : q.prefill()) {
      if (source instanceof Source.WorkedOut w) rule(w.formula());
      if (!(source instanceof Source.Place p)) continue;
      p.own().ifPresent(l -> rule(l.filter()));
      LookUp shared = form.lookUps().get(p.shared());
      if (shared != null && lookUps.add(p.shared())) rule(shared.filter());
    }
  }

  private Form part() {
    List<Section> sections = new ArrayList<>();
    for (Section s : form.sections()) {
      List<Question> kept =
          s.questions().stream()
              .filter(q -> names.contains(q.name()))
              .map(NeededFor::plain)
              .toList();
      if (kept.isEmpty()) continue;
      Set<String> blocks = new TreeSet<>();
      kept.forEach(q -> blocks.add(q.layout().block()));
      sections.add(
          new Section(
              s.name(),
              s.texts(),
              s.startsPage(),
              s.askWhen(),
              s.rows(),
              s.blocks().stream().filter(b -> blocks.contains(b.name())).toList(),
              kept));
    }
    Map<String, LookUp> shared = new LinkedHashMap<>(form.lookUps());
    shared.keySet().retainAll(lookUps);
    return new Form(
        form.texts(),
        sections,
        form.rules().stream().filter(r -> names.contains(r.name())).toList(),
        shared,
        Optional.empty(),
        FormSettings.NONE,
        List.of());
  }

  /** A question without what only tells what is open about it. */
  private static Question plain(Question q) {
    return new Question(
        q.name(),
        q.texts(),
        q.type(),
        q.limits(),
        q.need(),
        q.hand(),
        q.wire(),
        q.codes().stream().map(c -> c.fitting("")).toList(),
        new Question.Logic(q.logic().askWhen(), q.logic().workOut(), List.of()),
        q.prefill(),
        q.refresh(),
        q.layout());
  }
}
