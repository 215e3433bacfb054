package org.whinridge.core.visit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/** The rows of a list section as a visit keeps them, in words for whoever reviews it. */
public final class KeptRows {
  private KeptRows() {}

  /**
   * One line for each row: "Severity 4, Length 12 m (mended)".
   *
   * @param rows what the visit's result keeps under the section's name; anything else gives no line
   */
  public static List<String> said(Section section, JsonValue rows) {
    List<String> out = new ArrayList<>();
    if (rows == null || !rows.isArray()) return out;
    for (JsonValue v : rows.asArray()) if (v.isObject()) out.add(said(section, v.asObject()));
    return out;
  }

  private static String said(Section section, JsonObject row) {
    JsonValue kept = row.get("answers");
    StringBuilder b = new StringBuilder();
    for (Question q : section.questions()) {
      JsonValue answer = kept == null || !kept.isObject() ? null : kept.asObject().get(q.name());
      Value v = ValueJson.read(answer, q.type().valueType());
      if (v.isEmpty()) continue;
      String shown =
          q.type().isMedia() && v instanceof Value.Many m
              ? AnswerLimits.counted(m.values().size(), q.type())
              : q.shown(v);
      b.append(b.length() == 0 ? "" : ", ").append(q.label()).append(' ').append(shown);
    }
    JsonValue state = row.get("state");
    String known = state == null || !state.isString() ? "" : state.asString();
    if (b.length() == 0) b.append("nothing answered");
    return known.isEmpty() || known.equals(RowState.NEW.id())
        ? b.toString()
        : b + " (" + known + ")";
  }
}
