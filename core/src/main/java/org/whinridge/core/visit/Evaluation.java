package org.whinridge.core.visit;

import java.util.Arrays;
import java.util.List;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.Compiled;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.value.Value;

/**
 * Keeps a visit's answers true to the form: what is asked, what is worked out, what follows a
 * source, and what is open about each answer. Values come in the form's order of evaluation, only
 * those that depend on what changed; then what is open about them.
 */
final class Evaluation {
  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;
  private final VisitSituation situation;
  private final Prefill prefill;
  private final PointFinder points;
  private boolean lookingUp = true;

  Evaluation(
      ExecutableForm form,
      VisitStart start,
      FillingState state,
      VisitSituation situation,
      Prefill prefill) {
    this.form = form;
    this.start = start;
    this.state = state;
    this.situation = situation;
    this.prefill = prefill;
    points = new PointFinder(form, start, situation);
  }

  /** Opens a visit: every first value in the order of evaluation, and what follows from it. */
  void open() {
    lookingUp = false;
    for (int i = 0; i < form.size(); i++)
      if (form.at(i).list() < 0) begin(i, state.top, null);
      else for (Row r : state.rows.get(form.at(i).list())) begin(i, r.answers, r);
    lookingUp = true;
    markAllPoints();
    run();
  }

  /** The first value of a question that has none yet, and whether it is asked. */
  private void begin(int i, Answers a, Row row) {
    Compiled c = form.at(i);
    int k = form.local(i);
    situation.in(row);
    if (a.values[k].isEmpty() && !c.question().prefill().isEmpty()) {
      Prefill.First f = prefill.of(c);
      a.put(k, f.value(), f.provenance());
      a.notes[k] = f.note();
    }
    value(i, a, row);
  }

  /** Evaluates everything; {@code looking} tells whether sources that follow are asked again. */
  void everything(boolean looking) {
    lookingUp = looking;
    for (int i = 0; i < form.size(); i++) mark(i);
    markAllPoints();
    run();
    lookingUp = true;
  }

  /** An answer was set: what depends on it follows. */
  void changed(int i, Row row) {
    answers(i, row).pointsChanged[form.local(i)] = true;
    spread(i, row);
    run();
  }

  /** The place was moved: rules that read it and look-ups follow. */
  void placeMoved() {
    for (int d : form.dependents().placeValues()) mark(d);
    for (int d : form.dependents().placePoints()) markPoints(d);
    run();
  }

  /** A row came, went, or changed its state. */
  void rowsChanged(int list) {
    for (int d : form.dependents().rowValues(list)) mark(d);
    for (int d : form.dependents().rowPoints(list)) markPoints(d);
    for (int q : form.lists().get(list).questions()) {
      for (int d : form.dependents().columnValues(q)) mark(d);
      for (int d : form.dependents().columnPoints(q)) markPoints(d);
    }
    run();
  }

  /** A new row: its first values, and what follows from it. */
  void rowAdded(int list, Row row) {
    lookingUp = false;
    for (int i = 0; i < form.size(); i++) if (form.at(i).list() == list) begin(i, row.answers, row);
    lookingUp = true;
    Arrays.fill(row.answers.pointsChanged, true);
    rowsChanged(list);
  }

  private Answers answers(int i, Row row) {
    return form.at(i).list() < 0 ? state.top : row.answers;
  }

  private void mark(int i) {
    int list = form.at(i).list();
    if (list < 0) state.top.valueChanged[form.local(i)] = true;
    else for (Row r : state.rows.get(list)) r.answers.valueChanged[form.local(i)] = true;
  }

  private void markPoints(int i) {
    int list = form.at(i).list();
    if (list < 0) state.top.pointsChanged[form.local(i)] = true;
    else for (Row r : state.rows.get(list)) r.answers.pointsChanged[form.local(i)] = true;
  }

  private void markAllPoints() {
    Arrays.fill(state.top.pointsChanged, true);
    for (List<Row> list : state.rows) for (Row r : list) Arrays.fill(r.answers.pointsChanged, true);
  }

  /** Marks what reads question {@code i}: in the same row, over all rows, or outside. */
  private void spread(int i, Row row) {
    int list = form.at(i).list();
    for (int d : form.dependents().values(i))
      if (list >= 0 && form.at(d).list() == list) row.answers.valueChanged[form.local(d)] = true;
      else mark(d);
    for (int d : form.dependents().points(i))
      if (list >= 0 && form.at(d).list() == list) row.answers.pointsChanged[form.local(d)] = true;
      else markPoints(d);
    if (list < 0) return;
    for (int d : form.dependents().columnValues(i)) mark(d);
    for (int d : form.dependents().columnPoints(i)) markPoints(d);
  }

  private void run() {
    values();
    for (int i = 0; i < form.size(); i++) {
      int k = form.local(i);
      if (form.at(i).list() < 0) {
        if (state.top.pointsChanged[k]) points(i, state.top, null);
      } else
        for (Row r : state.rows.get(form.at(i).list()))
          if (r.answers.pointsChanged[k]) points(i, r.answers, r);
    }
  }

  private void values() {
    for (int i = 0; i < form.size(); i++) {
      int k = form.local(i);
      if (form.at(i).list() < 0) {
        if (state.top.valueChanged[k]) value(i, state.top, null);
      } else
        for (Row r : state.rows.get(form.at(i).list()))
          if (r.answers.valueChanged[k]) value(i, r.answers, r);
    }
  }

  private void value(int i, Answers a, Row row) {
    Compiled c = form.at(i);
    int k = form.local(i);
    a.valueChanged[k] = false;
    Value before = a.visible(k);
    situation.in(row);
    boolean asked = isAsked(c);
    if (asked != a.asked[k]) a.drawn[k] = null;
    a.asked[k] = asked;
    if (c.workOut().isPresent()) workOut(c, a, k);
    else if (lookingUp) follow(c, a, k);
    a.pointsChanged[k] = true;
    if (!before.equals(a.visible(k))) spread(i, row);
  }

  private boolean isAsked(Compiled c) {
    if (c.question().officeOnly() && start.turn() == VisitStart.Turn.OUTDOORS) return false;
    for (int w = 0; w < c.whens().size(); w++) if (!c.whens().get(w).holds(situation)) return false;
    return true;
  }

  private void workOut(Compiled c, Answers a, int k) {
    situation.wasNotFinite();
    Value v = c.question().given(c.workOut().get().evaluate(situation));
    a.notFinite[k] = v.isEmpty() && situation.wasNotFinite();
    if (!v.equals(a.values[k]) || a.provenance[k].kind() != Provenance.Kind.WORKED_OUT)
      a.put(k, v, a.asked[k] ? Provenance.of(Provenance.Kind.WORKED_OUT, "") : Provenance.NONE);
  }

  /**
   * A source that follows gives its value again; a person's own answer stays and is offered the new
   * one. A look-up by place follows the pin even when it is asked once.
   */
  private void follow(Compiled c, Answers a, int k) {
    Question q = c.question();
    boolean byPlace = Prefill.looksUp(q);
    if (q.refresh() == Refresh.ONCE && !byPlace) return;
    Prefill.First f = prefill.of(c);
    Provenance.Kind from = a.provenance[k].kind();
    if (from == Provenance.Kind.TYPED && q.refresh() != Refresh.ALWAYS) {
      boolean other = !f.value().isEmpty() && !f.value().equals(a.values[k]);
      a.offers[k] = other ? f : null;
      a.drawn[k] = null;
      return;
    }
    boolean follows =
        q.refresh() != Refresh.ONCE
            || from == Provenance.Kind.PLACE
            || from == Provenance.Kind.NONE
            // it found nothing at first, so that a later source was asked, and finds something now
            || f.provenance().kind() == Provenance.Kind.PLACE;
    if (!follows) return;
    boolean same = f.value().equals(a.values[k]) && sameOrigin(f.provenance(), a.provenance[k]);
    if (!same) a.put(k, f.value(), f.provenance());
    a.notes[k] = f.note();
    a.offers[k] = null;
    a.drawn[k] = null;
  }

  /** A confirmed value stays confirmed while the same source gives the same. */
  private static boolean sameOrigin(Provenance a, Provenance b) {
    return a.kind() == b.kind()
        && a.detail().equals(b.detail())
        && a.featureId().equals(b.featureId());
  }

  private void points(int i, Answers a, Row row) {
    Compiled c = form.at(i);
    int k = form.local(i);
    a.pointsChanged[k] = false;
    a.drawn[k] = null;
    if (c.isHidden()) return;
    situation.in(row);
    a.unfit.set(k, points.unfit(c));
    a.points.set(k, row != null && !row.state.isThere() ? List.of() : points.points(c, a, k, row));
  }
}
