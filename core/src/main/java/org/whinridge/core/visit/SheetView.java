package org.whinridge.core.visit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Limits;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * An open form as JSON for the one module that draws sheets: sections, blocks, rows, questions that
 * are asked, values, open points, progress. What a question looks like is kept as text until
 * something about it changes, so that an answer costs what it touches.
 */
final class SheetView {
  /** What is counted over a section. */
  private static final class Progress {
    int asked;
    int answered;
    int toConfirm;
  }

  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;
  private final VisitCells cells;
  private String[] heads; // made when the sheet is drawn for the first time

  SheetView(ExecutableForm form, VisitStart start, FillingState state, VisitCells cells) {
    this.form = form;
    this.start = start;
    this.state = state;
    this.cells = cells;
  }

  private void makeHeads() {
    heads = new String[form.form().sections().size()];
    int page = -1;
    for (int s = 0; s < heads.length; s++) {
      if (s == 0 || form.form().sections().get(s).startsPage()) page++;
      heads[s] = head(s, page);
    }
  }

  /** The head of a section up to its last unchanging member, without the closing brace. */
  private String head(int s, int page) {
    Section section = form.form().sections().get(s);
    JsonObject o =
        new JsonObject()
            .add("index", s)
            .add("title", section.title())
            .add("intro", section.texts().get("intro"))
            .add("page", page);
    if (!section.name().isEmpty()) o.add("name", section.name());
    JsonArray blocks = new JsonArray();
    for (Section.Block b : section.blocks())
      blocks.add(
          new JsonObject()
              .add("name", b.name())
              .add("title", b.texts().get("title"))
              .add("intro", b.texts().get("intro")));
    if (!blocks.isEmpty()) o.add("blocks", blocks);
    String text = o.toString();
    return text.substring(0, text.length() - 1);
  }

  /** Counts how often changes were asked for, so that nobody takes another's for its own. */
  private int turn;

  /** The whole sheet. */
  String text(List<OpenPoint> points, boolean canUndo) {
    return text(points, canUndo, Told.WHOLE);
  }

  /**
   * The sheet with what changed since an answer of this kind: a question that is as it was told
   * then stands there by its name alone.
   *
   * @param since the "turn" of that answer; when another was given since, this is the whole
   */
  String changes(int since, List<OpenPoint> points, boolean canUndo) {
    Told told = since == turn && turn > 0 ? Told.CHANGES : Told.WHOLE_AND_NOTED;
    turn++;
    return text(points, canUndo, told);
  }

  /** What names the visit: the answers that its form says, else what names the feature. */
  private String caption() {
    StringBuilder b = new StringBuilder();
    for (String name : form.form().settings().caption()) {
      int i = form.indexOf(name);
      Optional<Question> q = form.form().question(name);
      if (i < 0 || q.isEmpty() || form.at(i).list() >= 0 || !state.top.asked[form.local(i)])
        continue;
      Value v = state.top.values[form.local(i)];
      if (!v.isEmpty()) b.append(b.length() == 0 ? "" : " · ").append(q.get().labelOf(v));
    }
    return b.length() > 0
        ? b.toString()
        : form.schema().caption(start.feature().map(Feature::values).orElseGet(this::made));
  }

  /** The fields of a feature that this visit makes, as they are answered now. */
  private Map<String, Value> made() {
    Map<String, Value> now = new LinkedHashMap<>(start.made().orElse(Map.of()));
    if (start.made().isEmpty()) return now;
    for (int i = 0; i < form.size(); i++) {
      String field = form.at(i).question().writesTo();
      if (form.at(i).list() >= 0 || field.isEmpty()) continue;
      Value v = state.top.visible(form.local(i));
      if (!v.isEmpty()) now.put(field, v);
    }
    return now;
  }

  /** What is told of questions, and whether it is noted as told. */
  private enum Told {
    WHOLE,
    WHOLE_AND_NOTED,
    CHANGES
  }

  private String text(List<OpenPoint> points, boolean canUndo, Told told) {
    if (heads == null) makeHeads();
    StringBuilder b = new StringBuilder(4096).append("{\"title\":");
    b.append(quoted(form.form().title())).append(",\"caption\":").append(quoted(caption()));
    int pages = 1;
    for (int s = 1; s < heads.length; s++) if (form.form().sections().get(s).startsPage()) pages++;
    b.append(",\"pages\":").append(heads.length == 0 ? 0 : pages).append(",\"sections\":[");
    Progress all = new Progress();
    int list = 0;
    for (int s = 0; s < heads.length; s++) {
      Progress p = new Progress();
      b.append(s == 0 ? "" : ",").append(heads[s]);
      if (form.form().sections().get(s).isList()) rows(s, list++, p, b, told);
      else {
        b.append(",\"questions\":[");
        questions(s, state.top, null, p, b, told);
        b.append(']');
      }
      b.append(",\"toConfirm\":").append(p.toConfirm);
      b.append(",\"asked\":").append(p.asked).append(",\"answered\":").append(p.answered);
      b.append('}');
      all.asked += p.asked;
      all.answered += p.answered;
    }
    b.append("],\"points\":").append(points(points));
    b.append(",\"asked\":").append(all.asked).append(",\"answered\":").append(all.answered);
    b.append(",\"complete\":").append(points.stream().noneMatch(p -> p.kind().holdsBack()));
    b.append(",\"canUndo\":").append(canUndo);
    if (told != Told.WHOLE) b.append(",\"turn\":").append(turn);
    state.geometry.ifPresent(
        g -> {
          Coordinate at = Geodesy.anchor(g);
          b.append(",\"place\":{\"lon\":")
              .append(Numbers.json(at.x))
              .append(",\"lat\":")
              .append(Numbers.json(at.y))
              .append('}');
        });
    return b.append('}').toString();
  }

  private void rows(int s, int list, Progress p, StringBuilder b, Told told) {
    Section.Rows rows = form.lists().get(list).rows();
    long there = state.rows.get(list).stream().filter(r -> r.state.isThere()).count();
    b.append(",\"list\":{\"least\":").append(rows.least()).append(",\"most\":").append(rows.most());
    b.append(",\"asked\":").append(state.isAsked(form, list));
    b.append(",\"canAdd\":").append(rows.takesMore(there));
    b.append("},\"questions\":[],\"rows\":[");
    boolean first = true;
    for (Row r : state.rows.get(list)) {
      b.append(first ? "" : ",").append("{\"id\":").append(quoted(r.id));
      b.append(",\"state\":").append(quoted(r.state.id())).append(",\"questions\":[");
      first = false;
      if (r.state == RowState.TO_CONFIRM) p.toConfirm++;
      questions(s, r.answers, r, p, b, told);
      b.append("]}");
    }
    b.append(']');
  }

  private void questions(int s, Answers a, Row row, Progress p, StringBuilder b, Told told) {
    boolean first = true;
    for (int i : form.sheet(s)) {
      int k = form.local(i);
      if (!a.asked[k]) continue;
      if (a.drawn[k] == null) a.drawn[k] = question(i, a, row).toString();
      // the very text that was told, since it is made anew only when something about it changes
      boolean known = told == Told.CHANGES && a.drawn[k] == a.told[k];
      b.append(first ? "" : ",");
      if (known) b.append('"').append(form.at(i).question().name()).append('"');
      else b.append(a.drawn[k]);
      if (told != Told.WHOLE) a.told[k] = a.drawn[k];
      first = false;
      if (row != null && !row.state.isThere()) continue; // what is gone needs no answer any more
      if (!form.at(i).question().type().hasAnswer()) continue;
      p.asked++;
      if (a.values[k].isEmpty()) continue;
      p.answered++;
      if (cells.isToConfirm(i, row)) p.toConfirm++;
    }
  }

  private JsonArray points(List<OpenPoint> points) {
    JsonArray a = new JsonArray();
    for (OpenPoint p : points) a.add(p.json().add("label", label(p).json()));
    return a;
  }

  /** What people call the place of a point; in a list with the row's number. */
  private Said label(OpenPoint p) {
    if (p.question().equals(OpenPoint.PLACE)) return Said.of("sheet.place");
    int i = form.indexOf(p.question());
    int l = i >= 0 ? form.at(i).list() : form.listOf(p.question());
    String question = i >= 0 ? form.at(i).question().label() : "";
    if (l < 0) return Said.text(question);
    String list = form.form().sections().get(form.lists().get(l).section()).title();
    int n = 1;
    for (Row r : state.rows.get(l)) {
      if (r.id.equals(p.row()))
        return Said.of(
            i >= 0 ? "sheet.questionOfRow" : "sheet.rowOf",
            "title",
            list,
            "n",
            n,
            "question",
            question);
      n++;
    }
    return Said.text(list);
  }

  private JsonObject question(int i, Answers a, Row row) {
    Question q = form.at(i).question();
    int k = form.local(i);
    Value v = a.values[k];
    JsonObject o =
        new JsonObject()
            .add("name", q.name())
            .add("label", q.label())
            .add("type", q.type().id())
            .add("need", q.need().id())
            .add("value", ValueJson.write(v))
            .add("shown", q.shown(v).json());
    if (row != null) o.add("row", row.id);
    text(o, "hint", q.hint());
    text(o, "placeholder", q.texts().get("placeholder"));
    limits(o, q);
    if (!q.codes().isEmpty()) o.add("codes", codes(q, v, a.unfit.get(k)));
    if (cells.isFixed(i, row)) o.add("fixed", true);
    if (q.isWorkedOut()) o.add("workedOut", true);
    layout(o, q);
    Provenance p = a.provenance[k];
    if (!p.said().isEmpty())
      o.add("from", p.said().json()).add("origin", p.kind().id()).add("confirmed", p.confirmed());
    if (!a.notes[k].isEmpty()) o.add("note", a.notes[k].json());
    if (a.offers[k] != null)
      o.add(
          "offer",
          new JsonObject()
              .add("shown", q.shown(a.offers[k].value()).json())
              .add("from", a.offers[k].provenance().said().json()));
    Value was = start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY);
    if (!q.writesTo().isEmpty() && !was.isEmpty() && !q.same(form.schema()).test(was, v))
      o.add("was", q.shown(was).json());
    return o;
  }

  private static void limits(JsonObject o, Question q) {
    Limits l = q.limits();
    text(o, "unit", l.unit());
    if (l.decimals() >= 0) o.add("decimals", l.decimals());
    l.from().ifPresent(d -> o.add("from_value", Numbers.json(d)));
    l.to().ifPresent(d -> o.add("to_value", Numbers.json(d)));
    if (l.step() > 0) o.add("step", Numbers.json(l.step()));
    if (l.least() > 0) o.add("least", l.least());
    if (l.most() > 0) o.add("most", l.most());
    if (l.lines() > 0) o.add("lines", l.lines());
  }

  private static void layout(JsonObject o, Question q) {
    text(o, "as", q.layout().as());
    if (q.layout().half()) o.add("half", true);
    text(o, "picture", q.layout().picture());
    text(o, "block", q.layout().block());
    text(o, "layer", q.wire().layer());
  }

  private static void text(JsonObject o, String member, String text) {
    if (!text.isEmpty()) o.add(member, text);
  }

  /** The codes offered; one that is retired or does not fit is shown only where it stands. */
  private static JsonArray codes(Question q, Value v, List<Code> unfit) {
    JsonArray a = new JsonArray();
    for (Code c : q.codes()) {
      boolean offered = !c.retired() && !unfit.contains(c);
      if (!offered && !stands(c, v)) continue;
      JsonObject o = new JsonObject().add("code", c.code()).add("label", c.label());
      if (c.alone()) o.add("alone", true);
      text(o, "picture", c.picture());
      if (unfit.contains(c)) o.add("unfit", true);
      a.add(o);
    }
    return a;
  }

  private static boolean stands(Code c, Value v) {
    if (v.type() != ValueType.LIST) return c.code().equals(v.plain());
    for (Value one : ((Value.Many) v).values()) if (c.code().equals(one.plain())) return true;
    return false;
  }

  private static String quoted(String s) {
    return com.eclipsesource.json.Json.value(s).toString();
  }
}
