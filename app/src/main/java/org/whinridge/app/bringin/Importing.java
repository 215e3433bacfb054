package org.whinridge.app.bringin;

import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.JobProblem;
import org.whinridge.app.shell.Jobs;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.NewFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.value.Value;
import org.whinridge.formats.FileProblem;

/** Imports what was decided: new layers, updates by key, past visits. */
@Component
class Importing {
  private static final List<String> TAGS = List.of("tag", "ref", "asset_id", "code", "barcode");
  private static final List<String> CAPTIONS =
      List.of("tag", "ref", "asset_id", "name", "title", "kind", "beat", "code", "photo");
  private static final int MOST_SAMPLES = 40;
  private final Layers layers;
  private final LayerMaking making;
  private final LayerChanges changes;
  private final ReadModels models;
  private final PastVisits visits;

  Importing(
      Layers layers,
      LayerMaking making,
      LayerChanges changes,
      ReadModels models,
      PastVisits visits) {
    this.layers = layers;
    this.making = making;
    this.changes = changes;
    this.models = models;
    this.visits = visits;
  }

  /**
   * What became of one part.
   *
   * @param said in words: "240 features imported"
   * @param act what can be taken back
   * @param visits whether that is a hand-in of past visits
   */
  record Outcome(
      UUID layer,
      String layerName,
      String said,
      Optional<UUID> act,
      boolean visits,
      List<String> notes) {}

  /** One difference that an update would write. */
  record Sample(String caption, String field, String before, String after) {}

  /** What an update would do, counted before it is done. */
  record Plan(
      int index,
      UUID layer,
      String layerName,
      String key,
      int fresh,
      int changed,
      int unchanged,
      int missing,
      int withoutKey,
      List<String> repeated,
      List<String> leftOut,
      List<Sample> samples,
      List<String> missingCaptions,
      boolean removeMissing) {}

  /** Refuses decisions that can't be carried out, before any work is done. */
  void check(List<Choice> choices, UUID project) {
    List<String> names = new ArrayList<>();
    for (Choice c : choices) {
      boolean fresh = c.target().equals("new");
      if (fresh) making.checkName(project, c.name());
      if (fresh && names.contains(c.name()))
        throw JobProblem.refused(
            "Two of the new layers are called “" + c.name() + "”. Nothing was imported.");
      names.add(c.name());
      if (!c.target().equals("visits") && placed(c) && c.system().isEmpty())
        throw JobProblem.refused(
            "Choose the coordinate system of “"
                + c.part().title()
                + "” first. Nothing was imported.");
      if (!fresh && c.key().isEmpty())
        throw JobProblem.refused(
            "Choose the column of “"
                + c.part().title()
                + "” that says which feature a row is. Nothing was imported.");
      if (c.target().equals("visits") && c.date().isEmpty())
        throw JobProblem.refused(
            "Choose the column of “"
                + c.part().title()
                + "” that has the day of each visit. Nothing was imported.");
    }
  }

  private static boolean placed(Choice c) {
    return c.part().kind() != GeometryKind.TABLE || c.places().isPresent();
  }

  /** Imports a part as a new layer. */
  Outcome asNewLayer(Choice c, UUID project, String person, Jobs.Job job) throws Exception {
    Found.Part p = c.part();
    boolean placed = placed(c);
    Map<String, Field> fields = new LinkedHashMap<>();
    for (Choice.ColumnChoice k : c.columns())
      if (!isPlaceColumn(c, k)) fields.put(k.column().source(), k.field());
    GeometryKind kind = p.kind() == GeometryKind.TABLE && placed ? kindOf(c) : p.kind();
    Schema schema = new Schema(kind, List.copyOf(fields.values()), tag(fields), captions(fields));
    Rows rows = new Rows(c, fields);
    List<PastVisits.PastVisit> pictures = new ArrayList<>();
    int[] count = {0};
    UUID layer =
        making.make(
            new LayerMaking.NewLayer(
                project,
                c.name(),
                schema,
                "import of " + p.source().name(),
                "",
                List.of(),
                c.system()
                    .map(s -> s.code().isEmpty() ? "EPSG:4326" : s.code())
                    .orElse("EPSG:4326"),
                ""),
            person,
            take ->
                rows.each(
                    job,
                    "Importing “" + c.name() + "”",
                    r -> {
                      UUID id = Ids.next();
                      take.accept(new Feature(id.toString(), r.geometry(), r.values(), 1));
                      count[0]++;
                      if (!r.raw().pictures().isEmpty())
                        pictures.add(
                            new PastVisits.PastVisit(
                                id, taken(r), person, Map.of(), r.raw().pictures()));
                    }));
    List<String> notes = new ArrayList<>(rows.notes());
    if (!pictures.isEmpty()) {
      job.now("Keeping the photos", -1);
      try {
        visits.keep(layer, "import of " + p.source().name(), person, pictures);
      } catch (RuntimeException e) {
        act(layer).ifPresent(a -> changes.takeBack(layer, a, person)); // whole, or not at all
        throw e;
      }
      notes.add(
          "The pictures are photos of "
              + pictures.size()
              + (pictures.size() == 1 ? " feature." : " features."));
    }
    return new Outcome(
        layer, c.name().strip(), count[0] + " features imported", act(layer), false, notes);
  }

  private Optional<UUID> act(UUID layer) {
    var history = layers.history(layers.byId(layer));
    return history.isEmpty() ? Optional.empty() : Optional.of(history.get(history.size() - 1).id());
  }

  private static Instant taken(Rows.Row r) {
    for (Value v : r.raw().properties().values()) if (v instanceof Value.Moment m) return m.value();
    return Layers.now();
  }

  private static boolean isPlaceColumn(Choice c, Choice.ColumnChoice k) {
    return c.places()
        .filter(p -> List.of(p.x(), p.y(), p.wkt()).contains(k.column().source()))
        .isPresent();
  }

  /** The kind of a table's WKT, by its first rows; points for coordinates. */
  private static GeometryKind kindOf(Choice c) {
    for (var f : c.part().sample())
      try {
        Optional<Geometry> g = c.places().get().place(f.properties());
        if (g.isPresent() && GeometryKind.of(g.get()).isPresent())
          return GeometryKind.of(g.get()).get();
      } catch (IllegalArgumentException e) {
        // told when the row is imported
      }
    return GeometryKind.POINT;
  }

  private static String tag(Map<String, Field> fields) {
    return fields.values().stream().map(Field::name).filter(TAGS::contains).findFirst().orElse("");
  }

  private static List<String> captions(Map<String, Field> fields) {
    List<String> out =
        CAPTIONS.stream()
            .filter(n -> fields.values().stream().anyMatch(f -> f.name().equals(n)))
            .limit(2)
            .toList();
    return !out.isEmpty() || fields.isEmpty()
        ? out
        : List.of(fields.values().iterator().next().name());
  }

  /** The fields of the layer that columns go into; columns that go nowhere are told. */
  private static Map<String, Field> targets(Choice c, Layer layer, List<String> leftOut) {
    Map<String, Field> out = new LinkedHashMap<>();
    for (Choice.ColumnChoice k : c.columns()) {
      Optional<Field> f = layer.schema().field(k.field().name());
      if (f.isPresent() && !isPlaceColumn(c, k)) out.put(k.column().source(), f.get());
      else if (!isPlaceColumn(c, k)) leftOut.add(k.column().source());
    }
    if (!out.containsKey(c.key()))
      throw JobProblem.refused(
          "Choose the column that tells which feature a row is, and the field of “"
              + layer.name()
              + "” that it goes into. Nothing was imported.");
    return out;
  }

  /** What to do with one row of an update: which feature it is, and what differs. */
  private interface Match {
    void of(Rows.Row row, int at, Map<String, Value> differs, Optional<Geometry> place)
        throws FileProblem;
  }

  private static final class Tally {
    int withoutKey;
    final List<String> repeated = new ArrayList<>();
    final java.util.BitSet seen = new java.util.BitSet();
    final List<String> leftOut = new ArrayList<>();
    List<String> notes = List.of();
  }

  private Tally match(
      Choice c, Layer layer, Jobs.Job job, String doing, LayerColumns columns, Match use)
      throws FileProblem, IOException {
    Tally t = new Tally();
    Map<String, Field> targets = targets(c, layer, t.leftOut);
    Field key = targets.get(c.key());
    Map<String, Integer> rowOf = new LinkedHashMap<>();
    var column = columns.column(key.name()).orElseThrow();
    for (int row = 0; row < columns.rows(); row++)
      if (columns.has(row) && !column.value(row).isEmpty())
        rowOf.putIfAbsent(column.value(row).plain().strip(), row);
    Map<String, Integer> inFile = new LinkedHashMap<>();
    Rows rows = new Rows(c, targets);
    rows.each(
        job,
        doing,
        r -> {
          String k = r.values().getOrDefault(key.name(), Value.EMPTY).plain().strip();
          if (k.isEmpty()) {
            t.withoutKey++;
            return;
          }
          Integer before = inFile.putIfAbsent(k, r.raw().number());
          if (before != null) {
            if (t.repeated.size() < 20)
              t.repeated.add(
                  "“"
                      + k
                      + "” in rows "
                      + before
                      + " and "
                      + r.raw().number()
                      + "; the first counts");
            return;
          }
          int row = rowOf.getOrDefault(k, -1);
          if (row >= 0) t.seen.set(row);
          use.of(
              r,
              row,
              row < 0 ? r.values() : differs(c, targets, columns, row, r),
              row < 0 ? r.geometry() : moved(c, columns, row, r));
        });
    t.notes = rows.notes();
    return t;
  }

  private static Map<String, Value> differs(
      Choice c, Map<String, Field> targets, LayerColumns columns, int row, Rows.Row r) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (Field f : targets.values()) {
      Value now = columns.column(f.name()).orElseThrow().value(row);
      Value v = r.values().getOrDefault(f.name(), Value.EMPTY);
      if (v.isEmpty() && !c.emptyEmpties()) continue;
      if (!org.whinridge.core.merge.Merge.same(now, v, 8)) out.put(f.name(), v);
    }
    return out;
  }

  private static Optional<Geometry> moved(Choice c, LayerColumns columns, int row, Rows.Row r) {
    if (!c.place() || r.geometry().isEmpty()) return Optional.empty();
    Optional<Geometry> now = columns.geometry(row);
    return now.isPresent() && now.get().equalsExact(r.geometry().get(), 1e-8)
        ? Optional.empty()
        : r.geometry();
  }

  /** Counts what an update would do; changes nothing. */
  Plan plan(Choice c, Layer layer, Jobs.Job job) throws FileProblem, IOException {
    return reading(
        layer,
        columns -> {
          int[] n = new int[3];
          List<Sample> samples = new ArrayList<>();
          Tally t =
              match(
                  c,
                  layer,
                  job,
                  "Comparing with “" + layer.name() + "”",
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
            if (columns.has(row) && !t.seen.get(row)) {
              gone++;
              if (missing.size() < MOST_SAMPLES)
                missing.add(layer.schema().caption(columns.feature(row).values()));
            }
          return new Plan(
              c.part().index(),
              layer.id(),
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
              c.removeMissing());
        });
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
                    f.label(),
                    f.shown(columns.column(name).orElseThrow().value(row)),
                    f.shown(v)));
        });
    if (place.isPresent() && samples.size() < MOST_SAMPLES)
      samples.add(new Sample(caption, "Place", "", "moved"));
  }

  private interface Reading<T> {
    T of(LayerColumns c) throws FileProblem, IOException;
  }

  /** Reads in a model and lets a file's problem through. */
  private <T> T reading(Layer layer, Reading<T> use) throws FileProblem, IOException {
    try {
      return models.read(
          layer,
          c -> {
            try {
              return use.of(c);
            } catch (FileProblem | IOException e) {
              throw new Carried(e);
            }
          });
    } catch (Carried e) {
      if (e.getCause() instanceof FileProblem p) throw p;
      throw (IOException) e.getCause();
    }
  }

  private static final class Carried extends RuntimeException {
    private static final long serialVersionUID = 1;

    Carried(Exception e) {
      super(e);
    }
  }

  /** Writes an update: changed features, new ones, and, if so decided, takes missing ones away. */
  Outcome update(Choice c, Layer layer, String person, Jobs.Job job) throws Exception {
    List<String> notes = new ArrayList<>();
    Instant now = Layers.now();
    LayerChanges.Done done =
        changes.write(
            layer.id(),
            "import",
            "update from " + c.part().source().name(),
            person,
            batch ->
                reading(
                    layer,
                    columns -> {
                      Tally t =
                          match(
                              c,
                              layer,
                              job,
                              "Updating “" + layer.name() + "”",
                              columns,
                              (r, row, differs, place) -> {
                                if (row < 0)
                                  batch.add(
                                      NewFeature.begun(
                                          new Feature(Ids.next().toString(), place, r.values(), 1),
                                          layer.schema(),
                                          LocalDate.ofInstant(now, ZoneOffset.UTC),
                                          now));
                                else if (!differs.isEmpty() || place.isPresent())
                                  batch.set(UUID.fromString(columns.id(row)), differs, place);
                              });
                      if (c.removeMissing())
                        for (int row = 0; row < columns.rows(); row++)
                          if (columns.has(row) && !t.seen.get(row))
                            batch.remove(UUID.fromString(columns.id(row)));
                      notes.addAll(t.notes);
                      return null;
                    }));
    String said =
        done.changed()
            + " features changed, "
            + done.added()
            + " added"
            + (done.removed() > 0 ? ", " + done.removed() + " removed" : "");
    return new Outcome(layer.id(), layer.name(), said, Optional.of(done.group()), false, notes);
  }

  /** Keeps rows as past visits of a layer's features. */
  Outcome asVisits(Choice c, Layer layer, String person, Jobs.Job job)
      throws FileProblem, IOException {
    Choice.ColumnChoice date =
        c.columns().stream()
            .filter(k -> k.column().source().equals(c.date()))
            .findFirst()
            .orElseThrow(
                () ->
                    JobProblem.refused(
                        "The column “"
                            + c.date()
                            + "” is not taken; it has the day of each visit. Nothing was imported."));
    List<PastVisits.PastVisit> out = new ArrayList<>();
    int[] skipped = new int[2];
    List<String> notes = new ArrayList<>();
    reading(
        layer,
        columns -> {
          List<String> leftOut = new ArrayList<>();
          Map<String, Field> targets = targets(c, layer, leftOut);
          Field key = targets.get(c.key());
          // columns without a field of the layer are answers that are kept on the visit only
          for (Choice.ColumnChoice k : c.columns())
            if (!targets.containsKey(k.column().source()) && !k.column().source().equals(c.date()))
              targets.put(k.column().source(), k.column().field());
          targets.remove(c.date());
          Map<String, Integer> rowOf = new LinkedHashMap<>();
          var column = columns.column(key.name()).orElseThrow();
          for (int row = 0; row < columns.rows(); row++)
            if (columns.has(row)) rowOf.putIfAbsent(column.value(row).plain().strip(), row);
          Rows rows = new Rows(c, targets);
          rows.each(
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
                Integer row =
                    rowOf.get(answers.getOrDefault(key.name(), Value.EMPTY).plain().strip());
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
          notes.addAll(rows.notes());
          return null;
        });
    if (out.isEmpty())
      throw JobProblem.refused(
          "No row has both a feature of “" + layer.name() + "” and a day. Nothing was imported.");
    UUID handIn = visits.keep(layer.id(), "import of " + c.part().source().name(), person, out);
    if (skipped[0] > 0)
      notes.add(
          skipped[0] + " rows have no feature with their key on the layer; they were left out.");
    if (skipped[1] > 0)
      notes.add(skipped[1] + " rows have no day that can be read; they were left out.");
    return new Outcome(
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
