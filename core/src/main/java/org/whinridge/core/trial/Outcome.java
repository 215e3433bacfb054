package org.whinridge.core.trial;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.OpenPoint;

/**
 * What comes of a visit as a person sees it: what is asked, with which answers, and what is open.
 *
 * @param answers of all questions, in the order of the sheet; in a list of each row
 * @param points in the order of the sheet
 */
public record Outcome(List<Answer> answers, List<Point> points) {
  /**
   * A question as it stands.
   *
   * @param row the row's id; "" outside of lists
   * @param label what the question is called
   * @param value the answer as JSON; null when it is empty, or not asked
   * @param shown the answer for people
   */
  public record Answer(
      String question, String row, String label, boolean asked, JsonValue value, Said shown) {
    boolean isOf(Answer other) {
      return question.equals(other.question) && row.equals(other.row);
    }
  }

  /**
   * Something that is open.
   *
   * @param question as in {@link OpenPoint}
   * @param kind the word of {@link OpenPoint.Kind}
   * @param code the word for the reason
   */
  public record Point(
      String question, String row, String label, String kind, String code, Said message) {
    /** Whether both are open for the same reason, whatever they say. */
    boolean isLike(Point other) {
      return question.equals(other.question)
          && row.equals(other.row)
          && kind.equals(other.kind)
          && code.equals(other.code);
    }

    boolean holdsBack() {
      for (OpenPoint.Kind k : OpenPoint.Kind.values())
        if (k.id().equals(kind)) return k.holdsBack();
      return false;
    }
  }

  public Outcome {
    answers = List.copyOf(answers);
    points = List.copyOf(points);
  }

  /** What comes of a visit now. */
  static Outcome of(ExecutableForm form, Filling f) {
    List<Answer> answers = new ArrayList<>();
    for (Section s : form.form().sections())
      for (String row : s.isList() ? f.rows(s.name()) : List.of(""))
        for (Question q : s.questions()) answers.add(answer(q, row, f));
    List<Point> points = new ArrayList<>();
    for (OpenPoint p : f.points())
      points.add(
          new Point(
              p.question(),
              p.row(),
              form.form().question(p.question()).map(Question::label).orElse(p.question()),
              p.kind().id(),
              p.reason().code().id(),
              p.message()));
    return new Outcome(answers, points);
  }

  private static Answer answer(Question q, String row, Filling f) {
    var v = f.value(q.name(), row);
    return new Answer(
        q.name(), row, q.label(), f.isAsked(q.name(), row), ValueJson.write(v), q.shown(v));
  }

  /** How many points hold the visit back. */
  public int holding() {
    return (int) points.stream().filter(Point::holdsBack).count();
  }

  Outcome renamed(UnaryOperator<String> name) {
    return new Outcome(
        answers.stream()
            .map(a -> new Answer(name.apply(a.question), a.row, a.label, a.asked, a.value, a.shown))
            .toList(),
        points.stream()
            .map(p -> new Point(name.apply(p.question), p.row, p.label, p.kind, p.code, p.message))
            .toList());
  }

  /** The JSON form. */
  JsonObject json() {
    JsonArray a = new JsonArray();
    for (Answer x : answers)
      a.add(
          new JsonObject()
              .add("question", x.question)
              .add("row", x.row)
              .add("label", x.label)
              .add("asked", x.asked)
              .add("value", x.value)
              .add("shown", x.shown.json()));
    JsonArray p = new JsonArray();
    for (Point x : points)
      p.add(
          new JsonObject()
              .add("question", x.question)
              .add("row", x.row)
              .add("label", x.label)
              .add("kind", x.kind)
              .add("code", x.code)
              .add("message", x.message.json()));
    return new JsonObject().add("answers", a).add("points", p);
  }

  static Outcome read(JsonObject o) {
    List<Answer> answers = new ArrayList<>();
    for (JsonValue v : o.get("answers").asArray()) {
      JsonObject a = v.asObject();
      answers.add(
          new Answer(
              a.getString("question", ""),
              a.getString("row", ""),
              a.getString("label", ""),
              a.getBoolean("asked", false),
              a.get("value") == null ? Json.NULL : a.get("value"),
              Said.read(a.get("shown"))));
    }
    List<Point> points = new ArrayList<>();
    for (JsonValue v : o.get("points").asArray()) {
      JsonObject p = v.asObject();
      points.add(
          new Point(
              p.getString("question", ""),
              p.getString("row", ""),
              p.getString("label", ""),
              p.getString("kind", ""),
              p.getString("code", ""),
              Said.read(p.get("message"))));
    }
    return new Outcome(answers, points);
  }
}
