package org.whinridge.core.form.edit;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.said.Unfit;

/** Lines that are typed or pasted become questions, sections and blocks. */
final class Typing {
  private Typing() {}

  /**
   * Adds lines behind a question of a section, "" for its end. Questions before the first section
   * among them go there; each section that is begun stands behind it, and what came after the
   * question follows in the last of them only when nothing is begun.
   */
  static Form type(Form form, String text, int section, String after) {
    FormText.Read read = FormText.read(text, new ArrayList<>(SectionEdit.names(form)));
    sound(read);
    if (read.sections().isEmpty()) throw new Unfit("line.nothing");
    Form now = form;
    int at = section;
    if (form.sections().isEmpty()) {
      now = form.with(List.of(Section.of("", false, List.of())));
      at = 0;
    }
    List<Section> begun = new ArrayList<>(read.sections());
    Section first = begun.get(0);
    boolean goesOn =
        first.title().isEmpty()
            && !first.isList()
            && !first.startsPage()
            && first.blocks().isEmpty();
    if (goesOn) {
      begun.remove(0);
      now = Arranging.insert(now, standing(now, at, after, first.questions()), at, after);
    } else FormEdit.section(now, at);
    boolean empty = now.sections().get(at).questions().isEmpty();
    List<Section> out = new ArrayList<>(now.sections());
    // lines that begin a section in an untitled, empty one take its place
    if (!begun.isEmpty() && empty && out.get(at).title().isEmpty() && !out.get(at).isList())
      out.remove(at--);
    out.addAll(at + 1, begun);
    return form.with(out);
  }

  /** What is typed behind a question stands in its block. */
  private static List<Question> standing(
      Form form, int section, String after, List<Question> added) {
    String block = form.question(after).map(q -> q.layout().block()).orElse("");
    if (FormEdit.section(form, section).block(block).isEmpty()) return added;
    return added.stream().map(q -> Arranging.inBlock(q, block)).toList();
  }

  /** The whole form as its text; title, shared rules and look-ups stay. */
  static Form text(Form form, String text) {
    FormText.Read read = FormText.read(text, form);
    sound(read);
    return form.with(read.sections());
  }

  private static void sound(FormText.Read read) {
    if (read.problems().isEmpty()) return;
    FormText.Problem p = read.problems().get(0);
    throw new Unfit("line.cantBeRead", "n", p.number(), "why", p.why());
  }
}
