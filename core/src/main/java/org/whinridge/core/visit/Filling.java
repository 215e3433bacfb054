package org.whinridge.core.visit;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.form.Allowed;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * One visit being filled: answers, what is asked, what is open, where each value came from. An
 * answer evaluates again only what depends on it. Not for several threads at once.
 *
 * <p>A question in a list section is named together with its row's id; outside of lists the row is
 * "".
 */
public final class Filling {
  /** How many steps can be taken back. */
  static final int UNDO_STEPS = 200;

  private final ExecutableForm form;
  private final VisitStart start;
  private final VisitState state;
  private final VisitSituation situation;
  private final Evaluation evaluation;
  private final SheetView sheet;
  private final Deque<Runnable> undo = new ArrayDeque<>();

  private Filling(ExecutableForm form, VisitStart start) {
    this.form = form;
    this.start = start;
    state = new VisitState(form, start);
    situation = new VisitSituation(form, start, state);
    Prefill prefill = new Prefill(start, situation, new LookUps(form, start, situation));
    evaluation = new Evaluation(form, start, state, situation, prefill);
    sheet = new SheetView(form, start, state, this::isFixed, this::toConfirm);
  }

  /**
   * Opens a visit: first values from the prefill chains, the rows of the last visit, then
   * everything that follows from them.
   */
  public static Filling open(ExecutableForm form, VisitStart start) {
    Filling f = new Filling(form, start);
    for (int l = 0; l < form.lists().size(); l++) f.lastRows(l);
    f.evaluation.open();
    return f;
  }

  /** Goes on with a visit from what {@link #saved} gave. Nothing is looked up again. */
  public static Filling resume(ExecutableForm form, VisitStart start, JsonObject saved) {
    Filling f = new Filling(form, start);
    SavedVisit.read(saved, form, f.state);
    f.evaluation.everything(false);
    return f;
  }

  private void lastRows(int l) {
    ExecutableForm.ListPart list = form.lists().get(l);
    if (!list.rows().fromLastVisit()) return;
    for (VisitStart.LastRow last : start.last().rows().getOrDefault(list.name(), List.of())) {
      Row row = new Row(last.id(), Row.State.TO_CONFIRM, new Answers(list.questions().length));
      String day = start.last().day().map(Object::toString).orElse("");
      last.answers()
          .forEach(
              (name, v) -> {
                int i = form.indexOf(name);
                if (i >= 0 && form.at(i).list() == l)
                  row.answers.put(form.local(i), v, Provenance.of(Provenance.Kind.LAST_VISIT, day));
              });
      state.rows.get(l).add(row);
    }
  }

  /**
   * Sets an answer by hand. A decimal is rounded to the question's decimals; text is trimmed.
   *
   * @return false when there is no such question or people can't change it; nothing is changed then
   */
  public boolean set(String name, Value value) {
    return set(name, "", value);
  }

  /** Sets an answer in a row by hand, see {@link #set(String, Value)}. */
  public boolean set(String name, String rowId, Value value) {
    int i = form.indexOf(name);
    Row row = row(i, rowId);
    if (!known(i, row) || isFixed(i, row)) return false;
    Answers a = answers(i, row);
    int k = form.local(i);
    // not this answer alone: what follows it may lose a confirmation or an offer over it
    rememberAll();
    a.put(k, form.at(i).question().kept(value), Provenance.TYPED);
    a.notes[k] = "";
    a.offers[k] = null;
    evaluation.changed(i, row);
    return true;
  }

  /**
   * Taps one of a question's codes ("true" and "false" of yes / no): confirms what is prefilled,
   * chooses another, or changes what a many choice holds; see {@link Tap}.
   *
   * @return false when nothing changed
   */
  public boolean tap(String name, String rowId, String code) {
    int i = form.indexOf(name);
    Row row = row(i, rowId);
    if (!known(i, row) || isFixed(i, row)) return false;
    Answers a = answers(i, row);
    int k = form.local(i);
    boolean waits = !a.values[k].isEmpty() && !a.provenance[k].confirmed();
    Tap tap = Tap.on(code, form.at(i).type(), a.values[k], waits);
    return switch (tap.deed()) {
      case CONFIRM -> confirm(name, rowId);
      case NOTHING -> false;
      case SET -> set(name, rowId, tap.value());
    };
  }

  /** Takes the newer value that a source which follows its inputs offers; false when none does. */
  public boolean takeOffer(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = row(i, rowId);
    if (!known(i, row) || answers(i, row).offers[form.local(i)] == null) return false;
    rememberAll();
    Answers a = answers(i, row);
    int k = form.local(i);
    Prefill.First offer = a.offers[k];
    a.put(k, offer.value(), offer.provenance());
    a.offers[k] = null;
    evaluation.changed(i, row);
    return true;
  }

  /** Confirms a prefilled answer as it is; false when there is nothing to confirm. */
  public boolean confirm(String name) {
    return confirm(name, "");
  }

  /** Confirms a prefilled answer of a row as it is; false when there is nothing to confirm. */
  public boolean confirm(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = row(i, rowId);
    if (!known(i, row) || answers(i, row).values[form.local(i)].isEmpty()) return false;
    rememberAll();
    return confirm(i, row);
  }

  private boolean confirm(int i, Row row) {
    Answers a = answers(i, row);
    int k = form.local(i);
    a.put(k, a.values[k], a.provenance[k].confirm());
    return true;
  }

  /**
   * Confirms all prefilled answers of a section that are asked, and that the rows of the last visit
   * are still there; gives their number.
   */
  public int confirmSection(int section) {
    if (section < 0 || section >= form.form().sections().size()) return 0;
    rememberAll();
    int n = 0;
    boolean isList = form.form().sections().get(section).isList();
    int list = isList ? form.listOf(form.form().sections().get(section).name()) : -1;
    List<Row> rows = list < 0 ? new ArrayList<>() : new ArrayList<>(state.rows.get(list));
    if (!isList) rows.add(null);
    for (Row row : rows) {
      if (row != null && row.state == Row.State.TO_CONFIRM) {
        row.state = Row.State.STILL;
        n++;
      }
      for (int i : form.sheet(section)) if (toConfirm(i, row) && confirm(i, row)) n++;
    }
    if (list >= 0) evaluation.rowsChanged(list);
    return n;
  }

  /**
   * Whether a prefilled answer waits for a person to confirm it: it is asked, its row is still
   * there, nobody has confirmed it, and people may answer it at all.
   */
  private boolean toConfirm(int i, Row row) {
    if (row != null && !row.state.isThere()) return false;
    Answers a = answers(i, row);
    int k = form.local(i);
    return a.asked[k] && !a.values[k].isEmpty() && !a.provenance[k].confirmed() && !isFixed(i, row);
  }

  /**
   * Confirms a soft point by its key, as seen and meant. It comes back when the answers behind it
   * change.
   */
  public boolean confirmSoft(String key) {
    boolean soft =
        points().stream().anyMatch(p -> p.key().equals(key) && p.kind() == OpenPoint.Kind.SOFT);
    if (!soft) return false;
    remember(() -> state.confirmedSoft.remove(key));
    return state.confirmedSoft.add(key);
  }

  /**
   * Adds a row to a list section.
   *
   * @param rowId the row's id, made by the caller and new in this visit
   * @return false when there is no such list, it is full, or the id is taken
   */
  public boolean addRow(String list, String rowId) {
    int l = form.listOf(list);
    if (l < 0 || rowId.isEmpty() || find(rowId) != null) return false;
    ExecutableForm.ListPart part = form.lists().get(l);
    long there = state.rows.get(l).stream().filter(r -> r.state.isThere()).count();
    if (!part.rows().takesMore(there)) return false;
    rememberAll();
    Row row = new Row(rowId, Row.State.NEW, new Answers(part.questions().length));
    state.rows.get(l).add(row);
    evaluation.rowAdded(l, row);
    return true;
  }

  /** Takes a row away that this visit added; false when there is none of that id. */
  public boolean removeRow(String rowId) {
    Row row = find(rowId);
    if (row == null || row.state != Row.State.NEW) return false;
    rememberAll();
    int l = listWith(row);
    state.rows.get(l).remove(row);
    evaluation.rowsChanged(l);
    return true;
  }

  /**
   * Says of a row of the last visit whether it is "still there", "mended" or "gone".
   *
   * @return false when there is no such row of the last visit, or no such state
   */
  public boolean markRow(String rowId, String newState) {
    Row row = find(rowId);
    Row.State to = Row.State.of(newState);
    if (row == null || row.state == Row.State.NEW || to == Row.State.NEW) return false;
    rememberAll();
    row.state = to;
    java.util.Arrays.fill(row.answers.look, true);
    evaluation.rowsChanged(listWith(row));
    return true;
  }

  /** The ids of the rows of a list section, in their order. */
  public List<String> rows(String list) {
    int l = form.listOf(list);
    return l < 0 ? List.of() : state.rows.get(l).stream().map(r -> r.id).toList();
  }

  private Row find(String rowId) {
    for (List<Row> list : state.rows) for (Row r : list) if (r.id.equals(rowId)) return r;
    return null;
  }

  private int listWith(Row row) {
    for (int l = 0; l < state.rows.size(); l++) if (state.rows.get(l).contains(row)) return l;
    throw new IllegalArgumentException("this row is in no list");
  }

  /** Moves the visit's position; look-ups by place that nobody overruled by hand follow. */
  public void moveTo(Coordinate position) {
    reshape(GeometryJson.WGS84.createPoint(position));
  }

  /**
   * Gives the visit another place: a point, line or area; look-ups follow as in {@link #moveTo}.
   */
  public void reshape(Geometry geometry) {
    rememberAll();
    state.geometry = Optional.of(geometry);
    state.moved = true;
    evaluation.placeMoved();
  }

  /**
   * Takes the last step back, whatever it was; up to 200 steps.
   *
   * @return false when there is nothing to take back
   */
  public boolean undo() {
    if (undo.isEmpty()) return false;
    undo.pop().run();
    return true;
  }

  /** How many steps can be taken back now. */
  int undoSteps() {
    return undo.size();
  }

  private void remember(Runnable back) {
    undo.push(back);
    if (undo.size() > UNDO_STEPS) undo.removeLast();
  }

  private void rememberAll() {
    VisitState.Kept kept = state.keep();
    remember(
        () -> {
          state.restore(kept);
          evaluation.everything(false);
        });
  }

  private boolean known(int i, Row row) {
    return i >= 0 && !form.at(i).isHidden() && (form.at(i).list() < 0 || row != null);
  }

  private Row row(int i, String rowId) {
    if (i < 0 || form.at(i).list() < 0) return null;
    for (Row r : state.rows.get(form.at(i).list())) if (r.id.equals(rowId)) return r;
    return null;
  }

  private Answers answers(int i, Row row) {
    return form.at(i).list() < 0 ? state.top : row.answers;
  }

  /** Whether people can't change the answer. */
  private boolean isFixed(int i, Row row) {
    Question q = form.at(i).question();
    boolean revisit =
        form.at(i).list() < 0
            ? start.feature().isPresent()
            : row != null && row.state != Row.State.NEW;
    return q.hand().readOnly()
        || q.isWorkedOut()
        || !q.type().hasAnswer()
        || q.refresh() == Refresh.ALWAYS
        || (q.hand().lockOnRevisit() && revisit);
  }

  /** The answer as other rules see it: empty when the question is not asked. */
  public Value value(String name) {
    return value(name, "");
  }

  /** The answer in a row, as other rules of the row see it. */
  public Value value(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = row(i, rowId);
    return i < 0 || (form.at(i).list() >= 0 && row == null)
        ? Value.EMPTY
        : answers(i, row).visible(form.local(i));
  }

  /** Whether the question is asked now. */
  public boolean isAsked(String name) {
    return isAsked(name, "");
  }

  /** Whether the question is asked now in a row. */
  public boolean isAsked(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = row(i, rowId);
    return known(i, row) && answers(i, row).asked[form.local(i)];
  }

  /** Where the answer came from. */
  public Provenance provenance(String name) {
    int i = form.indexOf(name);
    return i < 0 || form.at(i).list() >= 0 ? Provenance.NONE : state.top.provenance[form.local(i)];
  }

  /** The visit's place; empty while it has none. */
  public Optional<Geometry> place() {
    return state.geometry;
  }

  /** All that is open, in the order of the sheet; confirmed soft points are not. */
  public List<OpenPoint> points() {
    List<OpenPoint> out = new ArrayList<>();
    int list = 0;
    for (int s = 0; s < form.form().sections().size(); s++) {
      if (!form.form().sections().get(s).isList()) {
        for (int i : form.sheet(s)) open(state.top.points.get(form.local(i)), out);
        continue;
      }
      open(RowPoints.of(form, state, list), out);
      for (Row r : state.rows.get(list))
        for (int i : form.sheet(s)) open(r.answers.points.get(form.local(i)), out);
      list++;
    }
    outside().ifPresent(p -> open(List.of(p), out));
    return out;
  }

  private void open(List<OpenPoint> points, List<OpenPoint> into) {
    for (OpenPoint p : points) if (!state.confirmedSoft.contains(p.key())) into.add(p);
  }

  /** The point about a position that lies outside the allowed area. */
  private Optional<OpenPoint> outside() {
    Allowed allowed = form.form().allowed().orElse(null);
    if (allowed == null || state.geometry.isEmpty()) return Optional.empty();
    PlaceIndex index = start.lookups().get(allowed.layerId());
    Coordinate at = Geodesy.anchor(state.geometry.get());
    if (index == null || index.containing(at) instanceof LookupResult.Found)
      return Optional.empty();
    return Optional.of(
        new OpenPoint(
            "place",
            "",
            OpenPoint.Kind.of(allowed.weight()),
            "place:outside:" + ValueJson.write(new Value.Place(state.geometry.get())),
            "the place lies outside " + allowed.layerName()));
  }

  /** Whether nothing that holds the visit back is open. */
  public boolean isComplete() {
    return points().stream().noneMatch(p -> p.kind().holdsBack());
  }

  /** The sheet to draw as JSON text, see {@link SheetView}. */
  public String viewText() {
    return sheet.text(points(), !undo.isEmpty());
  }

  /** The sheet to draw, see {@link SheetView}. */
  public JsonObject view() {
    return Json.parse(viewText()).asObject();
  }

  /** Everything needed to go on later with {@link #resume}. */
  public JsonObject saved() {
    return SavedVisit.write(form, state);
  }

  /**
   * The values that the visit wants on the layer: only fields that differ from what was taken out.
   * An empty answer empties the field only when a person took the answer away, or when the question
   * is not asked and says so; a question that nobody touched leaves the layer as it is.
   */
  public Map<String, Value> set() {
    Map<String, Value> out = new LinkedHashMap<>();
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

  /**
   * What goes to the office: base, set, kept, provenance, confirmed soft points, open points, and
   * the geometry if it moved.
   */
  public JsonObject result() {
    return new VisitResult(form, start, state).json(set(), points());
  }
}
