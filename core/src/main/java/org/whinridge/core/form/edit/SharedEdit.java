package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.said.Unfit;

/** Edits of what several questions share: named rules and place look-ups. */
final class SharedEdit {
  private SharedEdit() {}

  static Form apply(Form form, JsonObject edit) {
    String name = edit.getString("name", "");
    switch (edit.getString("op", "")) {
      case "rule.set":
        return rule(form, name, edit);
      case "rule.remove":
        if (form.rules().stream().noneMatch(r -> r.name().equals(name)))
          throw new Unfit("form.noSuchName", "name", name);
        return form.withRules(form.rules().stream().filter(r -> !r.name().equals(name)).toList());
      case "lookUp.set":
        return lookUp(form, name, LookUp.read(edit.get("lookUp").asObject()));
      case "lookUp.remove":
        return without(form, name);
      case "lookUp.rename":
        return renamed(form, name, edit.getString("value", ""));
      default:
        throw new Unfit("form.noSuchEdit", "op", edit.getString("op", ""));
    }
  }

  /** A rule with that name gets another label or condition; where there is none it is added. */
  private static Form rule(Form form, String name, JsonObject edit) {
    NamedRule made = new NamedRule(name, edit.getString("label", name), edit.getString("rule", ""));
    List<NamedRule> all = new ArrayList<>(form.rules());
    for (int i = 0; i < all.size(); i++)
      if (all.get(i).name().equals(name)) {
        all.set(i, made);
        return form.withRules(all);
      }
    FormNames.problem(name)
        .ifPresent(
            p -> {
              throw new Unfit(p);
            });
    boolean taken =
        form.question(name).isPresent()
            || form.sections().stream().anyMatch(s -> s.name().equals(name));
    if (taken) throw new Unfit("form.nameThere", "name", name);
    all.add(made);
    return form.withRules(all);
  }

  private static Form lookUp(Form form, String name, LookUp made) {
    if (name.isBlank() || name.length() > 63) throw new Unfit("form.lookUpName");
    Map<String, LookUp> all = new LinkedHashMap<>(form.lookUps());
    all.put(name, made);
    return form.withLookUps(all);
  }

  /** The sources that used a shared look-up have it as their own from then on. */
  private static Form without(Form form, String name) {
    LookUp gone = form.lookUps().get(name);
    if (gone == null) throw new Unfit("form.noSuchName", "name", name);
    Map<String, LookUp> left = new LinkedHashMap<>(form.lookUps());
    left.remove(name);
    return sources(
            form,
            p ->
                p.shared().equals(name)
                    ? new Source.Place("", java.util.Optional.of(gone), p.take())
                    : p)
        .withLookUps(left);
  }

  private static Form renamed(Form form, String from, String to) {
    if (!form.lookUps().containsKey(from)) throw new Unfit("form.noSuchName", "name", from);
    if (to.isBlank() || to.length() > 63) throw new Unfit("form.lookUpName");
    if (form.lookUps().containsKey(to)) throw new Unfit("form.nameThere", "name", to);
    Map<String, LookUp> all = new LinkedHashMap<>();
    form.lookUps().forEach((name, l) -> all.put(name.equals(from) ? to : name, l));
    return sources(form, p -> p.shared().equals(from) ? new Source.Place(to, p.own(), p.take()) : p)
        .withLookUps(all);
  }

  private interface Changed {
    Source.Place of(Source.Place p);
  }

  private static Form sources(Form form, Changed changed) {
    return form.with(
        form.sections().stream()
            .map(s -> s.with(s.questions().stream().map(q -> sources(q, changed)).toList()))
            .toList());
  }

  private static Question sources(Question q, Changed changed) {
    if (q.prefill().stream().noneMatch(Source.Place.class::isInstance)) return q;
    List<Source> chain =
        q.prefill().stream()
            .map(s -> s instanceof Source.Place p ? (Source) changed.of(p) : s)
            .toList();
    return Question.read(q.json().set("prefill", Source.write(chain)));
  }
}
