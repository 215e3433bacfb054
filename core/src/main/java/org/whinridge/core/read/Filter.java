package org.whinridge.core.read;

import java.util.BitSet;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.value.Value;

/**
 * A filter of the rules language over a {@link LayerColumns}. Unknown leaves a feature out.
 *
 * <p>Comparisons of one column with a literal run over the column's array in blocks; a condition on
 * one dictionary column is evaluated once for each distinct value; everything else is evaluated row
 * by row by the language's own evaluator, so that all three give the same answer.
 */
public final class Filter {
  private static final int BLOCK = 1024;

  private Filter() {}

  /** The rows whose feature the rule holds for. */
  public static BitSet rows(Rule rule, LayerColumns layer, Clock clock) {
    BitSet out = new BitSet(layer.rows());
    Tests tests = new ColumnTests(layer, rule, clock).of(rule.tree());
    BitSet candidates = byPlace(rule.tree(), layer);
    byte[] marks = new byte[BLOCK];
    for (int from = 0; from < layer.rows(); from += BLOCK) {
      int n = Math.min(BLOCK, layer.rows() - from);
      if (candidates != null) {
        int next = candidates.nextSetBit(from);
        if (next < 0) break;
        if (next >= from + n) continue;
      }
      tests.yes().mark(from, n, marks);
      for (int i = 0; i < n; i++) if (marks[i] != 0 && layer.has(from + i)) out.set(from + i);
    }
    return out;
  }

  /** How many features the rule holds for. */
  public static int count(Rule rule, LayerColumns layer, Clock clock) {
    return rows(rule, layer, clock).cardinality();
  }

  /**
   * Rows that can hold by their envelope, when the rule says that the place meets or lies within a
   * geometry written out (alone or joined by AND); null when it does not.
   */
  private static BitSet byPlace(Node n, LayerColumns layer) {
    if (n instanceof Node.Logic l && l.and()) {
      BitSet left = byPlace(l.left(), layer);
      return left != null ? left : byPlace(l.right(), layer);
    }
    if (!(n instanceof Node.Call c)
        || c.arguments().size() != 2
        || !(c.function().equals("S_INTERSECTS") || c.function().equals("S_WITHIN"))
        || !(c.arguments().get(0) instanceof Node.Name name)
        || !name.name().equals(LayerScope.PLACE)
        || !(c.arguments().get(1) instanceof Node.Literal literal)
        || !(literal.value() instanceof Value.Place p)) return null;
    Geometry g = p.geometry();
    BitSet out = new BitSet(layer.rows());
    for (int row : layer.near(g.getEnvelopeInternal())) out.set(row);
    return out;
  }
}
