package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.Column;
import org.whinridge.core.read.DictionaryColumn;
import org.whinridge.core.read.Filter;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.NumberColumn;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * The legend entries of all rows of a read model, found by columns: the same as {@link
 * ReadyLook#draw} gives one by one.
 */
public final class LookRows {
  private final ReadyLook ready;
  private final LayerColumns layer;
  private final short[] top;
  private final List<BitSet> all = new ArrayList<>();

  /** Sorts all rows. */
  public LookRows(ReadyLook ready, LayerColumns layer, Clock clock) {
    this.ready = ready;
    this.layer = layer;
    this.top = new short[layer.rows()];
    Look look = ready.look();
    if (look.by() == Look.By.ONE) return;
    java.util.Arrays.fill(top, (short) ready.other());
    Optional<Column> column = layer.column(look.field());
    if (look.by() == Look.By.RULE) byRule(clock);
    else if (column.isPresent()) {
      if (column.get() instanceof DictionaryColumn d) byDictionary(d);
      else byNumber((NumberColumn) column.get());
    }
  }

  private void byRule(Clock clock) {
    List<Optional<Rule>> rules = ready.rules();
    for (int i = 0; i < rules.size(); i++) {
      BitSet rows =
          rules.get(i).isPresent() ? Filter.rows(rules.get(i).get(), layer, clock) : new BitSet();
      all.add(rows);
      boolean last = ready.look().all();
      for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1))
        if (last || top[r] == ready.other()) top[r] = (short) i;
    }
    if (!ready.look().all()) all.clear();
  }

  private void byDictionary(DictionaryColumn d) {
    short[] of = new short[d.distinct()];
    for (int i = 0; i < of.length; i++) of[i] = (short) entry(d.distinct(i));
    for (int r = 0; r < top.length; r++) top[r] = of[d.number(r)];
  }

  private int entry(Value v) {
    return ready.look().by() == Look.By.CODE ? ready.byCode(v) : ready.byClass(v);
  }

  private void byNumber(NumberColumn c) {
    boolean classes = ready.look().by() == Look.By.CLASS;
    for (int r = 0; r < top.length; r++) {
      double d = c.number(r);
      if (!Double.isNaN(d)) top[r] = (short) (classes ? numberEntry(c, d) : ready.byCode(c.of(d)));
      else if (!classes) top[r] = (short) ready.byCode(c.value(r));
    }
  }

  private int numberEntry(NumberColumn c, double d) {
    return c.of(d) instanceof Value.Num ? ready.byClass(d) : ready.other();
  }

  /** The place of the entry for what fits nowhere. */
  public int other() {
    return ready.other();
  }

  /** The topmost entry of a row. */
  public int top(int row) {
    return top[row];
  }

  /** Whether a row's topmost entry is all there is to say of it: no turn, no size, no label. */
  public boolean saysAll() {
    return all.isEmpty() && ready.turns().isEmpty() && ready.sizes().isEmpty() && !ready.hasLabel();
  }

  /** How a row's feature is drawn. */
  public Drawn draw(int row, boolean withLabel) {
    double[] turns = new double[ready.turns().size()];
    for (int i = 0; i < turns.length; i++)
      turns[i] = Bearing.of(value(ready.turns().get(i), row)).orElse(0);
    double[] sizes = new double[ready.sizes().size()];
    for (int i = 0; i < sizes.length; i++)
      sizes[i] = ready.sizes().get(i).at(value(ready.sizes().get(i).field(), row));
    return new Drawn(
        entries(row),
        turns,
        sizes,
        withLabel && ready.hasLabel() ? ready.labelOf(name -> value(name, row)) : Said.NONE);
  }

  private int[] entries(int row) {
    if (all.isEmpty() || top[row] == ready.other()) return new int[] {top[row]};
    int[] out = new int[all.size()];
    int n = 0;
    for (int i = 0; i < out.length; i++) if (all.get(i).get(row)) out[n++] = i;
    return java.util.Arrays.copyOf(out, n);
  }

  private Value value(String field, int row) {
    return layer.column(field).map(c -> c.value(row)).orElse(Value.EMPTY);
  }

  /** How many features each entry draws, in the order of the entries. */
  public int[] counts() {
    int[] n = new int[ready.other() + 1];
    for (int r = 0; r < top.length; r++)
      if (layer.has(r)) {
        if (all.isEmpty() || top[r] == ready.other()) n[top[r]]++;
        else for (int i = 0; i < all.size(); i++) if (all.get(i).get(r)) n[i]++;
      }
    return n;
  }

  /** How many features have something else than a bearing in a field of bearings. */
  public int unturned(String field) {
    int n = 0;
    for (int r = 0; r < top.length; r++)
      if (layer.has(r) && Bearing.of(value(field, r)).isEmpty()) n++;
    return n;
  }
}
