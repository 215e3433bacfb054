package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.form.Section;
import org.whinridge.core.said.Said;

/** What changed between two states of a form, in words, and what that means outdoors. */
public final class FormChanges {
  private FormChanges() {}

  /** What changed, in the order of the sheet; empty for nothing. */
  public static List<Said> between(Form before, Form after) {
    List<Said> out = new ArrayList<>();
    if (!before.title().equals(after.title()))
      out.add(Said.of("formChange.title", "from", before.title(), "to", after.title()));
    for (Question q : before.questions())
      if (after.question(q.name()).isEmpty())
        out.add(Said.of("formChange.removed", "label", q.label()));
    for (Question q : after.questions()) {
      Optional<Question> was = before.question(q.name());
      if (was.isEmpty()) out.add(Said.of("formChange.added", "label", q.label()));
      else {
        List<Said> what = properties(was.get(), q);
        if (!what.isEmpty())
          out.add(
              Said.of(
                  "formChange.changed",
                  "label",
                  q.label(),
                  "what",
                  Said.inARow(what, "list.then")));
      }
    }
    if (!arrangement(before, after).equals(arrangement(after, before)))
      out.add(Said.of("formChange.arranged"));
    if (!before.rules().equals(after.rules()) || !before.lookUps().equals(after.lookUps()))
      out.add(Said.of("formChange.shared"));
    if (!before.settings().equals(after.settings())) out.add(Said.of("formChange.settings"));
    if (!before.guidance().equals(after.guidance())) out.add(Said.of("formChange.guidance"));
    return out;
  }

  private static List<Said> properties(Question before, Question after) {
    List<Said> out = new ArrayList<>();
    JsonObject a = before.json();
    JsonObject b = after.json();
    for (QuestionProperty p : QuestionProperty.values()) {
      JsonValue was = a.get(p.id());
      JsonValue is = b.get(p.id());
      if (was == null ? is != null : !was.equals(is))
        out.add(Said.of("questionProperty." + p.id()));
    }
    return out;
  }

  /** Sections, blocks, and the order of those questions that both forms could have. */
  private static List<String> arrangement(Form form, Form other) {
    List<String> out = new ArrayList<>();
    for (Section s : form.sections()) {
      out.add(s.with(List.of()).json().toString());
      for (Question q : s.questions()) if (other.question(q.name()).isPresent()) out.add(q.name());
    }
    return out;
  }

  /** What it means for those who are out with the state before. */
  public static List<Said> outdoors(Form before, Form after) {
    List<Said> out = new ArrayList<>();
    for (Question q : after.questions()) {
      Optional<Question> was = before.question(q.name());
      if (was.isEmpty() && q.need() == Question.Need.NEEDED)
        out.add(Said.of("formChange.newNeeded", "label", q.label()));
      if (was.isPresent() && was.get().type() != q.type())
        out.add(
            Said.of(
                "formChange.otherKind",
                "label",
                q.label(),
                "from",
                Said.of("questionType." + was.get().type().id()),
                "to",
                Said.of("questionType." + q.type().id())));
    }
    for (Question q : before.questions())
      if (after.question(q.name()).isEmpty())
        out.add(Said.of("formChange.goneOutdoors", "label", q.label()));
    return out;
  }
}
