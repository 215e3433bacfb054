package org.whinridge.core.visit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/** A visit as it goes to the office: what it was based on, what it writes, what it keeps. */
final class VisitResult {
  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;

  VisitResult(ExecutableForm form, VisitStart start, FillingState state) {
    this.form = form;
    this.start = start;
    this.state = state;
  }

  /**
   * The values that the visit wants on the layer: only fields that differ from what was taken out.
   */
  Map<String, Value> forLayer() {
    // what was chosen of a new feature stands, but for what a question decides
    Map<String, Value> out = new LinkedHashMap<>(start.made().orElse(Map.of()));
    for (int i = 0; i < form.size(); i++)
      if (form.at(i).list() < 0) out.remove(form.at(i).question().writesTo());
    for (int i = 0; i < form.size(); i++) {
      Question q = form.at(i).question();
      if (q.writesTo().isEmpty() || form.at(i).list() >= 0) continue;
      int k = form.local(i);
      boolean untouched =
          state.top.visible(k).isEmpty() && state.top.provenance[k].kind() != Provenance.Kind.TYPED;
      boolean left =
          state.top.asked[k]
              ? untouched
              : q.wire().notAsked() == Question.NotAsked.LEFT
                  || (q.officeOnly() && start.turn() == VisitStart.Turn.OUTDOORS);
      Value was = start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY);
      Value now = state.top.visible(k);
      if (!left && !q.same(form.schema()).test(was, now)) out.put(q.writesTo(), now);
    }
    return out;
  }

  JsonObject json(List<OpenPoint> points) {
    Map<String, Value> set = forLayer();
    JsonObject base =
        start.feature().map(f -> form.schema().writeValues(f.values())).orElseGet(JsonObject::new);
    JsonObject kept = new JsonObject();
    JsonObject provenance = new JsonObject();
    int l = 0;
    for (int s = 0; s < form.form().sections().size(); s++) {
      if (form.form().sections().get(s).isList()) rows(s, l++, kept);
      else
        for (int i : form.sheet(s)) {
          Question q = form.at(i).question();
          int k = form.local(i);
          Value v = state.top.visible(k);
          if (v.isEmpty()) continue;
          if (q.writesTo().isEmpty()) kept.add(q.name(), ValueJson.write(v));
          provenance.add(q.name(), state.top.provenance[k].json());
        }
    }
    JsonArray open = new JsonArray();
    for (OpenPoint p : points) open.add(p.json());
    JsonArray confirmed = new JsonArray();
    for (String key : state.confirmedSoft) confirmed.add(key);
    JsonObject o =
        new JsonObject()
            .add(
                "base",
                new JsonObject()
                    .add("version", start.feature().map(f -> f.version()).orElse(0L))
                    .add("values", base))
            .add("set", form.schema().writeValues(set))
            .add("kept", kept)
            .add("provenance", provenance)
            .add("confirmed", confirmed)
            .add("open", open);
    JsonArray ranked = new JsonArray();
    for (int i = 0; i < form.size(); i++)
      if (form.at(i).question().type() == QuestionType.RANKED
          && set.containsKey(form.at(i).question().writesTo()))
        ranked.add(form.at(i).question().writesTo());
    if (!ranked.isEmpty()) o.add("ranked", ranked);
    if (state.moved || start.made().isPresent())
      state.geometry.filter(this::fits).ifPresent(g -> o.add("geometry", GeometryJson.write(g)));
    return o;
  }

  /** The rows of a list section are kept on the visit, each with its id, state and answers. */
  private void rows(int section, int l, JsonObject kept) {
    JsonArray rows = new JsonArray();
    for (Row r : state.rows.get(l)) {
      JsonObject answers = new JsonObject();
      for (int i : form.sheet(section)) {
        Value v = r.answers.visible(form.local(i));
        if (!v.isEmpty()) answers.add(form.at(i).name(), ValueJson.write(v));
      }
      rows.add(new JsonObject().add("id", r.id).add("state", r.state.id()).add("answers", answers));
    }
    if (!rows.isEmpty()) kept.add(form.lists().get(l).name(), rows);
  }

  private boolean fits(Geometry g) {
    return form.schema().kind().fits(g);
  }
}
