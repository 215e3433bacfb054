package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;

/**
 * A titled run of questions; with {@code startsPage} it begins a new screen. {@code askWhen} covers
 * all its questions.
 */
public record Section(
    String title, String intro, boolean startsPage, String askWhen, List<Question> questions) {
  public Section {
    questions = List.copyOf(questions);
  }

  /** The section with other questions. */
  public Section with(List<Question> others) {
    return new Section(title, intro, startsPage, askWhen, others);
  }

  JsonObject json() {
    JsonArray qs = new JsonArray();
    for (Question q : questions) qs.add(q.json());
    JsonObject o = new JsonObject().add("title", title);
    if (!intro.isEmpty()) o.add("intro", intro);
    if (startsPage) o.add("startsPage", true);
    if (!askWhen.isEmpty()) o.add("askWhen", askWhen);
    return o.add("questions", qs);
  }

  static Section read(JsonObject o) {
    List<Question> qs = new ArrayList<>();
    JsonValue list = o.get("questions");
    if (list != null) for (JsonValue v : list.asArray()) qs.add(Question.read(v.asObject()));
    return new Section(
        o.getString("title", ""),
        o.getString("intro", ""),
        o.getBoolean("startsPage", false),
        o.getString("askWhen", ""),
        qs);
  }
}
