package org.whinridge.core.visit;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Value;

/** What the rules of a visit see; inside a list, the answers of the current row as well. */
final class VisitSituation implements Situation {
  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;
  private Row row;
  private boolean notFinite;

  VisitSituation(ExecutableForm form, VisitStart start, FillingState state) {
    this.form = form;
    this.start = start;
    this.state = state;
  }

  /** The same situation, seen from a row; null for outside of rows. */
  VisitSituation in(Row newRow) {
    row = newRow;
    return this;
  }

  /** Whether a number came out that is not finite since this was last asked. */
  boolean wasNotFinite() {
    boolean was = notFinite;
    notFinite = false;
    return was;
  }

  @Override
  public void notFinite() {
    notFinite = true;
  }

  @Override
  public Value slot(int slot) {
    if (slot >= form.size()) return extra(form.extraAt(slot));
    Answers a = form.at(slot).list() < 0 ? state.top : row == null ? null : row.answers;
    return a == null ? Value.EMPTY : a.visible(form.local(slot));
  }

  @Override
  public Value value(String name) {
    int i = form.indexOf(name);
    if (i >= 0) return slot(i);
    int dot = name.indexOf('.');
    int list = form.listOf(dot < 0 ? name : name.substring(0, dot));
    int column = dot < 0 ? -1 : form.indexOf(name.substring(dot + 1));
    return extra(new ExecutableForm.Extra(name, list, column));
  }

  private Value extra(ExecutableForm.Extra e) {
    if (e.list() >= 0) return column(e.list(), e.column());
    String name = e.name();
    if (name.startsWith("before."))
      return start.feature().map(f -> f.value(name.substring(7))).orElse(Value.EMPTY);
    if (name.startsWith("last."))
      return start.last().answers().getOrDefault(name.substring(5), Value.EMPTY);
    switch (name) {
      case "place":
        return place();
      case "fix.accuracy":
        return known(start.fix().accuracyM());
      case "fix.height":
        return known(start.fix().heightM());
      case "device.bearing":
        return known(start.fix().bearingDeg());
      case "fix.satellites":
        return start.fix().satellites().isPresent()
            ? Value.of(start.fix().satellites().getAsInt())
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

  static Value known(OptionalDouble d) {
    return d.isPresent() ? Value.of(d.getAsDouble()) : Value.EMPTY;
  }

  /** A column over the rows that are there, or without one the rows' ids. */
  private Value column(int list, int question) {
    List<Value> out = new ArrayList<>();
    for (Row r : state.rows.get(list))
      if (r.state.isThere())
        out.add(question < 0 ? Value.text(r.id) : r.answers.visible(form.local(question)));
    return Value.many(out);
  }

  /** The visit's place: as it was drawn or moved, else the feature's, else where one stands. */
  Value place() {
    return state.geometry.<Value>map(Value.Place::new).orElse(Value.EMPTY);
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
    String q = name.startsWith("last.") ? name.substring(5) : name;
    int dot = q.indexOf('.');
    if (dot > 0 && form.listOf(q.substring(0, dot)) >= 0) q = q.substring(dot + 1);
    int i = form.indexOf(q);
    if (i >= 0) return form.at(i).question().labelOf(code);
    String field = name.startsWith("before.") ? name.substring(7) : name;
    return form.schema().field(field).map(f -> f.labelOf(code)).orElse(code.plain());
  }

  @Override
  public Optional<Coordinate> project(Coordinate wgs84) {
    return start.system().flatMap(s -> s.project(wgs84));
  }
}
