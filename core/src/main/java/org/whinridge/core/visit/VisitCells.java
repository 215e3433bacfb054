package org.whinridge.core.visit;

import java.util.List;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.value.Value;

/** Where an answer lies, by its question and row, and what may be done to it. */
final class VisitCells {
  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;

  VisitCells(ExecutableForm form, VisitStart start, FillingState state) {
    this.form = form;
    this.start = start;
    this.state = state;
  }

  /** Whether people see such a question there; {@code row} is null outside of rows. */
  boolean isKnown(int i, Row row) {
    return i >= 0 && !form.at(i).isHidden() && (form.at(i).list() < 0 || row != null);
  }

  /** The row of a question's list; null outside of lists, and when there is none of that id. */
  Row row(int i, String rowId) {
    if (i < 0 || form.at(i).list() < 0) return null;
    for (Row r : state.rows.get(form.at(i).list())) if (r.id.equals(rowId)) return r;
    return null;
  }

  /** A row of any list; null when there is none. */
  Row find(String rowId) {
    for (List<Row> list : state.rows) for (Row r : list) if (r.id.equals(rowId)) return r;
    return null;
  }

  /** The list that a row stands in. */
  int listWith(Row row) {
    for (int l = 0; l < state.rows.size(); l++) if (state.rows.get(l).contains(row)) return l;
    throw new IllegalArgumentException("this row is in no list");
  }

  /** The answers among which a question's answer lies. */
  Answers answers(int i, Row row) {
    return form.at(i).list() < 0 ? state.top : row.answers;
  }

  /**
   * An answer as rules see it, of a named rule too; empty where there is none, or it is not asked.
   */
  Value visible(int i, Row row) {
    return i < 0 || (form.at(i).list() >= 0 && row == null)
        ? Value.EMPTY
        : answers(i, row).visible(form.local(i));
  }

  /** What was chosen of a new feature answers the questions that write it. */
  void takeMade() {
    for (int i = 0; i < form.size(); i++) {
      Question q = form.at(i).question();
      if (form.at(i).list() >= 0 || q.writesTo().isEmpty()) continue;
      Value v = start.made().map(m -> m.get(q.writesTo())).orElse(Value.EMPTY);
      if (v != null && !v.isEmpty() && v.type() == form.at(i).type())
        answers(i, null).put(form.local(i), q.kept(v), Provenance.TYPED);
    }
  }

  /** Whether people can't change the answer. */
  boolean isFixed(int i, Row row) {
    Question q = form.at(i).question();
    boolean revisit =
        form.at(i).list() < 0
            ? start.feature().isPresent()
            : row != null && row.state != RowState.NEW;
    return q.hand().readOnly()
        || q.isWorkedOut()
        || !q.type().hasAnswer()
        || q.refresh() == Refresh.ALWAYS
        || (q.hand().lockOnRevisit() && revisit);
  }

  /**
   * Whether a prefilled answer waits for a person to confirm it: it is asked, its row is still
   * there, nobody has confirmed it, and people may answer it at all.
   */
  boolean isToConfirm(int i, Row row) {
    if (row != null && !row.state.isThere()) return false;
    return answers(i, row).asked[form.local(i)] && waits(i, row) && !isFixed(i, row);
  }

  /** Whether there is an answer that nobody has confirmed. */
  boolean waits(int i, Row row) {
    Answers a = answers(i, row);
    int k = form.local(i);
    return !a.values[k].isEmpty() && !a.provenance[k].confirmed();
  }
}
