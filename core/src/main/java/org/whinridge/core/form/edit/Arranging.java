package org.whinridge.core.form.edit;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.said.Unfit;

/** Where questions stand. */
final class Arranging {
  private Arranging() {}

  static Form with(Form form, int section, Section now) {
    List<Section> out = new ArrayList<>(form.sections());
    out.set(section, now);
    return form.with(out);
  }

  static Form without(Form form, List<String> names) {
    return form.with(
        form.sections().stream()
            .map(
                s -> s.with(s.questions().stream().filter(q -> !names.contains(q.name())).toList()))
            .toList());
  }

  /** Adds questions to a section behind one of its questions; "" for its end. */
  static Form insert(Form form, List<Question> added, int section, String after) {
    if (form.sections().isEmpty() && section == 0)
      return insert(form.with(List.of(Section.of("", false, List.of()))), added, 0, after);
    Section s = FormEdit.section(form, section);
    List<Question> qs = new ArrayList<>(s.questions());
    int at = after.isEmpty() ? qs.size() : place(s, after) + 1;
    qs.addAll(at, added);
    return with(form, section, s.with(qs));
  }

  private static int place(Section s, String name) {
    for (int i = 0; i < s.questions().size(); i++)
      if (s.questions().get(i).name().equals(name)) return i;
    throw new Unfit("form.notInSection", "name", name);
  }

  /**
   * Puts questions into a section before one of its questions; "" for its end. They keep their
   * order, and leave their block for that of the question before which they stand.
   */
  static Form put(Form form, List<String> names, int section, String before) {
    Section target = FormEdit.section(form, section);
    if (names.contains(before)) throw new Unfit("form.beforeItself", "name", before);
    String block =
        before.isEmpty() ? "" : target.questions().get(place(target, before)).layout().block();
    List<Question> moved = new ArrayList<>();
    for (Question q : form.questions()) if (names.contains(q.name())) moved.add(inBlock(q, block));
    Form left = without(form, names);
    Section s = left.sections().get(section);
    List<Question> qs = new ArrayList<>(s.questions());
    qs.addAll(before.isEmpty() ? qs.size() : place(s, before), moved);
    return with(left, section, s.with(qs));
  }

  static Question inBlock(Question q, String block) {
    return q.layout().block().equals(block) ? q : Question.read(q.json().set("block", block));
  }

  static Form move(Form form, String name, int by) {
    List<List<Question>> all = new ArrayList<>();
    int s = -1;
    int i = -1;
    for (Section section : form.sections()) {
      List<Question> qs = new ArrayList<>(section.questions());
      for (int k = 0; k < qs.size(); k++)
        if (qs.get(k).name().equals(name)) {
          s = all.size();
          i = k;
        }
      all.add(qs);
    }
    if (s < 0) throw new Unfit("form.noSuchQuestion", "name", name);
    Question q = all.get(s).remove(i);
    int to = i + Integer.signum(by);
    if (to < 0 && s > 0) all.get(s - 1).add(q);
    else if (to > all.get(s).size() && s + 1 < all.size()) all.get(s + 1).add(0, q);
    else all.get(s).add(Math.max(0, Math.min(all.get(s).size(), to)), q);
    List<Section> sections = new ArrayList<>();
    for (int k = 0; k < all.size(); k++) sections.add(form.sections().get(k).with(all.get(k)));
    return form.with(sections);
  }
}
