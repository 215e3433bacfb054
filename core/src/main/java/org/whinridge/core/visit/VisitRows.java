package org.whinridge.core.visit;

import java.util.Arrays;
import java.util.List;
import org.whinridge.core.form.compile.ExecutableForm;

/** The rows of list sections: added, taken away, marked. Each gives whether it could be done. */
final class VisitRows {
  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;
  private final VisitCells cells;
  private final Evaluation evaluation;
  private final Runnable remember;

  /** {@code remember} is run before anything is changed. */
  VisitRows(
      ExecutableForm form,
      VisitStart start,
      FillingState state,
      VisitCells cells,
      Evaluation evaluation,
      Runnable remember) {
    this.form = form;
    this.start = start;
    this.state = state;
    this.cells = cells;
    this.evaluation = evaluation;
    this.remember = remember;
  }

  /** Takes over the rows of the last visit; the evaluation follows later. */
  void takeLast() {
    for (int l = 0; l < form.lists().size(); l++) takeLast(l);
  }

  private void takeLast(int l) {
    ExecutableForm.ListPart list = form.lists().get(l);
    if (!list.rows().fromLastVisit()) return;
    for (VisitStart.LastRow last : start.last().rows().getOrDefault(list.name(), List.of())) {
      Row row = new Row(last.id(), RowState.TO_CONFIRM, new Answers(list.questions().length));
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

  boolean add(String list, String rowId) {
    int l = form.listOf(list);
    if (l < 0 || rowId.isEmpty() || cells.find(rowId) != null) return false;
    ExecutableForm.ListPart part = form.lists().get(l);
    long there = state.rows.get(l).stream().filter(r -> r.state.isThere()).count();
    if (!part.rows().takesMore(there)) return false;
    remember.run();
    Row row = new Row(rowId, RowState.NEW, new Answers(part.questions().length));
    state.rows.get(l).add(row);
    evaluation.rowAdded(l, row);
    return true;
  }

  boolean remove(String rowId) {
    Row row = cells.find(rowId);
    if (row == null || row.state != RowState.NEW) return false;
    remember.run();
    int l = cells.listWith(row);
    state.rows.get(l).remove(row);
    evaluation.rowsChanged(l);
    return true;
  }

  boolean mark(String rowId, String newState) {
    Row row = cells.find(rowId);
    RowState to = RowState.of(newState);
    if (row == null || row.state == RowState.NEW || to == RowState.NEW) return false;
    remember.run();
    row.state = to;
    Arrays.fill(row.answers.pointsChanged, true);
    evaluation.rowsChanged(cells.listWith(row));
    return true;
  }

  List<String> ids(String list) {
    int l = form.listOf(list);
    return l < 0 ? List.of() : state.rows.get(l).stream().map(r -> r.id).toList();
  }
}
