package org.whinridge.formats.source;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.CoordinateSequenceFilter;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Heights (Z) and measures (M) of shapes, which layers keep as x and y: offered as fields. A point
 * has one of each; of lines and polygons the least and the greatest.
 */
public final class ZAndM {
  private static final String Z = "geometry z";
  private static final String M = "geometry m";
  private static final String LEAST = " least";
  private static final String GREATEST = " greatest";

  /** The columns in which they are offered; no file calls its own so. */
  public static final Set<String> COLUMNS =
      new LinkedHashSet<>(List.of(Z, Z + LEAST, Z + GREATEST, M, M + LEAST, M + GREATEST));

  /** What is told of a layer that has them. */
  public static final Said NOTE = Said.of("file.heights");

  private ZAndM() {}

  /** Adds the columns of a geometry to the values of its feature, those it has. */
  public static void put(Geometry g, Map<String, Value> values) {
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
    z.put(Z, values);
    m.put(M, values);
  }

  /** Adds the columns of heights and measures that are given one by one. */
  public static void put(double[] heights, double[] measures, Map<String, Value> values) {
    Range z = new Range();
    for (double d : heights) z.see(d);
    Range m = new Range();
    for (double d : measures) m.see(d);
    z.put(Z, values);
    m.put(M, values);
  }

  /**
   * Adds the columns of GeoJSON coordinates, whose third number is the height (RFC 7946, 3.1.1).
   */
  public static void put(JsonValue geometry, Map<String, Value> values) {
    Range z = new Range();
    third(geometry, z);
    z.put(Z, values);
  }

  private static void third(JsonValue v, Range z) {
    if (v.isObject()) {
      JsonValue c = v.asObject().get("coordinates");
      if (c != null) third(c, z);
      JsonValue parts = v.asObject().get("geometries");
      if (parts != null) third(parts, z);
    } else if (v.isArray()) {
      JsonArray a = v.asArray();
      if (a.size() > 2 && a.get(0).isNumber() && a.get(2).isNumber()) z.see(a.get(2).asDouble());
      else if (!a.isEmpty() && !a.get(0).isNumber()) for (JsonValue x : a) third(x, z);
    }
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
        values.putIfAbsent(name + LEAST, Value.of(least));
        values.putIfAbsent(name + GREATEST, Value.of(greatest));
      }
    }
  }
}
