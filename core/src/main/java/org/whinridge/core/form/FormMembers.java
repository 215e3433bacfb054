package org.whinridge.core.form;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/**
 * What a form file holds that this version does not know: it was made by a newer one. Read and
 * written again, it would be lost without a word.
 */
public final class FormMembers {
  private static final Set<String> OF_A_FORM =
      Set.of("title", "in", "rules", "lookUps", "allowed", "settings", "guidance", "sections");
  private static final Set<String> OF_A_SECTION =
      Set.of(
          "name", "title", "in", "intro", "startsPage", "askWhen", "rows", "blocks", "questions");

  private FormMembers() {}

  /** The names of members that are not known here, sorted; none for a text that is no form. */
  public static Set<String> unknown(String json) {
    Set<String> out = new TreeSet<>();
    try {
      JsonObject form = Json.parse(json).asObject();
      add(form, OF_A_FORM, out);
      if (form.get("settings") != null)
        add(form.get("settings").asObject(), Set.copyOf(FormSettings.SETTINGS), out);
      Set<String> ofAQuestion = new TreeSet<>();
      for (QuestionProperty p : QuestionProperty.values()) ofAQuestion.add(p.id());
      for (JsonValue s : list(form, "sections")) {
        add(s.asObject(), OF_A_SECTION, out);
        for (JsonValue q : list(s.asObject(), "questions")) add(q.asObject(), ofAQuestion, out);
      }
    } catch (ParseException | UnsupportedOperationException e) {
      out.clear(); // whoever reads the form tells what is wrong with it
    }
    return out;
  }

  private static Iterable<JsonValue> list(JsonObject o, String member) {
    return o.get(member) == null ? List.of() : o.get(member).asArray();
  }

  private static void add(JsonObject o, Set<String> known, Set<String> out) {
    for (String name : o.names()) if (!known.contains(name)) out.add(name);
  }

  /**
   * A stored form.
   *
   * @param form as far as it can be read: at least its title
   * @param trouble why it must not be edited here; empty when it may be
   */
  public record Stored(Form form, Optional<Said> trouble) {}

  /** Reads a stored form. */
  public static Stored read(String json) {
    try {
      Form form = Form.read(json);
      Set<String> unknown = unknown(json);
      return new Stored(
          form,
          unknown.isEmpty()
              ? Optional.empty()
              : Optional.of(Said.of("form.newer", "members", String.join(", ", unknown))));
    } catch (IllegalArgumentException e) {
      return new Stored(
          new Form(title(json), List.of()),
          Optional.of(Said.of("form.unread", "why", Unfit.said(e))));
    }
  }

  private static String title(String json) {
    try {
      return Json.parse(json).asObject().getString("title", "?");
    } catch (ParseException | UnsupportedOperationException e) {
      return "?";
    }
  }
}
