package org.whinridge.engine;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.edit.FormDelta;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.form.line.LineView;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/** The golden vectors of typed lines, and of edits of a form, whose text is shown. */
final class GoldenLines {
  private GoldenLines() {}

  /** A line, " \u23ce " for the end of one, to what is understood. */
  static String line(String text) {
    StringBuilder b = new StringBuilder();
    for (JsonValue v : LineView.of(text.replace(" \u23ce ", "\n"), List.of())) {
      JsonObject o = v.asObject();
      if (b.length() > 0) b.append(" \u23ce ");
      if (o.get("problem") != null) b.append("problem: ").append(Said.read(o.get("problem")));
      else {
        List<String> all = new ArrayList<>();
        for (JsonValue s : o.get("understood").asArray()) all.add(Said.read(s).toString());
        b.append(String.join(", ", all));
      }
    }
    return b.toString();
  }

  private static String shown(Form f) {
    return FormText.of(f).strip().replace("\n", " \u23ce ");
  }

  private static Form form(JsonObject o) {
    String text = o.getString("form", "").replace(" \u23ce ", "\n");
    return new Form("Form", FormText.read(text, List.of()).sections());
  }

  /** {form: its lines, edit} to the lines after it. */
  static String edit(JsonObject o) {
    try {
      return shown(FormEdit.apply(form(o), o.get("edit").asObject()));
    } catch (IllegalArgumentException e) {
      return "problem: " + Unfit.said(e);
    }
  }

  /**
   * {form: its lines, edits: […], ask: {op, …}} to what {@link WorkshopBorder} says of the form
   * after the edits; without "ask" to what is said of the form as a whole.
   */
  static String workshop(JsonObject o) {
    Form now = form(o);
    try {
      if (o.get("edits") != null)
        for (JsonValue e : o.get("edits").asArray()) now = FormEdit.apply(now, e.asObject());
    } catch (IllegalArgumentException e) {
      return "problem: " + Unfit.said(e);
    }
    JsonObject form = now.json();
    if (o.get("ask") != null)
      return WorkshopBorder.run(o.get("ask").asObject().set("form", form)).toString();
    form.remove("sections");
    return form.toString();
  }

  /** {form, edits: […], undo: n} to the lines after the edit of that number is taken back. */
  static String undo(JsonObject o) {
    Form now = form(o);
    List<FormDelta> done = new ArrayList<>();
    for (JsonValue e : o.get("edits").asArray()) {
      Form next = FormEdit.apply(now, e.asObject());
      done.add(FormDelta.between(now, next));
      now = next;
    }
    try {
      return shown(done.get(o.getInt("undo", 0)).undo(now));
    } catch (IllegalArgumentException e) {
      return "problem: " + Unfit.said(e);
    }
  }
}
