package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.said.Unfit;

/** Changes to a draft, one at a time, as the screen sends them. */
public final class FormEdit {
  private FormEdit() {}

  /**
   * Applies one edit: {op: "set", question, property, value} changes a property of a question; {op:
   * "move", question, by} moves it up or down, across sections at their ends; {op: "remove",
   * question}; {op: "rename", question, value} gives it another name everywhere; {op: "replace",
   * form: {…}} puts the form of a file in its place; {op: "add", question: {…}, section} adds at a
   * section's end; {op: "title", value}.
   *
   * @throws IllegalArgumentException with a sentence for people; the form is then as it was
   */
  public static Form apply(Form form, JsonObject edit) {
    try {
      switch (edit.getString("op", "")) {
        case "set":
          return replace(
              form,
              edit.getString("question", ""),
              q -> List.of(set(q, edit.getString("property", ""), edit.get("value"))));
        case "remove":
          return replace(form, edit.getString("question", ""), q -> List.of());
        case "move":
          return move(form, edit.getString("question", ""), edit.getInt("by", 0));
        case "add":
          return add(
              form, Question.read(edit.get("question").asObject()), edit.getInt("section", 0));
        case "replace":
          return Form.read(edit.get("form").toString());
        case "rename":
          return FormRename.rename(
              form, edit.getString("question", ""), edit.getString("value", ""));
        case "title":
          {
            String title = edit.getString("value", "").trim();
            if (title.isEmpty()) throw new Unfit("form.noTitle");
            return new Form(
                form.texts().with("title", title),
                form.sections(),
                form.rules(),
                form.lookUps(),
                form.allowed());
          }
        default:
          throw new Unfit("form.noSuchEdit", "op", edit.getString("op", ""));
      }
    } catch (UnsupportedOperationException | NullPointerException e) {
      throw new Unfit("form.wrongMember").because(e);
    }
  }

  private static Question set(Question q, String property, JsonValue value) {
    QuestionProperty p = QuestionProperty.of(property);
    if (p == null || !p.isEditable()) throw new Unfit("form.noProperty", "property", property);
    if (p == QuestionProperty.LABEL && value.asString().isBlank()) throw new Unfit("form.noLabel");
    Question now = Question.read(q.json().set(property, value));
    return p == QuestionProperty.CHECKS ? knowingItsRules(now, q) : now;
  }

  /** A message that stays while its rule changes was written for the rule before. */
  private static Question knowingItsRules(Question now, Question before) {
    List<Check> checks = new ArrayList<>();
    for (int i = 0; i < now.logic().checks().size(); i++) {
      Check c = now.logic().checks().get(i);
      Check was = i < before.logic().checks().size() ? before.logic().checks().get(i) : c;
      boolean kept = !c.message().isEmpty() && c.message().equals(was.message());
      checks.add(
          kept
              ? new Check(was.rule(), c.texts(), c.weight(), was.writtenFor()).under(c.rule())
              : new Check(c.rule(), c.texts(), c.weight(), ""));
    }
    return Question.read(now.json().set("checks", Check.write(checks)));
  }

  private static Form replace(
      Form form, String name, java.util.function.Function<Question, List<Question>> by) {
    if (form.question(name).isEmpty()) throw new Unfit("form.noSuchQuestion", "name", name);
    return form.with(
        form.sections().stream()
            .map(
                s ->
                    s.with(
                        s.questions().stream()
                            .flatMap(
                                q ->
                                    q.name().equals(name)
                                        ? by.apply(q).stream()
                                        : java.util.stream.Stream.of(q))
                            .toList()))
            .toList());
  }

  private static Form add(Form form, Question q, int section) {
    FormNames.problem(q.name())
        .ifPresent(
            p -> {
              throw new Unfit(p);
            });
    if (form.question(q.name()).isPresent())
      throw new Unfit("form.questionTwice", "name", q.name());
    if (section < 0 || section >= form.sections().size())
      throw new Unfit("form.noSuchSection", "n", section);
    if (form.questions().size() >= Form.MOST_QUESTIONS)
      throw new Unfit("form.tooMany", "most", Form.MOST_QUESTIONS);
    List<Section> sections = new ArrayList<>(form.sections());
    List<Question> qs = new ArrayList<>(sections.get(section).questions());
    qs.add(q);
    sections.set(section, sections.get(section).with(qs));
    return form.with(sections);
  }

  private static Form move(Form form, String name, int by) {
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
