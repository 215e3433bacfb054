package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.said.Said;

/** What is open about the rows of a list section themselves. */
final class RowPoints {
  private RowPoints() {}

  static List<OpenPoint> of(ExecutableForm form, FillingState state, int l) {
    ExecutableForm.ListPart list = form.lists().get(l);
    if (!state.isAsked(form, l)) return List.of();
    List<OpenPoint> out = new ArrayList<>();
    int there = 0;
    for (Row r : state.rows.get(l)) {
      if (r.state.isThere()) there++;
      if (r.state == RowState.TO_CONFIRM)
        out.add(
            OpenPoint.of(
                list.name(), r.id, OpenPoint.Kind.NEEDED, new PointReason.RowUnconfirmed()));
    }
    if (there < list.rows().least())
      out.add(
          OpenPoint.of(
              list.name(),
              "",
              OpenPoint.Kind.NEEDED,
              new PointReason.TooFew(rows(list.rows().least()))));
    if (list.rows().most() > 0 && there > list.rows().most())
      out.add(
          OpenPoint.of(
              list.name(),
              "",
              OpenPoint.Kind.FIRM,
              new PointReason.TooMany(rows(list.rows().most()))));
    return out;
  }

  private static Said rows(int n) {
    return Said.of("amount.ROW", "n", n);
  }
}
