package org.whinridge.core.rules;

import java.util.Map;
import java.util.TreeMap;
import java.util.function.Supplier;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.GeometryFixer;
import org.locationtech.jts.operation.relateng.RelateNG;
import org.locationtech.jts.operation.relateng.RelatePredicate;
import org.locationtech.jts.operation.relateng.TopologyPredicate;
import org.whinridge.core.value.Value;

/**
 * The spatial operators of OGC 21-065 (clause 7.4, after OGC 06-103r4) between geometries of every
 * kind, collections too, whose parts count as one.
 */
final class Spatial {
  private static final Map<String, Supplier<TopologyPredicate>> ALL = new TreeMap<>();

  static {
    ALL.put("S_INTERSECTS", RelatePredicate::intersects);
    ALL.put("S_EQUALS", RelatePredicate::equalsTopo);
    ALL.put("S_DISJOINT", RelatePredicate::disjoint);
    ALL.put("S_TOUCHES", RelatePredicate::touches);
    ALL.put("S_WITHIN", RelatePredicate::within);
    ALL.put("S_OVERLAPS", RelatePredicate::overlaps);
    ALL.put("S_CROSSES", RelatePredicate::crosses);
    ALL.put("S_CONTAINS", RelatePredicate::contains);
  }

  private Spatial() {}

  static Iterable<String> names() {
    return ALL.keySet();
  }

  /**
   * The relation of two geometries; unknown when one is empty, or when even its mended shape can't
   * be judged. An area that crosses itself has no sound inside: it is taken as the parts that it
   * encloses.
   */
  static Value relate(String name, Geometry a, Geometry b) {
    if (a.isEmpty() || b.isEmpty()) return Value.EMPTY;
    try {
      return Value.of(RelateNG.relate(a, b, ALL.get(name).get()));
    } catch (RuntimeException crossing) {
      try {
        return Value.of(
            RelateNG.relate(GeometryFixer.fix(a), GeometryFixer.fix(b), ALL.get(name).get()));
      } catch (RuntimeException hopeless) {
        return Value.EMPTY; // the library names no kind of exception for shapes beyond repair
      }
    }
  }
}
