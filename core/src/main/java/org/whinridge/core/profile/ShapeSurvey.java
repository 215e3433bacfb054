package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.operation.valid.IsValidOp;
import org.whinridge.core.place.DateLine;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Repair;
import org.whinridge.core.place.Reshaping;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/** What the geometries of a layer of a file are like: kinds, extent, range, soundness. */
final class ShapeSurvey {
  /**
   * The share of positions that must be degrees for the layer to be. Common practice, no source.
   */
  static final double NEARLY_ALL = 0.9;

  private final Consumer<Said> tell;
  private final Map<GeometryKind, Integer> kinds = new EnumMap<>(GeometryKind.class);
  private final Envelope extent = new Envelope();
  private final Envelope inDegrees = new Envelope();
  private final Map<Repair, Integer> changing = new EnumMap<>(Repair.class);
  private int placed;
  private int withoutPlace;
  private int severalKinds;
  private int selfCrossing;
  private int degrees;
  private int beyond;

  /** {@code tell} is told of what is wrong, in words. */
  ShapeSurvey(Consumer<Said> tell) {
    this.tell = tell;
  }

  /** Looks at a feature's geometry, by the kinds that it has. */
  void see(int number, Map<GeometryKind, Geometry> geometry) {
    int usable = 0;
    for (Map.Entry<GeometryKind, Geometry> e : geometry.entrySet())
      if (sound(number, e.getValue())) {
        usable++;
        kinds.merge(e.getKey(), 1, Integer::sum);
        range(e.getValue().getEnvelopeInternal());
        if (e.getValue() instanceof Polygonal) polygon(number, e.getValue());
      }
    if (usable == 0) withoutPlace++;
    else placed++;
    if (usable > 1) severalKinds++;
  }

  private boolean sound(int number, Geometry g) {
    Envelope e = g.getEnvelopeInternal();
    if (!e.isNull() && Double.isFinite(e.getWidth()) && Double.isFinite(e.getHeight()))
      if (!hasNoNumber(g)) return true;
    tell.accept(Said.of("finding.noNumber", "row", number));
    return false;
  }

  private static boolean hasNoNumber(Geometry g) {
    if (g.getNumPoints() > 2_000) return false; // its box is one of numbers, and that must do
    for (Coordinate c : g.getCoordinates())
      if (!Double.isFinite(c.x) || !Double.isFinite(c.y)) return true;
    return false;
  }

  private void range(Envelope e) {
    extent.expandToInclude(e);
    boolean wide = e.getMinX() >= -360 && e.getMaxX() <= 360.001;
    if (!wide || e.getMinY() < -90.001 || e.getMaxY() > 90.001) return;
    degrees++;
    inDegrees.expandToInclude(e);
    if (DateLine.isBeyond(e.getMinX()) || DateLine.isBeyond(e.getMaxX())) beyond++;
  }

  private void polygon(int number, Geometry g) {
    IsValidOp valid = new IsValidOp(g);
    if (valid.isValid()) return;
    selfCrossing++;
    Coordinate at = valid.getValidationError().getCoordinate();
    List<Said> found = new ArrayList<>();
    found.add(
        Said.of(
            "finding.crosses",
            "row",
            number,
            "x",
            at == null ? Said.NONE : shown(at.x),
            "y",
            at == null ? Said.NONE : shown(at.y),
            "why",
            Reshaping.unsound(valid.getValidationError())));
    for (Repair way : Repair.values()) {
      Optional<Repair.Result> r = repaired(way, g);
      if (r.filter(Repair.Result::isLittle).isPresent()) continue;
      changing.merge(way, 1, Integer::sum);
      found.add(
          r.isEmpty()
              ? Said.of("finding.noRepair", "way", way.id())
              : Said.of("finding.repairChanges", "way", way.id(), "share", share(r.get())));
    }
    tell.accept(Said.of("finding.sentence", "a", Said.row(found, "list.also", "list.also")));
  }

  /** How much of its area changes; at least a tenth of a per cent. */
  private static double share(Repair.Result r) {
    return Math.max(0.001, Numbers.round(r.changed(), 3));
  }

  private static Optional<Repair.Result> repaired(Repair way, Geometry g) {
    try {
      return Optional.of(way.of(g));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // told with the row
    }
  }

  private static Said shown(double d) {
    return Said.number(Numbers.round(d, 6));
  }

  int withoutPlace() {
    return withoutPlace;
  }

  int severalKinds() {
    return severalKinds;
  }

  int selfCrossing() {
    return selfCrossing;
  }

  /** Polygons whose area a way of repair would change by more than a little. */
  int changing(Repair way) {
    return changing.getOrDefault(way, 0);
  }

  int beyond() {
    return beyond;
  }

  Map<GeometryKind, Integer> kinds() {
    return new EnumMap<>(kinds.isEmpty() ? new EnumMap<>(GeometryKind.class) : kinds);
  }

  Envelope extent() {
    return new Envelope(extent);
  }

  /** The box of what lies in degrees, when nearly all of it does; else that of everything. */
  Envelope usualExtent() {
    return new Envelope(mayBeDegrees() ? inDegrees : extent);
  }

  boolean mayBeDegrees() {
    return degrees >= NEARLY_ALL * placed;
  }
}
