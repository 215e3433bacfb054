package org.whinridge.app.bringin;

import java.io.IOException;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.value.Value;
import org.whinridge.formats.FileProblem;

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
            .orElseThrow(
                () ->
                    Refusal.refused(
                        "The column “"
                            + c.date()
                            + "” is not taken; it has the day of each visit. Nothing was imported."));
    List<PastVisits.PastVisit> out = new ArrayList<>();
    int[] skipped = new int[2];
    List<String> notes = new ArrayList<>();
    LayerColumns columns = models.of(layer);
    List<String> leftOut = new ArrayList<>();
    Map<String, Field> targets = ModelRows.targets(c, layer, leftOut);
    Field key = targets.get(c.key());
    // columns without a field of the layer are answers that are kept on the visit only
    for (Choice.ColumnChoice k : c.columns())
      if (!targets.containsKey(k.column().source()) && !k.column().source().equals(c.date()))
        targets.put(k.column().source(), k.column().field());
    targets.remove(c.date());
    Map<String, Integer> rowOf = ModelRows.byKey(columns, key);
    Rows file = new Rows(c, targets);
    file.each(
        job,
        "Reading visits",
        r -> {
          Value day =
              date.column()
                  .guess()
                  .reading()
                  .read(
                      r.raw().properties().getOrDefault(c.date(), Value.EMPTY),
                      FieldType.DATE_TIME);
          if (!(day instanceof Value.Moment))
            day =
                moment(
                    date.column()
                        .guess()
                        .reading()
                        .read(
                            r.raw().properties().getOrDefault(c.date(), Value.EMPTY),
                            FieldType.DATE));
          Map<String, Value> answers = new LinkedHashMap<>(r.values());
          Integer row = rowOf.get(answers.getOrDefault(key.name(), Value.EMPTY).plain().strip());
          if (row == null) skipped[0]++;
          else if (!(day instanceof Value.Moment m)) skipped[1]++;
          else {
            answers.remove(key.name());
            out.add(
                new PastVisits.PastVisit(
                    UUID.fromString(columns.id(row)),
                    m.value(),
                    person,
                    answers,
                    r.raw().pictures()));
          }
        });
    notes.addAll(file.notes());
    if (out.isEmpty())
      throw Refusal.refused(
          "No row has both a feature of “" + layer.name() + "” and a day. Nothing was imported.");
    UUID handIn = visits.keep(layer.id(), "import of " + c.part().source().name(), person, out);
    if (skipped[0] > 0)
      notes.add(
          skipped[0] + " rows have no feature with their key on the layer; they were left out.");
    if (skipped[1] > 0)
      notes.add(skipped[1] + " rows have no day that can be read; they were left out.");
    return new Importing.Outcome(
        layer.id(),
        layer.name(),
        out.size() + " past visits kept",
        Optional.of(handIn),
        true,
        notes);
  }

  private static Value moment(Value v) {
    return v instanceof Value.Day d
        ? new Value.Moment(d.value().atTime(12, 0).toInstant(ZoneOffset.UTC))
        : Value.EMPTY;
  }
}
