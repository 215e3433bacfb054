package org.whinridge.app.bringin;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.whinridge.app.shell.Jobs;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldCheck;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.value.Value;
import org.whinridge.formats.FileProblem;
import org.whinridge.formats.RawFeature;
import org.whinridge.formats.Shapes;

/** Reads a part of a lot as it was decided: fields typed, places in WGS 84. */
final class Rows {
  private final Choice choice;
  private final Map<String, Field> into = new LinkedHashMap<>();
  private final Optional<CoordinateSystem> system;
  private final Map<String, Integer> misfits = new LinkedHashMap<>();
  private final Map<String, String> firstMisfit = new LinkedHashMap<>();
  private int unplaced;
  private String firstUnplaced = "";
  private int repaired;

  /** One row. */
  record Row(RawFeature raw, Optional<Geometry> geometry, Map<String, Value> values) {}

  /** Takes rows. */
  interface Use {
    void of(Row row) throws FileProblem;
  }

  /** {@code targets}: the fields that columns go into, by the column's own name. */
  Rows(Choice choice, Map<String, Field> targets) {
    this.choice = choice;
    this.into.putAll(targets);
    this.system = choice.system();
  }

  void each(Jobs.Job job, String doing, Use use) throws FileProblem, IOException {
    Found.Part p = choice.part();
    job.now(doing, p.survey().count());
    p.source()
        .each(
            p.layer(),
            raw -> {
              job.step();
              Optional<Geometry> g = place(raw);
              if (p.isOneOfSeveral() && g.isEmpty()) return;
              use.of(new Row(raw, g, values(raw)));
            });
  }

  private Optional<Geometry> place(RawFeature raw) throws FileProblem {
    Optional<Geometry> own = raw.geometry();
    try {
      if (choice.part().layer().table())
        own =
            choice.places().isPresent()
                ? choice.places().get().place(raw.properties())
                : Optional.empty();
      if (own.isEmpty()) return own;
      Geometry g =
          system
              .orElseThrow(
                  () -> new FileProblem("The coordinate system is not known; choose it first."))
              .toWgs84(own.get());
      if (choice.part().kind() != GeometryKind.TABLE)
        g = Shapes.byKind(g).getOrDefault(choice.part().kind(), null);
      if (g != null && choice.repair() && g instanceof Polygonal && !g.isValid()) {
        Geometry fixed =
            Shapes.byKind(GeometryFixer.fix(g)).getOrDefault(GeometryKind.POLYGON, null);
        repaired++;
        g = fixed == null || fixed.isEmpty() ? g : fixed;
      }
      return Optional.ofNullable(g).filter(x -> !x.isEmpty());
    } catch (IllegalArgumentException e) {
      unplaced++;
      if (firstUnplaced.isEmpty()) firstUnplaced = "row " + raw.number() + ": " + e.getMessage();
      return Optional.empty();
    }
  }

  private Map<String, Value> values(RawFeature raw) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (Choice.ColumnChoice c : choice.columns()) {
      Field f = into.get(c.column().source());
      Value v = raw.properties().getOrDefault(c.column().source(), Value.EMPTY);
      if (f == null || v.isEmpty()) continue;
      Value fitted = c.column().guess().reading().read(v, f.type());
      if (fitted.isEmpty()) continue;
      out.put(f.name(), fitted);
    }
    for (Field f : into.values())
      FieldCheck.of(f, out.getOrDefault(f.name(), Value.EMPTY), Value.EMPTY)
          // an empty cell of an update leaves what stands there, unless it is to empty it
          .filter(x -> x.kind() != FieldCheck.Kind.NEEDED || choice.emptyEmpties())
          .ifPresent(
              fault -> {
                misfits.merge(f.label(), 1, Integer::sum);
                firstMisfit.putIfAbsent(f.label(), "row " + raw.number() + ": " + fault.message());
              });
    return out;
  }

  /** What is worth telling after all rows were read. */
  List<String> notes() {
    List<String> out = new ArrayList<>();
    misfits.forEach(
        (label, n) ->
            out.add(
                label
                    + ": "
                    + n
                    + (n == 1 ? " value does" : " values do")
                    + " not fit the field and"
                    + (n == 1 ? " is" : " are")
                    + " kept as they came; "
                    + firstMisfit.get(label)
                    + "."));
    if (unplaced > 0)
      out.add(
          unplaced
              + (unplaced == 1 ? " feature has" : " features have")
              + " no place, since what the file gives can't be used; "
              + firstUnplaced
              + ".");
    if (repaired > 0)
      out.add(
          repaired
              + (repaired == 1 ? " self-crossing polygon was" : " self-crossing polygons were")
              + " repaired.");
    return out;
  }
}
