package org.whinridge.app.bringin;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.profile.DayOrder;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileProblem;

/** Rows of a table kept as past visits of a layer's features. */
@Component
class VisitImport {
  private final ReadModels models;
  private final PastVisits visits;

  VisitImport(ReadModels models, PastVisits visits) {
    this.models = models;
    this.visits = visits;
  }

  /** Keeps rows as past visits of a layer's features. */
  Importing.Outcome asVisits(Choice c, Layer layer, String person, Jobs.Job job)
      throws FileProblem, IOException {
    Choice.ColumnChoice date =
        c.columns().stream()
            .filter(k -> k.column().source().equals(c.date()))
            .findFirst()
            .orElseThrow(() -> Refusal.refused("refused.columnNotTakenDay", "date", c.date()));
    List<PastVisits.PastVisit> out = new ArrayList<>();
    Told told = new Told();
    LayerColumns columns = models.of(layer);
    List<Said> leftOut = new ArrayList<>();
    Map<String, Field> targets = ModelRows.targets(c, layer, leftOut);
    Field key = targets.get(c.key());
    // columns without a field of the layer are answers that are kept on the visit only
    for (Choice.ColumnChoice k : c.columns())
      if (!targets.containsKey(k.column().source()))
        targets.put(k.column().source(), k.column().field());
    targets.remove(c.date());
    targets.remove(c.visitor());
    Map<String, Integer> rowOf = ModelRows.byKey(columns, key);
    Reading order =
        c.order()
            .orElse(
                date.column().guess().dayOrder() == DayOrder.MONTH_FIRST
                    ? Reading.MONTH_FIRST
                    : Reading.DAY_FIRST);
    Instant now = Layers.now();
    Set<String> seen = new HashSet<>();
    Rows file = new Rows(c, targets);
    file.each(
        job,
        Said.of("job.readingVisits"),
        r -> {
          Value cell = r.raw().properties().getOrDefault(c.date(), Value.EMPTY);
          Optional<Instant> at = Reading.anyMoment(cell, order);
          Map<String, Value> answers = new LinkedHashMap<>(r.values());
          String keyed = answers.getOrDefault(key.name(), Value.EMPTY).plain().strip();
          Integer row = rowOf.get(keyed);
          Said where = Said.of("told.rowNumber", "row", r.raw().number());
          if (row == null)
            told.add(
                Why.NO_FEATURE,
                keyed.isEmpty() ? Said.of("told.rowEmpty", "row", where) : Said.text(keyed));
          else if (at.isEmpty())
            told.add(
                Why.NO_DAY,
                Said.of(
                    cell.isEmpty() ? "told.rowEmpty" : "told.rowHas",
                    "row",
                    where,
                    "cell",
                    cut(cell)));
          else {
            answers.remove(key.name());
            String who = who(r.raw().properties().get(c.visitor()), person);
            if (!seen.add(row + " " + at.get() + " " + who + " " + answers)) {
              told.add(Why.TWICE, where);
              return;
            }
            if (at.get().isAfter(now))
              told.add(Why.FUTURE, Said.of("told.rowOf", "row", where, "cell", cut(cell)));
            out.add(
                new PastVisits.PastVisit(
                    UUID.fromString(columns.id(row)), at.get(), who, answers, r.raw().pictures()));
          }
        });
    List<Said> notes = new ArrayList<>(file.notes());
    notes.addAll(told.notes());
    if (out.isEmpty())
      throw Refusal.refused(
          "refused.noRowBothFeature",
          "name",
          layer.name(),
          "notes",
          Said.row(told.notes(), "list.sentences", "list.sentences"));
    UUID handIn =
        visits.keep(
            layer.id(), Said.of("ledger.importOf", "file", c.part().source().title()), person, out);
    return new Importing.Outcome(
        layer.id(),
        layer.name(),
        Said.of("told.pastVisitsKept", "n", out.size()),
        Optional.of(handIn),
        true,
        notes);
  }

  private static String cut(Value v) {
    String s = v.plain();
    return s.length() <= 40 ? s : s.substring(0, 40) + "…";
  }

  /** The visitor that a row names; at most 40 characters, as a name of an account has. */
  private static String who(Value v, String person) {
    String s = v == null ? "" : v.plain().strip();
    return s.isEmpty() ? person : s.substring(0, Math.min(40, s.length()));
  }

  /** Why a row is told. */
  private enum Why {
    NO_FEATURE,
    NO_DAY,
    TWICE,
    FUTURE;
  }

  /** What is told of rows: how many, and the first of them by name. */
  private static final class Told {
    private static final int MOST = 20;
    private final Map<Why, Integer> count = new EnumMap<>(Why.class);
    private final Map<Why, Set<Said>> named = new EnumMap<>(Why.class);

    void add(Why why, Said which) {
      count.merge(why, 1, Integer::sum);
      Set<Said> of = named.computeIfAbsent(why, k -> new LinkedHashSet<>());
      if (of.size() < MOST) of.add(which);
    }

    List<Said> notes() {
      List<Said> out = new ArrayList<>();
      count.forEach(
          (why, n) -> {
            Said which = Said.inARow(List.copyOf(named.get(why)), "list.then");
            out.add(
                Said.of(
                    named.get(why).size() == MOST && n > MOST ? "pastRows.some" : "pastRows.all",
                    "what",
                    Said.of("pastRow." + why.name(), "n", n),
                    "which",
                    which));
          });
      return out;
    }
  }
}
