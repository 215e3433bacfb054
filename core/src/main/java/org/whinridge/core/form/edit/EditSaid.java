package org.whinridge.core.form.edit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.said.Said;

/** What an edit does, in words for the history of a draft. */
public final class EditSaid {
  private EditSaid() {}

  /** The words for an edit that was made. @param form as it was before */
  public static Said of(Form form, JsonObject edit) {
    String op = edit.getString("op", "");
    switch (op) {
      case "set":
        return Said.of("formStep.set", "what", questions(form, edit));
      case "remove":
        return Said.of("formStep.remove", "what", questions(form, edit));
      case "move":
      case "put":
        return Said.of("formStep.move", "what", questions(form, edit));
      case "rename":
        return Said.of(
            "formStep.rename",
            "from",
            edit.getString("question", ""),
            "to",
            edit.getString("value", ""));
      case "add":
      case "insert":
      case "type":
        return Said.of("formStep.add");
      case "title":
        return Said.of("formStep.title");
      case "settings":
        return Said.of("formStep.settings");
      case "guidance":
        return Said.of("formStep.guidance");
      case "translate":
        return Said.of("formStep.translate", "language", edit.getString("language", ""));
      case "text":
      case "replace":
        return Said.of("formStep.text");
      default:
        if (op.startsWith("section."))
          return Said.of("formStep.section", "what", section(form, edit));
        if (op.startsWith("rule."))
          return Said.of("formStep.rule", "what", edit.getString("name", ""));
        if (op.startsWith("lookUp."))
          return Said.of("formStep.lookUp", "what", edit.getString("name", ""));
        return Said.of(op.startsWith("block.") ? "formStep.block" : "formStep.several");
    }
  }

  private static Said questions(Form form, JsonObject edit) {
    List<String> names = new ArrayList<>();
    if (edit.get("questions") == null) names.add(edit.getString("question", ""));
    else
      for (JsonValue v : edit.get("questions").asArray()) if (v.isString()) names.add(v.asString());
    String first = names.isEmpty() ? "" : names.get(0);
    String label = form.question(first).map(Question::label).orElse(first);
    return names.size() < 2
        ? Said.text(label)
        : Said.of("list.andMore", "a", label, "n", names.size() - 1);
  }

  private static String section(Form form, JsonObject edit) {
    int n = edit.getInt("section", -1);
    if (n < 0 || n >= form.sections().size()) return edit.getString("title", "");
    Section s = form.sections().get(n);
    return s.title();
  }
}
