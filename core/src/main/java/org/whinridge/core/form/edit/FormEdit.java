package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.whinridge.core.form.Check;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.FormSettings;
import org.whinridge.core.form.Guidance;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Translations;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Unfit;

/**
 * Changes to a draft, as the screen sends them: JSON objects whose member "op" says what is done.
 * Questions are named, one by "question" or several by "questions"; sections are counted from 0.
 *
 * <ul>
 *   <li>set {question(s), property, value}: a property, see {@link QuestionProperty}
 *   <li>add {question: {…}, section, after}: a question; "" or no after stands for the end
 *   <li>remove {question(s)}
 *   <li>move {question, by}: up or down by one, across sections at their ends
 *   <li>put {questions, section, before}: into a section before a question, "" for its end
 *   <li>insert {questions: [{…}], section, after}: copies, which get names of their own
 *   <li>type {text, section, after}: lines, see {@link FormText}
 *   <li>text {text}: the whole form as lines
 *   <li>rename {question, value}: a question, list or rule gets another name everywhere
 *   <li>section.add {at, title, page}, section.set {section, property, value}, section.move
 *       {section, by}, section.of {questions, title}, section.dissolve {section}, section.remove
 *       {section}: see {@link SectionEdit}
 *   <li>block.of {questions, title}, block.set {section, block, property, value}, block.dissolve
 *       {section, block}
 *   <li>rule.set {name, label, rule}: a rule that several questions share, added or changed;
 *       rule.remove {name}
 *   <li>lookUp.set {name, lookUp: {…}}: a place look-up that several questions share, added or
 *       changed; lookUp.rename {name, value}; lookUp.remove {name}: who used it has it as its own
 *   <li>title {value}, replace {form: {…}}
 *   <li>settings {setting, value}: see {@link FormSettings}; null takes it away
 *   <li>guidance {value: [{title, text, file, name}]}: what travels with the form, whole
 *   <li>translate {language, texts: {key: text}}: see {@link Translations}
 *   <li>several {edits: […]}: one after the other, all or none
 * </ul>
 */
public final class FormEdit {
  private static final int MOST_EDITS = 1000;

  private FormEdit() {}

  /**
   * Applies one edit.
   *
   * @throws IllegalArgumentException with a sentence for people; the form is then as it was
   */
  public static Form apply(Form form, JsonObject edit) {
    try {
      Form now = done(form, edit);
      if (now.questions().size() > Form.MOST_QUESTIONS
          && now.questions().size() > form.questions().size())
        throw new Unfit("form.tooMany", "most", Form.MOST_QUESTIONS);
      return now;
    } catch (UnsupportedOperationException | NullPointerException | NumberFormatException e) {
      throw new Unfit("form.wrongMember").because(e);
    }
  }

  private static Form done(Form form, JsonObject edit) {
    String op = edit.getString("op", "");
    if (op.startsWith("section.") || op.startsWith("block.")) return SectionEdit.apply(form, edit);
    if (op.startsWith("rule.") || op.startsWith("lookUp.")) return SharedEdit.apply(form, edit);
    switch (op) {
      case "set":
        return set(form, edit);
      case "remove":
        return Arranging.without(form, names(form, edit));
      case "move":
        return Arranging.move(form, edit.getString("question", ""), edit.getInt("by", 0));
      case "put":
        return Arranging.put(
            form, names(form, edit), edit.getInt("section", 0), edit.getString("before", ""));
      case "add":
        return add(form, edit);
      case "insert":
        return Copies.insert(form, edit);
      case "type":
        return Typing.type(
            form,
            edit.getString("text", ""),
            edit.getInt("section", 0),
            edit.getString("after", ""));
      case "text":
        return Typing.text(form, edit.getString("text", ""));
      case "replace":
        return Form.read(edit.get("form").toString());
      case "rename":
        return FormRename.rename(form, edit.getString("question", ""), edit.getString("value", ""));
      case "settings":
        return form.with(form.settings().with(edit.getString("setting", ""), edit.get("value")));
      case "guidance":
        return guided(form, Guidance.read(edit.get("value")));
      case "translate":
        return translated(form, edit);
      case "title":
        return titled(form, edit.getString("value", "").trim());
      case "several":
        return several(form, edit.get("edits").asArray());
      default:
        throw new Unfit("form.noSuchEdit", "op", op);
    }
  }

  private static Form several(Form form, JsonArray edits) {
    if (edits.size() > MOST_EDITS) throw new Unfit("form.tooManyEdits", "most", MOST_EDITS);
    Form now = form;
    for (JsonValue e : edits) {
      if (e.asObject().getString("op", "").equals("several"))
        throw new Unfit("form.noSuchEdit", "op", "several");
      now = done(now, e.asObject());
    }
    return now;
  }

  private static Form titled(Form form, String title) {
    if (title.isEmpty()) throw new Unfit("form.noTitle");
    return new Form(
        form.texts().with("title", title),
        form.sections(),
        form.rules(),
        form.lookUps(),
        form.allowed(),
        form.settings(),
        form.guidance());
  }

  private static Form guided(Form form, List<Guidance> guidance) {
    return new Form(
        form.texts(),
        form.sections(),
        form.rules(),
        form.lookUps(),
        form.allowed(),
        form.settings(),
        guidance);
  }

  private static Form translated(Form form, JsonObject edit) {
    Map<String, String> texts = new TreeMap<>();
    for (JsonObject.Member m : edit.get("texts").asObject())
      texts.put(m.getName(), m.getValue().asString());
    return Translations.with(form, edit.getString("language", ""), texts);
  }

  /** The questions that an edit names, each of which must be there. */
  static List<String> names(Form form, JsonObject edit) {
    List<String> out = new ArrayList<>();
    if (edit.get("questions") == null) out.add(edit.getString("question", ""));
    else for (JsonValue v : edit.get("questions").asArray()) out.add(v.asString());
    if (out.isEmpty()) throw new Unfit("form.noneChosen");
    for (String name : out)
      if (form.question(name).isEmpty()) throw new Unfit("form.noSuchQuestion", "name", name);
    return out;
  }

  private static Form set(Form form, JsonObject edit) {
    List<String> names = names(form, edit);
    String property = edit.getString("property", "");
    JsonValue value = edit.get("value");
    return form.with(
        form.sections().stream()
            .map(
                s ->
                    s.with(
                        s.questions().stream()
                            .map(q -> names.contains(q.name()) ? set(q, property, value) : q)
                            .toList()))
            .toList());
  }

  private static Question set(Question q, String property, JsonValue value) {
    QuestionProperty p = QuestionProperty.of(property);
    if (p == null || !p.isEditable()) throw new Unfit("form.noProperty", "property", property);
    if (p == QuestionProperty.LABEL && value.asString().isBlank()) throw new Unfit("form.noLabel");
    Question now = Question.read(q.json().set(property, value));
    if (p == QuestionProperty.CODES) distinct(now.codes());
    return p == QuestionProperty.CHECKS ? knowingItsRules(now, q) : now;
  }

  private static void distinct(List<Code> codes) {
    Set<String> seen = new TreeSet<>();
    for (Code c : codes) {
      if (c.code().isBlank()) throw new Unfit("line.emptyCode");
      if (!seen.add(c.code())) throw new Unfit("form.codeTwice", "code", c.code());
    }
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

  private static Form add(Form form, JsonObject edit) {
    Question q = Question.read(edit.get("question").asObject());
    FormNames.problem(q.name())
        .ifPresent(
            p -> {
              throw new Unfit(p);
            });
    if (form.question(q.name()).isPresent())
      throw new Unfit("form.questionTwice", "name", q.name());
    return Arranging.insert(
        form, List.of(q), edit.getInt("section", 0), edit.getString("after", ""));
  }

  /** A section of a form by its number. */
  static Section section(Form form, int n) {
    if (n < 0 || n >= form.sections().size()) throw new Unfit("form.noSuchSection", "n", n);
    return form.sections().get(n);
  }
}
