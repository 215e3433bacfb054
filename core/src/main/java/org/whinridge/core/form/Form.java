package org.whinridge.core.form;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;

/**
 * Questions over one layer: what a draft and an edition hold. Immutable; edits give a new form, see
 * {@link FormEdit}.
 */
public record Form(String title, List<Section> sections) {
  /** The most questions that a form file may have. */
  public static final int MOST_QUESTIONS = 2000;

  public Form {
    sections = List.copyOf(sections);
  }

  /**
   * A form with one question for each field of the layer that travels, and one for photos that is
   * kept on the visit.
   */
  public static Form fromLayer(String title, String layerName, Schema schema) {
    List<Question> qs = new ArrayList<>();
    for (Field f : schema.fields()) if (!f.officeOnly()) qs.add(Question.forField(f));
    Question photo =
        new Question(
            schema.field("photo").isPresent() ? "visit_photo" : "photo",
            "Photo",
            "",
            QuestionType.PHOTO,
            "",
            -1,
            Question.Need.WANTED,
            false,
            false,
            false,
            "",
            List.of(),
            "",
            Question.NotAsked.LEFT,
            "",
            List.of(),
            List.of(),
            0,
            5);
    return new Form(
        title,
        List.of(
            new Section(layerName, "", true, "", qs),
            new Section("Photos", "", true, "", List.of(photo))));
  }

  /** All questions in the order of the sheet. */
  public List<Question> questions() {
    List<Question> out = new ArrayList<>();
    for (Section s : sections) out.addAll(s.questions());
    return out;
  }

  /** The question of that name. */
  public Optional<Question> question(String name) {
    return questions().stream().filter(q -> q.name().equals(name)).findFirst();
  }

  /** The form without questions that belong to the office. */
  public Form outdoors() {
    return new Form(
        title,
        sections.stream()
            .map(s -> s.with(s.questions().stream().filter(q -> !q.officeOnly()).toList()))
            .toList());
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonArray ss = new JsonArray();
    for (Section s : sections) ss.add(s.json());
    return new JsonObject().add("title", title).add("sections", ss);
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when this is not a form
   */
  public static Form read(String json) {
    try {
      JsonObject o = Json.parse(json).asObject();
      List<Section> sections = new ArrayList<>();
      JsonValue list = o.get("sections");
      if (list != null) for (JsonValue v : list.asArray()) sections.add(Section.read(v.asObject()));
      Form f = new Form(o.getString("title", ""), sections);
      if (f.questions().size() > MOST_QUESTIONS)
        throw new IllegalArgumentException("a form has at most 2,000 questions");
      return f;
    } catch (ParseException | UnsupportedOperationException e) {
      throw new IllegalArgumentException("this is not a form: " + e.getMessage(), e);
    }
  }
}
