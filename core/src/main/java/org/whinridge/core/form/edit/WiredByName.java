package org.whinridge.core.form.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.FieldFit;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.Source;

/**
 * A question that comes into a form under the name of a field of its layer writes to that field,
 * where the field can hold its answers, belongs to nobody's question yet and travels. It begins
 * with what the asset has, unless it says otherwise.
 */
public final class WiredByName {
  private final Schema schema;
  private final Set<String> taken = new TreeSet<>();

  private WiredByName(Form form, Schema schema) {
    this.schema = schema;
    for (Question q : form.questions()) taken.add(q.writesTo());
  }

  /** The form after an edit, with those questions wired that it did not have before. */
  public static Form after(Form before, Form after, Schema schema) {
    Set<String> there = new TreeSet<>();
    for (Question q : before.questions()) there.add(q.name());
    WiredByName w = new WiredByName(after, schema);
    return w.each(after, there);
  }

  /**
   * A form that comes to a layer from elsewhere: what it wrote to that the layer does not have, or
   * can't hold, stays on the visit.
   */
  public static Form onto(Form form, Schema schema) {
    List<Section> sections = new ArrayList<>();
    for (Section s : form.sections())
      sections.add(s.with(s.questions().stream().map(q -> loosened(q, schema)).toList()));
    Form loose = form.with(sections);
    return new WiredByName(loose, schema).each(loose, Set.of());
  }

  private static Question loosened(Question q, Schema schema) {
    if (q.writesTo().isEmpty()) return q;
    Optional<Field> f = schema.field(q.writesTo());
    return f.isPresent() && FieldFit.fits(q, f.get(), schema) ? q : q.writingTo("");
  }

  private Form each(Form form, Set<String> leave) {
    boolean changed = false;
    List<Section> sections = new ArrayList<>();
    for (Section s : form.sections()) {
      List<Question> questions = new ArrayList<>();
      for (Question q : s.questions()) {
        Question now = s.isList() || leave.contains(q.name()) ? q : wired(q);
        changed |= now != q;
        questions.add(now);
      }
      sections.add(s.with(questions));
    }
    return changed ? form.with(sections) : form;
  }

  private Question wired(Question q) {
    Optional<Field> f = schema.field(q.name());
    if (!q.writesTo().isEmpty() || f.isEmpty() || taken.contains(q.name())) return q;
    if (f.get().officeOnly() || !q.type().hasAnswer()) return q;
    Question to = q.writingTo(q.name());
    if (!FieldFit.fits(to, f.get(), schema)) return q;
    taken.add(q.name());
    return to.prefill().isEmpty() && !to.isWorkedOut()
        ? to.beginningWith(List.of(new Source.Asset()))
        : to;
  }
}
