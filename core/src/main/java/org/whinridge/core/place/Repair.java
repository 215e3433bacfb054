package org.whinridge.core.place;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.operation.polygonize.Polygonizer;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/**
 * Makes polygons sound that cross or touch themselves. What such a polygon covers is a matter of
 * how it is read, so that there are two ways, and each tells how much it changes the area.
 */
public enum Repair {
  /**
   * Shells stay land and holes stay holes, whatever they cross; parts that lie twice are one. Right
   * where a ring touches or crosses itself a little.
   */
  STRUCTURE("structure") {
    @Override
    Geometry made(Geometry g) {
      return GeometryFixer.fix(g);
    }
  },
  /**
   * Only the lines count: what lies within an odd number of rings is inside. Right where shells and
   * holes are mixed up, as when a shell stands again as its own hole.
   */
  LINEWORK("linework") {
    @Override
    Geometry made(Geometry g) {
      return oddlySurrounded(g);
    }
  };

  /**
   * The share of an area that a repair may change and still be proposed. Common practice, no
   * source.
   */
  public static final double LITTLE = 0.01;

  private final String id;

  Repair(String id) {
    this.id = id;
  }

  /** The name in forms and addresses. */
  public String id() {
    return id;
  }

  /** What it does, for people. */
  public Said said() {
    return Said.of("repair." + id);
  }

  /** The way with a name; structure for any other. */
  public static Repair of(String id) {
    return LINEWORK.id.equals(id) ? LINEWORK : STRUCTURE;
  }

  abstract Geometry made(Geometry g);

  /**
   * What came of a repair.
   *
   * @param after the sound geometry; empty when nothing of it encloses an area
   * @param before the area that the rings state, shells less holes, in the square of the
   *     coordinates' unit
   * @param area the area after
   */
  public record Result(Geometry after, double before, double area) {
    /** How much of the area changed, 0 to 1: of the larger of both. */
    public double changed() {
      double most = Math.max(before, area);
      return most == 0 ? 0 : Math.abs(area - before) / most;
    }

    /** Whether so little changed that it may be done without being asked. */
    public boolean isLittle() {
      return !after.isEmpty() && changed() <= LITTLE;
    }
  }

  /**
   * The geometry made sound; one that is sound comes back as it is, like lines and points.
   *
   * @throws IllegalArgumentException with a sentence part for people when its lines can't be sorted
   *     out
   */
  public Result of(Geometry g) {
    if (!(g instanceof Polygonal) || g.isValid()) return new Result(g, g.getArea(), g.getArea());
    double before = stated(g);
    try {
      Geometry after = made(g);
      return new Result(after, before, after.getArea());
    } catch (RuntimeException e) {
      throw new Unfit("geometry.repair").because(e);
    }
  }

  /**
   * Shells less holes, each by its own corners, which a ring in the form of an 8 makes small. A
   * hole over all of its shell does not count: nobody means a part that is not there.
   */
  private static double stated(Geometry g) {
    double sum = 0;
    for (int i = 0; i < g.getNumGeometries(); i++) {
      Polygon p = (Polygon) g.getGeometryN(i);
      if (p.isEmpty()) continue;
      double shell = ringArea(p.getExteriorRing());
      sum += shell;
      for (int k = 0; k < p.getNumInteriorRing(); k++) {
        double hole = ringArea(p.getInteriorRingN(k));
        if (hole < (1 - LITTLE) * shell) sum -= hole;
      }
    }
    return Math.max(0, sum);
  }

  private static double ringArea(LinearRing r) {
    return org.locationtech.jts.algorithm.Area.ofRing(r.getCoordinateSequence());
  }

  private static List<LinearRing> rings(Geometry g, boolean shells) {
    List<LinearRing> out = new ArrayList<>();
    for (int i = 0; i < g.getNumGeometries(); i++) {
      Polygon p = (Polygon) g.getGeometryN(i);
      if (p.isEmpty()) continue;
      if (shells) out.add(p.getExteriorRing());
      else for (int k = 0; k < p.getNumInteriorRing(); k++) out.add(p.getInteriorRingN(k));
    }
    return out;
  }

  private static Geometry oddlySurrounded(Geometry g) {
    List<LinearRing> rings = new ArrayList<>(rings(g, true));
    rings.addAll(rings(g, false));
    List<Geometry> lines = new ArrayList<>();
    List<IndexedPointInAreaLocator> areas = new ArrayList<>();
    for (LinearRing r : rings) {
      lines.add(g.getFactory().createLineString(r.getCoordinateSequence()));
      areas.add(new IndexedPointInAreaLocator(r));
    }
    Polygonizer faces = new Polygonizer();
    faces.add(UnaryUnionOp.union(lines));
    List<Geometry> inside = new ArrayList<>();
    for (Object o : faces.getPolygons()) {
      Polygon face = (Polygon) o;
      int around = 0;
      for (IndexedPointInAreaLocator a : areas)
        if (a.locate(face.getInteriorPoint().getCoordinate()) == Location.INTERIOR) around++;
      if (around % 2 == 1) inside.add(face);
    }
    Geometry out = UnaryUnionOp.union(inside);
    return out == null ? g.getFactory().createPolygon() : out;
  }
}
