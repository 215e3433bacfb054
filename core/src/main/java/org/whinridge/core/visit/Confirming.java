package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;

/** A person says of what was prefilled, or of what the last visit found, that it is so. */
final class Confirming {
  private final ExecutableForm form;
  private final FillingState state;
  private final VisitCells cells;
  private final Evaluation evaluation;

  Confirming(ExecutableForm form, FillingState state, VisitCells cells, Evaluation evaluation) {
    this.form = form;
    this.state = state;
    this.cells = cells;
    this.evaluation = evaluation;
  }

  /** One answer. */
  void answer(int i, Row row) {
    Answers a = cells.answers(i, row);
    int k = form.local(i);
    a.put(k, a.values[k], a.provenance[k].confirm());
  }

  /** All that waits in a section; gives how many answers and rows these were. */
  int section(int s) {
    Section section = form.form().sections().get(s);
    int list = section.isList() ? form.listOf(section.name()) : -1;
    List<Row> rows = list < 0 ? new ArrayList<>() : new ArrayList<>(state.rows.get(list));
    if (list < 0) rows.add(null);
    int n = 0;
    for (Row row : rows) {
      if (row != null && row.state == RowState.TO_CONFIRM) {
        row.state = RowState.STILL;
        n++;
      }
      for (int i : form.sheet(s)) {
        if (!cells.isToConfirm(i, row)) continue;
        answer(i, row);
        n++;
      }
    }
    if (list >= 0) evaluation.rowsChanged(list);
    return n;
  }
}
