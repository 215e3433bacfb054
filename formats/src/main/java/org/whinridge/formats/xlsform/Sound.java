package org.whinridge.formats.xlsform;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormPart;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;

/**
 * What a workbook gave, without the rules that do not hold here: each is told by its cell with its
 * reason, so that what is not told compiles.
 */
final class Sound {
  /** Each round leaves out all that does not hold; what comes to light then is left out next. */
  private static final int MOST_ROUNDS = 50;

  private final Names names;
  private final Groups groups;
  private final List<Told> told;

  Sound(Names names, Groups groups, List<Told> told) {
    this.names = names;
    this.groups = groups;
    this.told = told;
  }

  /** The form with what does not compile left out and told. */
  Form form(Form whole) {
    Form form = whole;
    for (int round = 0; round < MOST_ROUNDS; round++) {
      List<FormProblem> problems = problems(form);
      if (problems.isEmpty()) return form;
      JsonObject o = form.json();
      // from behind, so that the numbers of checks stay what they are
      for (int i = problems.size() - 1; i >= 0; i--)
        if (column(problems.get(i).part()) != null) leaveOut(o, problems.get(i));
      Form next = Form.read(o.toString());
      if (next.json().equals(form.json())) break;
      form = next;
    }
    for (FormProblem p : problems(form))
      told.add(
          new Told(
              "survey",
              row(p.question()),
              "",
              p.question(),
              Said.of("sheetTold.partTold", "part", p.part().said(), "message", p.message())));
    return form;
  }

  /** What does not compile, one problem for each rule. */
  private static List<FormProblem> problems(Form form) {
    Map<String, FormProblem> out = new LinkedHashMap<>();
    for (FormProblem p :
        FormCompiler.compile(form, new Schema(GeometryKind.TABLE, List.of(), "", List.of()))
            .problems()) out.putIfAbsent(p.question() + "\n" + p.part(), p);
    return List.copyOf(out.values());
  }

  /** The column whose rule a problem lies in; null where no single rule can be left out. */
  private static String column(FormPart part) {
    return switch (part.kind()) {
      case ASK_WHEN, SECTION_ASK_WHEN, BLOCK_ASK_WHEN -> "relevant";
      case WORK_OUT, RULES -> "calculation"; // a circle is cut where it was found
      case PREFILL, START_VALUE -> "default";
      case CHECK -> "constraint";
      case CODE -> "choice_filter";
      default -> null;
    };
  }

  private int row(String name) {
    int question = names.rowOf(name);
    return question > 0 ? question : groups.rowOf(name);
  }

  private void leaveOut(JsonObject o, FormProblem p) {
    String column = column(p.part());
    Map<String, String> removed = new LinkedHashMap<>();
    for (JsonValue s : o.get("sections").asArray()) {
      JsonObject section = s.asObject();
      String name = section.getString("name", "");
      if (p.part().kind() == FormPart.Kind.SECTION_ASK_WHEN) {
        if (p.question().equals(name.isEmpty() ? section.getString("title", "") : name))
          remove(section, "askWhen", removed);
      } else if (p.part().kind() == FormPart.Kind.BLOCK_ASK_WHEN) {
        if (section.get("blocks") != null)
          for (JsonValue b : section.get("blocks").asArray())
            if (p.question().equals(b.asObject().getString("name", "")))
              remove(b.asObject(), "askWhen", removed);
      } else
        for (JsonValue q : section.get("questions").asArray())
          if (q.asObject().getString("name", "").equals(p.question()))
            question(q.asObject(), p.part(), removed);
    }
    if (removed.isEmpty()) return;
    told.add(
        new Told(
            "survey",
            row(p.question()),
            column,
            removed.values().iterator().next(),
            Said.of("sheetTold.ruleLeftOut", "why", p.message())));
  }

  private static void question(JsonObject q, FormPart part, Map<String, String> removed) {
    switch (part.kind()) {
      case ASK_WHEN -> remove(q, "askWhen", removed);
      case WORK_OUT -> remove(q, "workOut", removed);
      case RULES -> {
        // a circle without a formula runs through when it is asked
        if (!remove(q, "workOut", removed)) remove(q, "askWhen", removed);
      }
      case PREFILL, START_VALUE -> remove(q, "prefill", removed);
      case CHECK -> {
        JsonArray checks = q.get("checks").asArray();
        int at = Integer.parseInt(part.which()) - 1;
        removed.put("check", checks.get(at).asObject().getString("rule", ""));
        checks.remove(at);
      }
      case CODE -> {
        for (JsonValue c : q.get("codes").asArray())
          if (c.asObject().getString("code", "").equals(part.which()))
            remove(c.asObject(), "fitsWhen", removed);
      }
      default -> throw new IllegalArgumentException("no rule of a question: " + part);
    }
  }

  private static boolean remove(JsonObject o, String member, Map<String, String> removed) {
    JsonValue v = o.get(member);
    if (v == null) return false;
    removed.put(member, v.isString() ? v.asString() : v.toString());
    o.remove(member);
    return true;
  }
}
