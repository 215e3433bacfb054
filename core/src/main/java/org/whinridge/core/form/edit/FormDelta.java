package org.whinridge.core.form.edit;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.Form;
import org.whinridge.core.said.Unfit;

/**
 * What lies between two states of a form: its questions by name, each before and after; how they
 * are arranged in sections; the rest. It can be taken back and applied again wherever what it
 * touches stands as it left it, whatever else has changed.
 */
public final class FormDelta {
  private final JsonObject json;

  private FormDelta(JsonObject json) {
    this.json = json;
  }

  /** What lies between two states. */
  public static FormDelta between(Form before, Form after) {
    Parts a = Parts.of(before);
    Parts b = Parts.of(after);
    JsonObject questions = new JsonObject();
    Set<String> names = new LinkedHashSet<>(a.questions.keySet());
    names.addAll(b.questions.keySet());
    for (String name : names) {
      JsonValue was = orNull(a.questions.get(name));
      JsonValue is = orNull(b.questions.get(name));
      if (!was.equals(is)) questions.add(name, pair(was, is));
    }
    JsonObject out = new JsonObject();
    if (!questions.isEmpty()) out.add("questions", questions);
    if (!a.sections.equals(b.sections)) out.add("sections", pair(a.sections, b.sections));
    if (!a.rest.equals(b.rest)) out.add("rest", pair(a.rest, b.rest));
    return new FormDelta(out);
  }

  private static JsonValue orNull(JsonObject there) {
    return there == null ? Json.NULL : there;
  }

  private static JsonArray pair(JsonValue before, JsonValue after) {
    return new JsonArray().add(before).add(after);
  }

  /** The names of the questions that it touches. */
  public Set<String> questions() {
    JsonValue touched = json.get("questions");
    return touched == null ? Set.of() : new LinkedHashSet<>(touched.asObject().names());
  }

  /**
   * Whether another one touches what this one does: a question, how questions are arranged, or the
   * rest.
   */
  public boolean meets(FormDelta other) {
    for (String part : new String[] {"sections", "rest"})
      if (json.get(part) != null && other.json.get(part) != null) return true;
    Set<String> both = new LinkedHashSet<>(questions());
    both.retainAll(other.questions());
    return !both.isEmpty();
  }

  /** Whether nothing changed. */
  public boolean isEmpty() {
    return json.isEmpty();
  }

  /**
   * The form before it. @throws IllegalArgumentException with a sentence for people when what it
   * touched has changed since
   */
  public Form undo(Form form) {
    return apply(form, 1, 0);
  }

  /** The form after it, from the form before it; refuses as {@link #undo} does. */
  public Form redo(Form form) {
    return apply(form, 0, 1);
  }

  private Form apply(Form form, int from, int to) {
    Parts now = Parts.of(form);
    JsonValue questions = json.get("questions");
    if (questions != null)
      for (JsonObject.Member m : questions.asObject()) {
        JsonArray pair = m.getValue().asArray();
        JsonValue there = orNull(now.questions.get(m.getName()));
        if (!there.equals(pair.get(from)))
          throw new Unfit("form.changedSince", "name", m.getName());
        if (pair.get(to).isNull()) now.questions.remove(m.getName());
        else now.questions.put(m.getName(), pair.get(to).asObject());
      }
    JsonValue sections = json.get("sections");
    if (sections != null) {
      if (!now.sections.equals(sections.asArray().get(from))) throw new Unfit("form.arrangedSince");
      now.sections = sections.asArray().get(to).asArray();
    }
    JsonValue rest = json.get("rest");
    if (rest != null) {
      if (!now.rest.equals(rest.asArray().get(from))) throw new Unfit("form.restSince");
      now.rest = rest.asArray().get(to).asObject();
    }
    return now.form();
  }

  /** It as text, to be kept. */
  public String text() {
    return json.toString();
  }

  /** It out of that text. */
  public static FormDelta read(String text) {
    return new FormDelta(Json.parse(text).asObject());
  }

  /** A form taken apart: questions by name, sections with the names alone, and the rest. */
  private static final class Parts {
    final Map<String, JsonObject> questions = new LinkedHashMap<>();
    JsonArray sections = new JsonArray();
    JsonObject rest;

    static Parts of(Form form) {
      Parts p = new Parts();
      JsonObject all = Json.parse(form.json().toString()).asObject();
      for (JsonValue s : all.get("sections").asArray()) {
        JsonArray names = new JsonArray();
        for (JsonValue q : s.asObject().get("questions").asArray()) {
          String name = q.asObject().getString("name", "");
          names.add(name);
          p.questions.put(name, q.asObject());
        }
        p.sections.add(s.asObject().set("questions", names));
      }
      all.remove("sections");
      p.rest = all;
      return p;
    }

    Form form() {
      JsonArray whole = new JsonArray();
      for (JsonValue s : sections) {
        JsonObject section = Json.parse(s.toString()).asObject();
        JsonArray in = new JsonArray();
        for (JsonValue name : section.get("questions").asArray())
          if (questions.containsKey(name.asString())) in.add(questions.get(name.asString()));
        whole.add(section.set("questions", in));
      }
      return Form.read(Json.parse(rest.toString()).asObject().add("sections", whole).toString());
    }
  }
}
