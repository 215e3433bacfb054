package org.whinridge.formats;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.CoordinateSequenceFilter;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.value.Value;

/**
 * Heights (Z) and measures (M) of shapes, which layers keep as x and y: offered as fields. A point
 * has one of each; of lines and polygons the least and the greatest.
 */
final class ZAndM {
  /** The columns in which they are offered. */
  static final Set<String> COLUMNS =
      new LinkedHashSet<>(List.of("z", "z_least", "z_greatest", "m", "m_least", "m_greatest"));

  private ZAndM() {}

  /** Adds the columns of a geometry to the values of its feature, those it has. */
  static void put(Geometry g, Map<String, Value> values) {
    if (g.isEmpty()) return;
    Range z = new Range();
    Range m = new Range();
    g.apply(
        new CoordinateSequenceFilter() {
          @Override
          public void filter(CoordinateSequence s, int i) {
            if (s.hasZ()) z.see(s.getZ(i));
            if (s.hasM()) m.see(s.getM(i));
          }

          @Override
          public boolean isDone() {
            return false;
          }

          @Override
          public boolean isGeometryChanged() {
            return false;
          }
        });
    z.put("z", values);
    m.put("m", values);
  }

  private static final class Range {
    private double least = Double.POSITIVE_INFINITY;
    private double greatest = Double.NEGATIVE_INFINITY;
    private int n;

    void see(double d) {
      if (!Double.isFinite(d) || d < -1e38) return; // no data, as Shapefiles say it
      n++;
      least = Math.min(least, d);
      greatest = Math.max(greatest, d);
    }

    void put(String name, Map<String, Value> values) {
      if (n == 0) return;
      if (n == 1) values.putIfAbsent(name, Value.of(least));
      else {
        values.putIfAbsent(name + "_least", Value.of(least));
        values.putIfAbsent(name + "_greatest", Value.of(greatest));
      }
    }
  }
}
