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
final class VisitState {
  final Answers top;
  final List<List<Row>> rows = new ArrayList<>();
  final Set<String> confirmedSoft = new LinkedHashSet<>();

  /** The visit's place; empty while it has none. */
  Optional<Geometry> geometry;

  /** Whether a person moved or drew the place. */
  boolean moved;

  VisitState(ExecutableForm form, VisitStart start) {
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
  record Kept(
      Answers.Kept top,
      List<List<KeptRow>> rows,
      Set<String> confirmedSoft,
      Optional<Geometry> geometry,
      boolean moved) {}

  record KeptRow(Row row, Row.State state, Answers.Kept answers) {}

  Kept keep() {
    List<List<KeptRow>> kept = new ArrayList<>();
    for (List<Row> list : rows)
      kept.add(list.stream().map(r -> new KeptRow(r, r.state, r.answers.keep())).toList());
    return new Kept(top.keep(), kept, new LinkedHashSet<>(confirmedSoft), geometry, moved);
  }

  void restore(Kept kept) {
    top.restore(kept.top);
    for (int l = 0; l < rows.size(); l++) {
      rows.get(l).clear();
      for (KeptRow k : kept.rows.get(l)) {
        k.row.state = k.state;
        k.row.answers.restore(k.answers);
        rows.get(l).add(k.row);
      }
    }
    confirmedSoft.clear();
    confirmedSoft.addAll(kept.confirmedSoft);
    geometry = kept.geometry;
    moved = kept.moved;
  }
}
