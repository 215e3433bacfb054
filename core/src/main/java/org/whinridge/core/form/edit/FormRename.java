package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonArray;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.whinridge.core.form.Check;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.FormSettings;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.said.Unfit;

/**
 * Gives a question, a list section or a named rule another name, and writes it into every rule,
 * formula, filter and message of the form that used the old one.
 */
public final class FormRename {
  private final String from;
  private final String to;
  private final boolean isList;

  private FormRename(String from, String to, boolean isList) {
    this.from = from;
    this.to = to;
    this.isList = isList;
  }

  /**
   * The form with the new name.
   *
   * @throws IllegalArgumentException with a sentence for people when nothing has the old name, or
   *     the new one is no name or is taken
   */
  public static Form rename(Form form, String from, String to) {
    List<String> names = new ArrayList<>();
    for (Section s : form.sections()) {
      if (!s.name().isEmpty()) names.add(s.name());
      for (Question q : s.questions()) names.add(q.name());
    }
    for (NamedRule r : form.rules()) names.add(r.name());
    if (!names.contains(from)) throw new Unfit("form.noSuchName", "name", from);
    boolean list = form.sections().stream().anyMatch(s -> s.isList() && s.name().equals(from));
    (list ? FormNames.problemOfList(to) : FormNames.problem(to))
        .ifPresent(
            p -> {
              throw new Unfit(p);
            });
    if (names.contains(to)) throw new Unfit("form.nameThere", "name", to);
    return new FormRename(from, to, list).in(form);
  }

  /**
   * Which questions and list sections have another name in a later state of a form: the new names
   * by the old ones. A question has another name when it stands where the old one stood, in a form
   * that is arranged alike, with the same kind and label, and the old name is gone.
   */
  public static Map<String, String> between(Form before, Form after) {
    Map<String, String> out = new LinkedHashMap<>();
    if (before.sections().size() != after.sections().size()) return out;
    for (int s = 0; s < before.sections().size(); s++) {
      Section was = before.sections().get(s);
      Section is = after.sections().get(s);
      if (was.isList()
          && is.isList()
          && !was.name().equals(is.name())
          && hasNo(after, was.name())
          && hasNo(before, is.name())) out.put(was.name(), is.name());
      if (was.questions().size() != is.questions().size()) continue;
      for (int k = 0; k < was.questions().size(); k++) {
        Question a = was.questions().get(k);
        Question b = is.questions().get(k);
        if (!a.name().equals(b.name())
            && a.type() == b.type()
            && a.label().equals(b.label())
            && hasNo(after, a.name())
            && hasNo(before, b.name())) out.put(a.name(), b.name());
      }
    }
    return out;
  }

  private static boolean hasNo(Form form, String name) {
    return form.question(name).isEmpty()
        && form.sections().stream().noneMatch(s -> s.name().equals(name));
  }

  private Form in(Form form) {
    Map<String, LookUp> lookUps = new LinkedHashMap<>();
    form.lookUps().forEach((name, l) -> lookUps.put(name, lookUp(l)));
    return new Form(
        form.texts(),
        form.sections().stream().map(this::section).toList(),
        form.rules().stream()
            .map(r -> new NamedRule(name(r.name()), r.label(), rule(r.rule())))
            .toList(),
        lookUps,
        form.allowed(),
        settings(form.settings(), from, to),
        form.guidance());
  }

  private static FormSettings settings(FormSettings s, String from, String to) {
    if (!s.caption().contains(from)) return s;
    JsonArray names = new JsonArray();
    for (String c : s.caption()) names.add(c.equals(from) ? to : c);
    return s.with("caption", names);
  }

  private String name(String name) {
    return name.equals(from) ? to : name;
  }

  /** A name as a rule writes it: bare, behind a prefix, or as a prefix itself. */
  private String written(String name) {
    int dot = name.indexOf('.');
    if (dot < 0) return name(name);
    String head = name.substring(0, dot);
    String tail = name.substring(dot + 1);
    if (head.equals("before")) return name; // a field of the layer, not a question
    if (isList && head.equals(from)) return to + "." + tail;
    return head + "." + (isList && !tail.contains(".") ? tail : written(tail));
  }

  private String rule(String text) {
    return text.isEmpty() ? text : Rules.rename(text, this::written);
  }

  private LookUp lookUp(LookUp l) {
    UnaryOperator<String> answers = n -> n.startsWith(LookUp.ANSWERS) ? written(n) : n;
    return new LookUp(
        l.layerId(),
        l.layerName(),
        l.how(),
        l.withinM(),
        l.filter().isEmpty() ? "" : Rules.rename(l.filter(), answers),
        l.several());
  }

  private Section section(Section s) {
    return new Section(
        name(s.name()),
        s.texts(),
        s.startsPage(),
        rule(s.askWhen()),
        s.rows(),
        s.blocks().stream()
            .map(b -> new Section.Block(b.name(), b.texts(), rule(b.askWhen())))
            .toList(),
        s.questions().stream().map(this::question).toList());
  }

  private Question question(Question q) {
    return new Question(
        name(q.name()),
        q.texts(),
        q.type(),
        q.limits(),
        q.need(),
        q.hand(),
        q.wire(),
        q.codes().stream().map(this::code).toList(),
        new Question.Logic(
            rule(q.logic().askWhen()),
            rule(q.logic().workOut()),
            q.logic().checks().stream().map(this::check).toList()),
        q.prefill().stream().map(this::source).toList(),
        q.refresh(),
        q.layout());
  }

  private Code code(Code c) {
    return c.fitting(rule(c.fitsWhen()));
  }

  private Check check(Check c) {
    Map<String, Map<String, String>> others = new LinkedHashMap<>();
    c.texts().others().forEach((language, texts) -> others.put(language, messages(texts)));
    return new Check(
        rule(c.rule()),
        new Texts(messages(c.texts().own()), others),
        c.weight(),
        rule(c.writtenFor()));
  }

  private Map<String, String> messages(Map<String, String> texts) {
    Map<String, String> out = new LinkedHashMap<>();
    texts.forEach((what, text) -> out.put(what, message(text)));
    return out;
  }

  private String message(String text) {
    StringBuilder b = new StringBuilder();
    int i = 0;
    while (i < text.length()) {
      int close = text.charAt(i) == '{' ? text.indexOf('}', i) : -1;
      if (close < 0) b.append(text.charAt(i++));
      else {
        b.append('{').append(written(text.substring(i + 1, close))).append('}');
        i = close + 1;
      }
    }
    return b.toString();
  }

  private Source source(Source s) {
    if (s instanceof Source.WorkedOut w) return new Source.WorkedOut(rule(w.formula()));
    if (s instanceof Source.Place p)
      return new Source.Place(p.shared(), p.own().map(this::lookUp), p.take());
    return s;
  }
}
