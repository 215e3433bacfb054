package org.whinridge.core.visit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/** The rows of a list section as a visit keeps them, for whoever reviews it. */
public final class KeptRows {
  private KeptRows() {}

  /**
   * One line for each row: "Severity 4, Length 12 m (mended)".
   *
   * @param rows what the visit's result keeps under the section's name; anything else gives no line
   */
  public static List<Said> said(Section section, JsonValue rows) {
    List<Said> out = new ArrayList<>();
    if (rows == null || !rows.isArray()) return out;
    for (JsonValue v : rows.asArray()) if (v.isObject()) out.add(said(section, v.asObject()));
    return out;
  }

  private static Said said(Section section, JsonObject row) {
    JsonValue kept = row.get("answers");
    List<Said> all = new ArrayList<>();
    for (Question q : section.questions()) {
      JsonValue answer = kept == null || !kept.isObject() ? null : kept.asObject().get(q.name());
      Value v = ValueJson.read(answer, q.type().valueType());
      if (v.isEmpty()) continue;
      Said shown =
          q.type().isMedia() && v instanceof Value.Many m
              ? AnswerLimits.counted(m.values().size(), q.type())
              : q.shown(v);
      all.add(Said.of("row.answer", "label", q.label(), "answer", shown));
    }
    JsonValue state = row.get("state");
    String known = state == null || !state.isString() ? "" : state.asString();
    Said answers = all.isEmpty() ? Said.of("row.nothing") : Said.inARow(all, "list.then");
    return known.isEmpty() || known.equals(RowState.NEW.id())
        ? answers
        : Said.of("row.state", "row", answers, "state", Said.ofState(known));
  }
}
