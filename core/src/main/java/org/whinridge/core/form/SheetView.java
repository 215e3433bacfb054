package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Code;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * An open form as JSON for the one module that draws sheets: sections, questions that are asked,
 * values, open points, progress.
 */
final class SheetView {
  private final ExecutableForm form;
  private final VisitStart start;
  private final Answers answers;
  private final Optional<Coordinate> place;
  private final List<OpenPoint> points;
  private final Predicate<Question> fixed;

  SheetView(
      ExecutableForm form,
      VisitStart start,
      Answers answers,
      Optional<Coordinate> place,
      List<OpenPoint> points,
      Predicate<Question> fixed) {
    this.form = form;
    this.start = start;
    this.answers = answers;
    this.place = place;
    this.points = points;
    this.fixed = fixed;
  }

  JsonObject json() {
    JsonArray sections = new JsonArray();
    int page = -1;
    int asked = 0;
    int answered = 0;
    for (int s = 0; s < form.form().sections().size(); s++) {
      Section section = form.form().sections().get(s);
      if (s == 0 || section.startsPage()) page++;
      JsonArray questions = new JsonArray();
      int open = 0;
      for (Question q : section.questions()) {
        int i = form.indexOf(q.name());
        if (!answers.asked[i]) continue;
        questions.add(question(q, i));
        if (q.type() == QuestionType.READ) continue;
        asked++;
        if (!answers.values[i].isEmpty()) answered++;
        if (!answers.values[i].isEmpty() && !answers.provenance[i].confirmed() && !fixed.test(q))
          open++;
      }
      sections.add(
          new JsonObject()
              .add("index", s)
              .add("title", section.title())
              .add("intro", section.intro())
              .add("page", page)
              .add("toConfirm", open)
              .add("questions", questions));
    }
    JsonArray ps = new JsonArray();
    for (OpenPoint p : points)
      ps.add(
          p.json()
              .add("label", form.form().question(p.question()).map(Question::label).orElse("")));
    JsonObject o =
        new JsonObject()
            .add("title", form.form().title())
            .add(
                "caption",
                start.feature().map(f -> form.schema().caption(f.values())).orElse("new feature"))
            .add("pages", page + 1)
            .add("sections", sections)
            .add("points", ps)
            .add("asked", asked)
            .add("answered", answered)
            .add("complete", points.stream().noneMatch(p -> p.kind().holdsBack()));
    place.ifPresent(
        p ->
            o.add(
                "place",
                new JsonObject()
                    .add("lon", ValueJson.number(p.x))
                    .add("lat", ValueJson.number(p.y))));
    return o;
  }

  private JsonObject question(Question q, int i) {
    Value v = answers.values[i];
    JsonObject o =
        new JsonObject()
            .add("name", q.name())
            .add("label", q.label())
            .add("type", q.type().id())
            .add("need", q.need().id())
            .add("value", ValueJson.write(v))
            .add("shown", q.shown(v));
    if (!q.hint().isEmpty()) o.add("hint", q.hint());
    if (!q.unit().isEmpty()) o.add("unit", q.unit());
    if (q.decimals() >= 0) o.add("decimals", q.decimals());
    if (!q.codes().isEmpty()) o.add("codes", codes(q, v));
    if (fixed.test(q)) o.add("fixed", true);
    if (q.isWorkedOut()) o.add("workedOut", true);
    if (q.most() > 0) o.add("most", q.most());
    Provenance p = answers.provenance[i];
    if (!p.said().isEmpty()) o.add("from", p.said()).add("confirmed", p.confirmed());
    if (!answers.notes[i].isEmpty()) o.add("note", answers.notes[i]);
    Value was = start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY);
    if (!q.writesTo().isEmpty() && !was.isEmpty() && !Merge.same(was, v, 8))
      o.add("was", q.shown(was));
    return o;
  }

  private static JsonArray codes(Question q, Value v) {
    JsonArray a = new JsonArray();
    for (Code c : q.codes())
      if (!c.retired() || c.code().equals(v.plain()))
        a.add(new JsonObject().add("code", c.code()).add("label", c.label()));
    return a;
  }
}
