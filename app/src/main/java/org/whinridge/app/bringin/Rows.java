package org.whinridge.app.bringin;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldCheck;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.DateLine;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Repair;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Shapes;

/** Reads a part of a lot as it was decided: fields typed, places in WGS 84. */
final class Rows {
  private final Choice choice;
  private final Map<String, Field> into = new LinkedHashMap<>();
  private final Optional<CoordinateSystem> system;
  private final Map<String, Integer> misfits = new LinkedHashMap<>();
  private final Map<String, Said> firstMisfit = new LinkedHashMap<>();
  private int unplaced;
  private Said firstUnplaced = Said.NONE;
  private int repaired;
  private int leftBroken;
  private int wrapped;

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

  void each(Jobs.Job job, Said doing, Use use) throws FileProblem, IOException {
    Found.Part p = choice.part();
    job.now(doing, p.survey().count());
    Inventory.each(
        p.source(),
        p.layer(),
        job,
        raw -> {
          if (p.isWithoutPlace() && !Shapes.usable(raw.geometry()).isEmpty()) return;
          Optional<Geometry> g = place(raw);
          if (p.isOneOfSeveral() && !p.isWithoutPlace() && !hasKind(raw)) return;
          use.of(new Row(raw, g, values(raw)));
        });
  }

  /** Whether a feature of a layer with several kinds belongs to this part. */
  private boolean hasKind(RawFeature raw) {
    return Shapes.usable(raw.geometry()).containsKey(choice.part().kind());
  }

  private Optional<Geometry> place(RawFeature raw) throws FileProblem {
    Optional<Geometry> own = raw.geometry();
    if (choice.part().isWithoutPlace()) return Optional.empty();
    try {
      if (choice.part().layer().table())
        own =
            choice.places().isPresent()
                ? choice.places().get().place(raw.properties())
                : Optional.empty();
      if (own.isEmpty()) return own;
      CoordinateSystem s =
          system.orElseThrow(() -> new FileProblem("refused.coordinateSystemNotKnown"));
      if (s.isInDegrees() && DateLine.isBeyond(own.get())) {
        own = own.map(DateLine::wrapped);
        wrapped++;
      }
      Geometry g = s.toWgs84(own.get());
      if (choice.part().kind() != GeometryKind.TABLE)
        g = Shapes.byKind(g).getOrDefault(choice.part().kind(), null);
      if (g instanceof Polygonal && !g.isValid()) g = repaired(g);
      return Optional.ofNullable(g).filter(x -> !x.isEmpty());
    } catch (IllegalArgumentException e) {
      unplaced++;
      if (firstUnplaced.isEmpty())
        firstUnplaced = Said.of("told.ofRow", "row", raw.number(), "why", Refusal.said(e));
      return Optional.empty();
    }
  }

  private Geometry repaired(Geometry g) {
    if (choice.repair().isEmpty()) {
      leftBroken++;
      return g;
    }
    try {
      Repair.Result r = choice.repair().get().of(g);
      Geometry fixed = Shapes.byKind(r.after()).get(GeometryKind.POLYGON);
      if (fixed != null && !fixed.isEmpty() && (r.isLittle() || choice.repairAll())) {
        repaired++;
        return fixed;
      }
    } catch (IllegalArgumentException e) {
      // it stays as it came, and is counted with those
    }
    leftBroken++;
    return g;
  }

  private Map<String, Value> values(RawFeature raw) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (Choice.ColumnChoice c : choice.columns()) {
      Field f = into.get(c.column().source());
      Value v = c.spelt(raw.properties().getOrDefault(c.column().source(), Value.EMPTY));
      if (f == null || v.isEmpty()) continue;
      Value fitted = choice.reading(c.column()).read(v, f.type());
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
                firstMisfit.putIfAbsent(
                    f.label(), Said.of("told.ofRow", "row", raw.number(), "why", fault.message()));
              });
    return out;
  }

  /** What is worth telling after all rows were read. */
  List<Said> notes() {
    List<Said> out = new ArrayList<>();
    misfits.forEach(
        (label, n) ->
            out.add(
                Said.of("told.misfits", "label", label, "n", n, "first", firstMisfit.get(label))));
    if (unplaced > 0) out.add(Said.of("told.unplaced", "n", unplaced, "first", firstUnplaced));
    if (wrapped > 0) out.add(Said.of("told.wrapped", "n", wrapped));
    if (leftBroken > 0) out.add(Said.of("told.leftBroken", "n", leftBroken));
    if (repaired > 0) out.add(Said.of("told.repaired", "n", repaired));
    return out;
  }
}
