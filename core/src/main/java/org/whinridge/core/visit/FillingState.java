package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;

/** All that changes while a visit is filled. */
final class FillingState {
  final Answers top;
  final List<List<Row>> rows = new ArrayList<>();
  final Set<String> confirmedSoft = new LinkedHashSet<>();

  /** The visit's place; empty while it has none. */
  Optional<Geometry> geometry;

  /** Whether a person moved or drew the place. */
  boolean moved;

  FillingState(ExecutableForm form, VisitStart start) {
    top = new Answers(form.topSize());
    for (int l = 0; l < form.lists().size(); l++) rows.add(new ArrayList<>());
    geometry =
        start
            .feature()
            .flatMap(f -> f.geometry())
            .or(() -> start.fix().position().map(p -> GeometryJson.WGS84.createPoint(p)));
  }

  /** Whether a list is asked as a whole: one without rows has no question to tell it. */
  boolean isAsked(ExecutableForm form, int list) {
    int gate = form.gate(list);
    return gate < 0 || top.values[form.local(gate)].equals(Value.YES);
  }

  /** Everything that a person did, to come back to. */
  record Remembered(
      Answers.Remembered top,
      List<List<RememberedRow>> rows,
      Set<String> confirmedSoft,
      Optional<Geometry> geometry,
      boolean moved) {}

  record RememberedRow(Row row, RowState state, Answers.Remembered answers) {}

  Remembered remember() {
    List<List<RememberedRow>> all = new ArrayList<>();
    for (List<Row> list : rows)
      all.add(list.stream().map(r -> new RememberedRow(r, r.state, r.answers.remember())).toList());
    return new Remembered(top.remember(), all, new LinkedHashSet<>(confirmedSoft), geometry, moved);
  }

  void restore(Remembered then) {
    top.restore(then.top);
    for (int l = 0; l < rows.size(); l++) {
      rows.get(l).clear();
      for (RememberedRow k : then.rows.get(l)) {
        k.row.state = k.state;
        k.row.answers.restore(k.answers);
        rows.get(l).add(k.row);
      }
    }
    confirmedSoft.clear();
    confirmedSoft.addAll(then.confirmedSoft);
    geometry = then.geometry;
    moved = then.moved;
  }
}
