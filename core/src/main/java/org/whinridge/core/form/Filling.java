package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * One visit being filled: answers, what is asked, what is open, where each value came from. An
 * answer evaluates again only what depends on it. Not for several threads at once.
 */
public final class Filling {
  private final ExecutableForm form;
  private final VisitStart start;
  private final Answers answers;
  private final Situation situation = new VisitSituation();
  private Optional<Coordinate> place;
  private boolean moved;

  private Filling(ExecutableForm form, VisitStart start) {
    this.form = form;
    this.start = start;
    this.answers = new Answers(form.size());
    this.place =
        start.feature().flatMap(f -> f.geometry()).map(Geodesy::anchor).or(start::position);
  }

  /**
   * Opens a visit: first values from the prefill chains, then everything that follows from them.
   */
  public static Filling open(ExecutableForm form, VisitStart start) {
    Filling f = new Filling(form, start);
    for (int i = 0; i < form.size(); i++) f.prefill(i);
    f.all();
    return f;
  }

  /** Goes on with a visit from what {@link #saved} gave. Nothing is looked up again. */
  public static Filling resume(ExecutableForm form, VisitStart start, JsonObject saved) {
    Filling f = new Filling(form, start);
    JsonValue place = saved.get("place");
    if (place != null && place.isObject()) {
      f.place =
          Optional.of(
              new Coordinate(
                  place.asObject().getDouble("lon", 0), place.asObject().getDouble("lat", 0)));
      f.moved = place.asObject().getBoolean("moved", false);
    }
    JsonValue stored = saved.get("answers");
    if (stored != null && stored.isObject())
      for (JsonObject.Member m : stored.asObject()) {
        int i = form.indexOf(m.getName());
        if (i < 0 || !m.getValue().isObject()) continue;
        JsonObject a = m.getValue().asObject();
        f.answers.put(i, ValueJson.read(a.get("value"), f.type(i)), Provenance.read(a));
      }
    f.all();
    JsonValue confirmed = saved.get("confirmed");
    if (confirmed != null && confirmed.isArray())
      for (JsonValue v : confirmed.asArray()) f.answers.confirmedSoft.add(v.asString());
    return f;
  }

  private ValueType type(int i) {
    return form.at(i).question().valueType(form.schema());
  }

  private void prefill(int i) {
    Prefill.First first = Prefill.of(form.at(i).question(), type(i), start, place);
    answers.put(i, first.value(), first.provenance());
    answers.notes[i] = first.note();
  }

  /**
   * Sets an answer by hand. A decimal is rounded to the question's decimals; text is trimmed.
   *
   * @return false when there is no such question or people can't change it; nothing is changed then
   */
  public boolean set(String name, Value value) {
    int i = form.indexOf(name);
    if (i < 0 || fixed(form.at(i).question())) return false;
    Question q = form.at(i).question();
    Value v = value;
    if (v instanceof Value.Num n && q.decimals() >= 0)
      v = Value.of(Numbers.round(n.value(), q.decimals()));
    if (v instanceof Value.Text t) v = Value.text(t.value().trim());
    answers.put(i, v, Provenance.TYPED);
    answers.notes[i] = "";
    changed(i);
    return true;
  }

  /** Whether people can't change the answer. */
  private boolean fixed(Question q) {
    return q.readOnly()
        || q.isWorkedOut()
        || q.type() == QuestionType.READ
        || (q.lockOnRevisit() && start.feature().isPresent());
  }

  /** Confirms a prefilled answer as it is; false when there is nothing to confirm. */
  public boolean confirm(String name) {
    int i = form.indexOf(name);
    if (i < 0 || answers.values[i].isEmpty()) return false;
    answers.provenance[i] = answers.provenance[i].confirm();
    return true;
  }

  /** Confirms all prefilled answers of a section that are asked; gives their number. */
  public int confirmSection(int section) {
    int n = 0;
    for (int i = 0; i < form.size(); i++) {
      boolean open = !answers.provenance[i].confirmed() && answers.asked[i];
      if (form.at(i).section() == section && open && confirm(form.at(i).question().name())) n++;
    }
    return n;
  }

  /**
   * Confirms a soft point by its key, as seen and meant. It comes back when the answers behind it
   * change.
   */
  public boolean confirmSoft(String key) {
    boolean known =
        points().stream().anyMatch(p -> p.key().equals(key) && p.kind() == OpenPoint.Kind.SOFT);
    return known && answers.confirmedSoft.add(key);
  }

  /** Moves the visit's position; place look-ups that nobody overruled by hand follow. */
  public void moveTo(Coordinate position) {
    place = Optional.of(position);
    moved = true;
    for (int i = 0; i < form.size(); i++) {
      Provenance.Kind from = answers.provenance[i].kind();
      boolean follows = from == Provenance.Kind.PLACE || from == Provenance.Kind.NONE;
      if (Prefill.looksUp(form.at(i).question()) && follows) prefill(i);
    }
    all();
  }

  private void all() {
    boolean[] dirty = new boolean[form.size()];
    java.util.Arrays.fill(dirty, true);
    update(dirty);
  }

  private void changed(int i) {
    boolean[] dirty = new boolean[form.size()];
    dirty[i] = true;
    for (int d : form.valueDependents(i)) dirty[d] = true;
    update(dirty);
  }

  /**
   * Values in dependency order first, then the checks of everything that changed or reads what
   * changed.
   */
  private void update(boolean[] dirty) {
    boolean[] look = dirty.clone();
    for (int i = 0; i < form.size(); i++) {
      if (!dirty[i]) continue;
      ExecutableForm.Compiled c = form.at(i);
      Value before = answers.visible(i);
      answers.asked[i] =
          c.sectionWhen().map(r -> r.holds(situation)).orElse(true)
              && c.when().map(r -> r.holds(situation)).orElse(true);
      if (c.workOut().isPresent())
        answers.put(
            i,
            workedOut(c),
            answers.asked[i] ? Provenance.of(Provenance.Kind.WORKED_OUT, "") : Provenance.NONE);
      look[i] = true;
      if (!before.equals(answers.visible(i))) for (int d : form.valueDependents(i)) dirty[d] = true;
      for (int d : form.checkDependents(i)) look[d] = true;
    }
    for (int i = 0; i < form.size(); i++)
      if (look[i])
        answers.points.set(
            i,
            new PointFinder(form, situation)
                .points(form.at(i), answers.asked[i], answers.values[i]));
  }

  private Value workedOut(ExecutableForm.Compiled c) {
    Value v = c.workOut().get().evaluate(situation);
    Question q = c.question();
    if (v instanceof Value.Num n && q.type() == QuestionType.WHOLE)
      return Value.of(Numbers.round(n.value(), 0));
    return v instanceof Value.Num n && q.decimals() >= 0
        ? Value.of(Numbers.round(n.value(), q.decimals()))
        : v;
  }

  /** The answer as other rules see it: empty when the question is not asked. */
  public Value value(String name) {
    int i = form.indexOf(name);
    return i < 0 ? Value.EMPTY : answers.visible(i);
  }

  /** Whether the question is asked now. */
  public boolean isAsked(String name) {
    int i = form.indexOf(name);
    return i >= 0 && answers.asked[i];
  }

  /** Where the answer came from. */
  public Provenance provenance(String name) {
    int i = form.indexOf(name);
    return i < 0 ? Provenance.NONE : answers.provenance[i];
  }

  /** All that is open, in the order of the sheet; confirmed soft points are not. */
  public List<OpenPoint> points() {
    List<OpenPoint> out = new ArrayList<>();
    for (int i : form.sheetOrder())
      for (OpenPoint p : answers.points.get(i))
        if (!answers.confirmedSoft.contains(p.key())) out.add(p);
    return out;
  }

  /** Whether nothing that holds the visit back is open. */
  public boolean isComplete() {
    return points().stream().noneMatch(p -> p.kind().holdsBack());
  }

  /** The sheet to draw, see {@link SheetView}. */
  public JsonObject view() {
    return new SheetView(form, start, answers, place, points(), this::fixed).json();
  }

  /** Everything needed to go on later with {@link #resume}. */
  public JsonObject saved() {
    JsonObject stored = new JsonObject();
    for (int i : form.sheetOrder())
      if (!answers.values[i].isEmpty() || answers.provenance[i].kind() == Provenance.Kind.TYPED)
        stored.add(
            form.at(i).question().name(),
            answers.provenance[i].json().add("value", ValueJson.write(answers.values[i])));
    JsonArray confirmed = new JsonArray();
    for (String k : answers.confirmedSoft) confirmed.add(k);
    JsonObject o = new JsonObject().add("answers", stored).add("confirmed", confirmed);
    place.ifPresent(
        p ->
            o.add(
                "place",
                new JsonObject()
                    .add("lon", ValueJson.number(p.x))
                    .add("lat", ValueJson.number(p.y))
                    .add("moved", moved)));
    return o;
  }

  /**
   * The values that the visit wants on the layer: only fields that differ from what was taken out.
   * An empty answer empties the field only when a person took the answer away, or when the question
   * is not asked and says so; a question that nobody touched leaves the layer as it is.
   */
  public Map<String, Value> set() {
    Map<String, Value> out = new LinkedHashMap<>();
    for (int i : form.sheetOrder()) {
      Question q = form.at(i).question();
      if (q.writesTo().isEmpty()) continue;
      Value base = start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY);
      if (!answers.asked[i] && q.notAsked() == Question.NotAsked.LEFT) continue;
      Value mine = answers.visible(i);
      if (answers.asked[i]
          && mine.isEmpty()
          && answers.provenance[i].kind() != Provenance.Kind.TYPED) continue;
      if (!Merge.same(base, mine, 8)) out.put(q.writesTo(), mine);
    }
    return out;
  }

  /**
   * What goes to the office: base, set, kept, provenance, confirmed soft points, open points, and
   * the geometry if it moved.
   */
  public JsonObject result() {
    JsonObject base =
        start.feature().map(f -> form.schema().writeValues(f.values())).orElseGet(JsonObject::new);
    JsonObject kept = new JsonObject();
    JsonObject provenance = new JsonObject();
    for (int i : form.sheetOrder()) {
      Question q = form.at(i).question();
      if (q.writesTo().isEmpty() && !answers.visible(i).isEmpty())
        kept.add(q.name(), ValueJson.write(answers.visible(i)));
      if (!answers.visible(i).isEmpty()) provenance.add(q.name(), answers.provenance[i].json());
    }
    JsonArray open = new JsonArray();
    for (OpenPoint p : points()) open.add(p.json());
    JsonArray confirmed = new JsonArray();
    for (String k : answers.confirmedSoft) confirmed.add(k);
    JsonObject o =
        new JsonObject()
            .add(
                "base",
                new JsonObject()
                    .add("version", start.feature().map(f -> f.version()).orElse(0L))
                    .add("values", base))
            .add("set", form.schema().writeValues(set()))
            .add("kept", kept)
            .add("provenance", provenance)
            .add("confirmed", confirmed)
            .add("open", open);
    if (moved && form.schema().kind() == org.whinridge.core.layer.GeometryKind.POINT)
      place.ifPresent(
          p -> o.add("geometry", GeometryJson.write(GeometryJson.WGS84.createPoint(p))));
    return o;
  }

  /** What the rules of this visit see. */
  private final class VisitSituation implements Situation {
    @Override
    public Value value(String name) {
      int i = form.indexOf(name);
      if (i >= 0) return answers.visible(i);
      if (name.startsWith("before."))
        return start.feature().map(f -> f.value(name.substring(7))).orElse(Value.EMPTY);
      if (name.startsWith("last."))
        return start.last().getOrDefault(name.substring(5), Value.EMPTY);
      switch (name) {
        case "place":
          return geometry();
        case "fix.accuracy":
          return start.accuracyM().isPresent()
              ? Value.of(start.accuracyM().getAsDouble())
              : Value.EMPTY;
        case "device.person":
          return Value.text(start.person());
        case "device.name":
          return Value.text(start.device());
        case "visit.started":
          return new Value.Moment(start.startedAt());
        case "visit.edition":
          return Value.of(start.edition());
        default:
          return Value.EMPTY;
      }
    }

    private Value geometry() {
      Optional<org.locationtech.jts.geom.Geometry> own =
          moved ? Optional.empty() : start.feature().flatMap(f -> f.geometry());
      return own.<Value>map(Value.Place::new)
          .orElseGet(
              () ->
                  place
                      .<Value>map(p -> new Value.Place(GeometryJson.WGS84.createPoint(p)))
                      .orElse(Value.EMPTY));
    }

    @Override
    public LocalDate today() {
      return start.today();
    }

    @Override
    public Instant now() {
      return start.startedAt();
    }

    @Override
    public String label(String name, Value code) {
      int i = form.indexOf(name);
      if (i >= 0)
        for (var c : form.at(i).question().codes())
          if (c.code().equals(code.plain())) return c.label();
      return form.schema().field(name).map(f -> f.labelOf(code)).orElse(code.plain());
    }

    @Override
    public Optional<Coordinate> project(Coordinate wgs84) {
      return start.system().flatMap(s -> s.project(wgs84));
    }
  }
}
