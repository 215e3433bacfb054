package org.whinridge.core.visit;

import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.value.Value;

/** Does in one visit what a person did in another, in the form's order. */
final class DoneAgain {
  private final ExecutableForm form;
  private final FillingState was;
  private final Filling now;

  DoneAgain(ExecutableForm form, FillingState was, Filling now) {
    this.form = form;
    this.was = was;
    this.now = now;
  }

  void all() {
    if (was.moved) was.geometry.ifPresent(now::reshape);
    for (int i = 0; i < form.size(); i++) if (form.at(i).list() < 0) answer(i, "", was.top);
    for (int l = 0; l < was.rows.size(); l++) for (Row r : was.rows.get(l)) row(l, r);
    // afterwards, since an answer that changes takes the confirmation of what follows it away
    for (int i = 0; i < form.size(); i++) if (form.at(i).list() < 0) confirm(i, "", was.top);
    for (int l = 0; l < was.rows.size(); l++)
      for (Row r : was.rows.get(l))
        for (int i : form.lists().get(l).questions()) confirm(i, r.id, r.answers);
    was.confirmedSoft.forEach(now::confirmSoft);
  }

  private void row(int l, Row r) {
    if (r.state == RowState.NEW) now.addRow(form.lists().get(l).name(), r.id);
    else now.markRow(r.id, r.state.id());
    for (int i : form.lists().get(l).questions()) answer(i, r.id, r.answers);
  }

  /** What came in a file has no origin, and was given by a person too. */
  private void answer(int i, String row, Answers a) {
    int k = form.local(i);
    Value v = a.values[k];
    Provenance.Kind kind = a.provenance[k].kind();
    if (kind == Provenance.Kind.TYPED || (kind == Provenance.Kind.NONE && !v.isEmpty()))
      now.set(form.at(i).name(), row, v);
  }

  private void confirm(int i, String row, Answers a) {
    Provenance p = a.provenance[form.local(i)];
    if (p.confirmed() && p.kind() != Provenance.Kind.TYPED) now.confirm(form.at(i).name(), row);
  }
}
