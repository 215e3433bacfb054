package org.whinridge.core.visit;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * One visit being filled: answers, what is asked, what is open, where each value came from. An
 * answer evaluates again only what depends on it. Not for several threads at once.
 *
 * <p>A question in a list section is named together with its row's id; outside of lists the row is
 * "".
 */
public final class Filling {
  private final ExecutableForm form;
  private final FillingState state;
  private final VisitCells cells;
  private final Evaluation evaluation;
  private final Prefill prefill;
  private final Confirming confirming;
  private final VisitRows rows;
  private final OpenPoints open;
  private final SheetView sheet;
  private final VisitResult result;
  private final StepsBack steps = new StepsBack();

  private Filling(ExecutableForm form, VisitStart start) {
    this.form = form;
    state = new FillingState(form, start);
    cells = new VisitCells(form, start, state);
    VisitSituation situation = new VisitSituation(form, start, state);
    prefill = new Prefill(start, situation, new LookUps(form, start, situation));
    evaluation = new Evaluation(form, start, state, situation, prefill);
    confirming = new Confirming(form, state, cells, evaluation);
    rows = new VisitRows(form, start, state, cells, evaluation, this::remember);
    open = new OpenPoints(form, start, state);
    sheet = new SheetView(form, start, state, cells);
    result = new VisitResult(form, start, state);
  }

  /**
   * Opens a visit: first values from the prefill chains, the rows of the last visit, then
   * everything that follows from them.
   */
  public static Filling open(ExecutableForm form, VisitStart start) {
    Filling f = new Filling(form, start);
    f.rows.takeLast();
    f.cells.takeMade();
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

  /**
   * Opens a visit and does in it what a person did in another one: answers by hand, rows, the
   * place, what was confirmed. All else comes as it does now.
   *
   * @param saved what {@link #saved} gave of the other one, also with another edition; what this
   *     form lacks, or people can't answer any more, is left out
   */
  public static Filling again(ExecutableForm form, VisitStart start, JsonObject saved) {
    Filling f = open(form, start);
    FillingState was = new FillingState(form, start);
    SavedVisit.read(saved, form, was);
    new DoneAgain(form, was, f).all();
    return f;
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
    Row row = cells.row(i, rowId);
    if (!cells.isKnown(i, row) || cells.isFixed(i, row)) return false;
    Answers a = cells.answers(i, row);
    int k = form.local(i);
    // not this answer alone: what follows it may lose a confirmation or an offer over it
    remember();
    a.put(k, form.at(i).question().kept(value), Provenance.TYPED);
    a.notes[k] = Said.NONE;
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
    Row row = cells.row(i, rowId);
    if (!cells.isKnown(i, row) || cells.isFixed(i, row)) return false;
    Value now = cells.answers(i, row).values[form.local(i)];
    boolean waits = cells.waits(i, row);
    Tap tap = Tap.on(code, form.at(i).type(), now, waits);
    return switch (tap.deed()) {
      case CONFIRM -> confirm(name, rowId);
      case NOTHING -> false;
      case SET -> set(name, rowId, tap.value());
    };
  }

  /** Takes the newer value that a source which follows its inputs offers; false when none does. */
  public boolean takeOffer(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = cells.row(i, rowId);
    if (!cells.isKnown(i, row) || cells.answers(i, row).offers[form.local(i)] == null) return false;
    remember();
    Answers a = cells.answers(i, row);
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
    Row row = cells.row(i, rowId);
    if (!cells.isKnown(i, row) || cells.answers(i, row).values[form.local(i)].isEmpty())
      return false;
    remember();
    confirming.answer(i, row);
    return true;
  }

  /**
   * Confirms all prefilled answers of a section that are asked, and that the rows of the last visit
   * are still there; gives their number.
   */
  public int confirmSection(int section) {
    if (section < 0 || section >= form.form().sections().size()) return 0;
    remember();
    return confirming.section(section);
  }

  /**
   * Confirms a soft point by its key, as seen and meant. It comes back when the answers behind it
   * change.
   */
  public boolean confirmSoft(String key) {
    boolean soft =
        points().stream().anyMatch(p -> p.key().equals(key) && p.kind() == OpenPoint.Kind.SOFT);
    if (!soft) return false;
    steps.remember(() -> state.confirmedSoft.remove(key));
    return state.confirmedSoft.add(key);
  }

  /**
   * Adds a row to a list section.
   *
   * @param rowId the row's id, made by the caller and new in this visit
   * @return false when there is no such list, it is full, or the id is taken
   */
  public boolean addRow(String list, String rowId) {
    return rows.add(list, rowId);
  }

  /** Takes a row away that this visit added; false when there is none of that id. */
  public boolean removeRow(String rowId) {
    return rows.remove(rowId);
  }

  /**
   * Says of a row of the last visit whether it is "still there", "mended" or "gone".
   *
   * @return false when there is no such row of the last visit, or no such state
   */
  public boolean markRow(String rowId, String newState) {
    return rows.mark(rowId, newState);
  }

  /** The ids of the rows of a list section, in their order. */
  public List<String> rows(String list) {
    return rows.ids(list);
  }

  /** Moves the visit's position; look-ups by place that nobody overruled by hand follow. */
  public void moveTo(Coordinate position) {
    reshape(GeometryJson.WGS84.createPoint(position));
  }

  /** Gives the visit another place: a point, line or area; look-ups follow it. */
  public void reshape(Geometry geometry) {
    remember();
    state.geometry = Optional.of(geometry);
    state.moved = true;
    evaluation.placeMoved();
  }

  /** Takes the last of up to 200 steps back, whatever it was; false when there is none. */
  public boolean undo() {
    return steps.takeBack();
  }

  /** How many steps can be taken back now. */
  int undoSteps() {
    return steps.size();
  }

  private void remember() {
    steps.remember(state, evaluation);
  }

  /**
   * What each source of a question's prefill chain would give now, in order: [{shown, empty, note?,
   * wins, found: [{layer, feature, distanceM}]}]; the first that gives a value wins. Of what a
   * look-up found at most 50 are named. Nothing for a question in a list, or one that is not there.
   */
  public JsonArray sources(String name) {
    int i = form.indexOf(name);
    return i < 0 || form.at(i).list() >= 0
        ? new JsonArray()
        : SourcesView.of(form.at(i).question(), prefill.each(form.at(i)), prefill);
  }

  /** The answer as other rules see it: empty when the question is not asked. */
  public Value value(String name) {
    return value(name, "");
  }

  /** The answer in a row, as other rules of the row see it. */
  public Value value(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = cells.row(i, rowId);
    return cells.visible(i, row);
  }

  /** Whether the question is asked now. */
  public boolean isAsked(String name) {
    return isAsked(name, "");
  }

  /** Whether the question is asked now in a row. */
  public boolean isAsked(String name, String rowId) {
    int i = form.indexOf(name);
    Row row = cells.row(i, rowId);
    return cells.isKnown(i, row) && cells.answers(i, row).asked[form.local(i)];
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
    return open.all();
  }

  /** Whether nothing that holds the visit back is open. */
  public boolean isComplete() {
    return points().stream().noneMatch(p -> p.kind().holdsBack());
  }

  /** The sheet to draw as JSON text, see {@link SheetView}. */
  public String viewText() {
    return sheet.text(points(), steps.size() > 0);
  }

  /**
   * The sheet with what changed, as JSON text: as {@link #viewText}, but a question that is as it
   * was stands there as its name, a string; "turn" names this answer.
   *
   * @param since the "turn" of the answer that is known; 0 for none. When another was given since,
   *     this is the whole
   */
  public String changesText(int since) {
    return sheet.changes(since, points(), steps.size() > 0);
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
  public Map<String, Value> forLayer() {
    return result.forLayer();
  }

  /**
   * What goes to the office: base, set, kept, provenance, confirmed soft points, open points, and
   * the geometry if it moved.
   */
  public JsonObject result() {
    return result.json(points());
  }
}
