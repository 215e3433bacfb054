package org.whinridge.formats.xlsform;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormCompiler;
import org.whinridge.core.form.FormProblem;
import org.whinridge.core.form.Question;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;

/**
 * What a workbook gave, without the rules that do not hold here: each is told by its cell with its
 * reason, so that what is not told compiles.
 */
final class Sound {
  private static final int MOST_ROUNDS = 2000;
  private static final Map<String, String> COLUMNS =
      Map.of(
          "ask when", "relevant",
          "section's ask when", "relevant",
          "block's ask when", "relevant",
          "work out", "calculation",
          "prefill", "default",
          "start", "default",
          "codes", "choice_filter",
          "fits", "choice_filter");

  private final Names names;
  private final List<Told> told;

  Sound(Names names, List<Told> told) {
    this.names = names;
    this.told = told;
  }

  /** The form with what does not compile left out and told. */
  Form form(Form whole) {
    Form form = whole;
    for (int round = 0; round < MOST_ROUNDS; round++) {
      List<FormProblem> problems =
          FormCompiler.compile(form, new Schema(GeometryKind.TABLE, List.of(), "", List.of()))
              .problems();
      FormProblem p = problems.stream().filter(x -> isRule(x.part())).findFirst().orElse(null);
      if (p == null) return form;
      Form next = without(form, p);
      if (next.json().equals(form.json())) return form;
      form = next;
    }
    return form;
  }

  private static boolean isRule(String part) {
    return column(part) != null;
  }

  private static String column(String part) {
    if (part.startsWith("check")) return "constraint";
    if (part.startsWith("code")) return "choice_filter";
    return COLUMNS.get(part);
  }

  private Form without(Form form, FormProblem p) {
    JsonObject o = form.json();
    String column = column(p.part());
    Map<String, String> removed = new LinkedHashMap<>();
    for (JsonValue s : o.get("sections").asArray()) {
      JsonObject section = s.asObject();
      boolean own =
          p.question().equals(section.getString("name", ""))
              || p.question().equals(section.getString("title", ""));
      if (column.equals("relevant") && own) remove(section, "askWhen", removed);
      if (column.equals("relevant") && section.get("blocks") != null)
        for (JsonValue b : section.get("blocks").asArray())
          if (b.asObject().getString("name", "").equals(p.question()))
            remove(b.asObject(), "askWhen", removed);
      for (JsonValue q : section.get("questions").asArray())
        if (q.asObject().getString("name", "").equals(p.question()))
          question(q.asObject(), p.part(), column, removed);
    }
    String rule = removed.isEmpty() ? "" : removed.values().iterator().next();
    int row = form.question(p.question()).map(Question::name).map(names::rowOf).orElse(0);
    told.add(new Told("survey", row, column, rule, p.message() + "; this rule was left out"));
    return Form.read(o.toString());
  }

  private static void question(
      JsonObject q, String part, String column, Map<String, String> removed) {
    switch (column) {
      case "relevant":
        remove(q, "askWhen", removed);
        break;
      case "calculation":
        remove(q, "workOut", removed);
        break;
      case "default":
        remove(q, "prefill", removed);
        break;
      case "constraint":
        {
          JsonArray checks = q.get("checks").asArray();
          String number = part.replaceAll("\\D", "");
          int at = number.isEmpty() ? 0 : Integer.parseInt(number) - 1;
          if (at < checks.size()) {
            removed.put("check", checks.get(at).asObject().getString("rule", ""));
            checks.remove(at);
          }
          break;
        }
      default:
        if (q.get("codes") != null)
          for (JsonValue c : q.get("codes").asArray()) remove(c.asObject(), "fitsWhen", removed);
    }
  }

  private static void remove(JsonObject o, String member, Map<String, String> removed) {
    if (o.get(member) == null) return;
    JsonValue v = o.get(member);
    removed.put(member, v.isString() ? v.asString() : v.toString());
    o.remove(member);
  }
}
