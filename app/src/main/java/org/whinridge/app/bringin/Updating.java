package org.whinridge.app.bringin;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.ChangedSince;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerUse;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.layer.Setting;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Jobs;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.merge.SameValue;
import org.whinridge.core.place.SamePlace;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileProblem;

/** Updates of a layer by key: counted first, then written as one act. */
@Component
class Updating {
  private static final int MOST_SAMPLES = 40;
  private static final int MOST_OVER = 10;
  private final ReadModels models;
  private final Layers layers;
  private final LayerChanges changes;

  private final Setting setting;
  private final ChangedSince since;
  private final List<LayerUse> uses;

  Updating(
      ReadModels models,
      Layers layers,
      LayerChanges changes,
      Setting setting,
      ChangedSince since,
      List<LayerUse> uses) {
    this.uses = uses;
    this.since = since;
    this.setting = setting;
    this.models = models;
    this.layers = layers;
    this.changes = changes;
  }

  /** One difference that an update would write. */
  record Sample(String caption, Said field, Said before, Said after) {}

  /**
   * What an update would do, counted before it is done.
   *
   * @param notes what is worth telling of its rows: values that do not fit, places that are none
   */
  record Plan(
      int index,
      UUID layer,
      long revision,
      String layerName,
      String key,
      int fresh,
      int changed,
      int unchanged,
      int missing,
      int withoutKey,
      List<Said> repeated,
      List<Said> leftOut,
      List<Sample> samples,
      List<String> missingCaptions,
      boolean removeMissing,
      List<Said> notes) {
    /** The keys that the file has more than once, in a row. */
    public Said repeatedRow() {
      return Said.row(repeated, "list.also", "list.also");
    }

    /** The columns that go nowhere, in a row. */
    public Said leftOutRow() {
      return Said.inARow(leftOut, "list.then");
    }
  }

  /** What to do with one row of an update: which feature it is, and what differs. */
  private interface Match {
    void of(Rows.Row row, int at, Map<String, Value> differs, Optional<Geometry> place)
        throws FileProblem;
  }

  private static final class Tally {
    int withoutKey;
    int pictures;
    final List<Said> repeated = new ArrayList<>();
    final Map<String, Integer> inFile = new LinkedHashMap<>();
    Field key;
    final List<Said> leftOut = new ArrayList<>();
    List<Said> notes = List.of();

    /**
     * Whether the file does not have a feature. One without a key can't be told, so it is never
     * missing; of several with one key none is, if the file has that key.
     */
    boolean misses(LayerColumns columns, int row) {
      if (!columns.has(row)) return false;
      String k = columns.column(key.name()).orElseThrow().value(row).plain().strip();
      return !k.isEmpty() && !inFile.containsKey(k);
    }
  }

  private Tally match(
      Choice c, Layer layer, Jobs.Job job, Said doing, LayerColumns columns, Match use)
      throws FileProblem, IOException {
    Tally t = new Tally();
    Map<String, Field> targets = ModelRows.targets(c, layer, t.leftOut);
    Field key = targets.get(c.key());
    Map<String, Integer> rowOf = ModelRows.byKey(columns, key);
    t.key = key;
    Set<String> ranked = new LinkedHashSet<>();
    for (LayerUse u : uses) ranked.addAll(u.ranked(layer.id()));
    Map<String, SameValue> same = new LinkedHashMap<>();
    for (Field f : targets.values())
      same.put(
          f.name(),
          SameValue.of(Optional.of(f), SamePlace.DECIMALS).ranked(ranked.contains(f.name())));
    Rows file = new Rows(c, targets);
    file.each(
        job,
        doing,
        r -> {
          t.pictures += r.raw().pictures().size();
          String k = ModelRows.key(r.values(), key);
          if (k.isEmpty()) {
            t.withoutKey++;
            return;
          }
          Integer before = t.inFile.putIfAbsent(k, r.raw().number());
          if (before != null) {
            if (t.repeated.size() < 20)
              t.repeated.add(
                  Said.of(
                      "told.firstCounts", "value", k, "first", before, "second", r.raw().number()));
            return;
          }
          int row = rowOf.getOrDefault(k, -1);
          use.of(
              r,
              row,
              row < 0 ? r.values() : differs(c, targets, same, columns, row, r),
              row < 0 ? r.geometry() : moved(c, columns, row, r));
        });
    t.notes = new ArrayList<>(file.notes());
    if (t.pictures > 0) t.notes.add(Said.of("told.picturesLeft", "n", t.pictures));
    return t;
  }

  private static Map<String, Value> differs(
      Choice c,
      Map<String, Field> targets,
      Map<String, SameValue> same,
      LayerColumns columns,
      int row,
      Rows.Row r) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (Field f : targets.values()) {
      Value now = columns.column(f.name()).orElseThrow().value(row);
      Value v = r.values().getOrDefault(f.name(), Value.EMPTY);
      if (v.isEmpty() && !c.emptyEmpties()) continue;
      if (!same.get(f.name()).test(now, v)) out.put(f.name(), v);
    }
    return out;
  }

  private static Optional<Geometry> moved(Choice c, LayerColumns columns, int row, Rows.Row r) {
    if (!c.place() || r.geometry().isEmpty()) return Optional.empty();
    Optional<Geometry> now = columns.geometry(row);
    return now.isPresent() && SamePlace.of(now.get(), r.geometry().get(), SamePlace.DECIMALS)
        ? Optional.empty()
        : r.geometry();
  }

  private static void overwritten(List<Sample> over, List<Said> notes) {
    List<Sample> had = over.stream().filter(s -> !s.before.isEmpty()).limit(MOST_OVER).toList();
    for (Sample s : had)
      notes.add(
          Said.of(
              s.after.isEmpty() ? "told.wasIsEmpty" : "told.wasIs",
              "caption",
              s.caption,
              "field",
              s.field,
              "before",
              s.before,
              "after",
              s.after));
    if (had.size() == MOST_OVER) notes.add(Said.of("told.whatElseWasOverwritten"));
  }

  /** Counts what an update would do; changes nothing. */
  Plan plan(Choice c, Layer layer, Jobs.Job job) throws FileProblem, IOException {
    LayerColumns columns = models.of(layer);
    int[] n = new int[3];
    List<Sample> samples = new ArrayList<>();
    Tally t =
        match(
            c,
            layer,
            job,
            Said.of("job.comparing", "name", layer.name()),
            columns,
            (r, row, differs, place) -> {
              if (row < 0) n[0]++;
              else if (differs.isEmpty() && place.isEmpty()) n[2]++;
              else {
                n[1]++;
                sample(layer, columns, row, differs, place, samples);
              }
            });
    List<String> missing = new ArrayList<>();
    int gone = 0;
    for (int row = 0; row < columns.rows(); row++)
      if (t.misses(columns, row)) {
        gone++;
        if (missing.size() < MOST_SAMPLES)
          missing.add(layer.schema().caption(columns.feature(row).values()));
      }
    return new Plan(
        c.part().index(),
        layer.id(),
        layer.revision(),
        layer.name(),
        c.key(),
        n[0],
        n[1],
        n[2],
        gone,
        t.withoutKey,
        t.repeated,
        t.leftOut,
        samples,
        missing,
        c.removeMissing(),
        t.notes);
  }

  private static void sample(
      Layer layer,
      LayerColumns columns,
      int row,
      Map<String, Value> differs,
      Optional<Geometry> place,
      List<Sample> samples) {
    String caption = layer.schema().caption(columns.feature(row).values());
    differs.forEach(
        (name, v) -> {
          Field f = layer.schema().field(name).orElseThrow();
          if (samples.size() < MOST_SAMPLES)
            samples.add(
                new Sample(
                    caption,
                    Said.text(f.label()),
                    f.shown(columns.column(name).orElseThrow().value(row)),
                    f.shown(v)));
        });
    if (place.isPresent() && samples.size() < MOST_SAMPLES)
      samples.add(new Sample(caption, Said.of("sheet.place"), Said.NONE, Said.of("told.moved")));
  }

  /**
   * Writes an update as it was planned: changed features, new ones, and, if so decided, takes
   * missing ones away. When the layer has changed since it was planned, the plan has grown old and
   * is refused with what changed.
   *
   * @param planned the layer at the revision of the plan
   */
  Importing.Outcome update(Choice c, Layer planned, String person, Jobs.Job job) throws Exception {
    Layer now = layers.get(planned.projectId(), planned.id());
    if (now.revision() != planned.revision()) throw since.refusal(planned, now.revision());
    return update(c, now, models.of(now), person, job);
  }

  private Importing.Outcome update(
      Choice c, Layer layer, LayerColumns columns, String person, Jobs.Job job) throws Exception {
    List<Said> notes = new ArrayList<>();
    List<Sample> over = new ArrayList<>();
    NewFeature.Setting now = setting.now(layer.projectId());
    LayerChanges.Done done =
        changes.writeAsShown(
            layer,
            "import",
            Said.of("ledger.updateFrom", "file", c.part().source().title()),
            person,
            batch -> {
              Tally t =
                  match(
                      c,
                      layer,
                      job,
                      Said.of("job.updating", "name", layer.name()),
                      columns,
                      (r, row, differs, place) -> {
                        if (row < 0)
                          batch.add(
                              NewFeature.begun(
                                  new Feature(Ids.next().toString(), place, r.values(), 1),
                                  layer.schema(),
                                  now));
                        else if (!differs.isEmpty() || place.isPresent()) {
                          sample(layer, columns, row, differs, place, over);
                          batch.set(UUID.fromString(columns.id(row)), differs, place);
                        }
                      });
              if (c.removeMissing())
                for (int row = 0; row < columns.rows(); row++)
                  if (t.misses(columns, row)) batch.remove(UUID.fromString(columns.id(row)));
              notes.clear();
              notes.addAll(t.notes);
            });
    overwritten(over, notes);
    Said said =
        Said.of(
            done.removed() > 0 ? "told.updatedRemoved" : "told.updated",
            "changed",
            done.changed(),
            "added",
            done.added(),
            "removed",
            done.removed());
    return new Importing.Outcome(
        layer.id(), layer.name(), said, Optional.of(done.group()), false, notes);
  }
}
