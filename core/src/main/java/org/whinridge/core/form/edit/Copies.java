package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Unfit;

/**
 * Copies of questions, of this form or of another one. A name that is taken gets a number behind
 * it, and the rules of the copies then ask for the copies.
 */
final class Copies {
  private Copies() {}

  static Form insert(Form form, JsonObject edit) {
    List<Question> copies = new ArrayList<>();
    for (JsonValue v : edit.get("questions").asArray()) copies.add(Question.read(v.asObject()));
    if (copies.isEmpty()) throw new Unfit("form.noneChosen");
    Set<String> taken = SectionEdit.names(form);
    Map<String, String> names = new LinkedHashMap<>();
    for (Question q : copies) {
      FormNames.problem(q.name())
          .ifPresent(
              p -> {
                throw new Unfit(p);
              });
      if (names.containsKey(q.name())) throw new Unfit("form.questionTwice", "name", q.name());
      names.put(q.name(), q.name());
    }
    for (String name : names.keySet()) {
      String free = taken.contains(name) ? Field.nameFrom(name, taken(taken, names)) : name;
      names.put(name, free);
      taken.add(free);
    }
    return Arranging.insert(
        form, named(copies, names), edit.getInt("section", 0), edit.getString("after", ""));
  }

  private static Set<String> taken(Set<String> there, Map<String, String> names) {
    Set<String> out = new java.util.TreeSet<>(there);
    out.addAll(names.keySet());
    return out;
  }

  /** The copies under their names, in a form of their own, so that their rules follow. */
  private static List<Question> named(List<Question> copies, Map<String, String> names) {
    List<Question> apart = copies.stream().map(q -> Arranging.inBlock(q, "")).toList();
    Form own = new Form("", List.of(Section.of("", false, apart)));
    for (Map.Entry<String, String> n : names.entrySet())
      if (!n.getKey().equals(n.getValue())) own = FormRename.rename(own, n.getKey(), n.getValue());
    return own.questions();
  }
}
