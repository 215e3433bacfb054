package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.read.Column;
import org.whinridge.core.read.DictionaryColumn;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.NumberColumn;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * What the values of one field look like.
 *
 * @param count features looked at
 * @param filled those that have a value
 * @param distinct how many different values there are
 * @param values values as stored with their counts, most frequent first, at most {@link
 *     #MOST_VALUES}
 * @param numbers for numbers, dates and moments
 * @param lengths of texts in characters, shortest and longest; empty when there are none
 * @param patterns of texts: A for a capital, a for a small letter, 9 for a digit
 * @param misfits values that the field can't hold (text among numbers, a day that is not in the
 *     calendar, too long), with the features that have them, at most {@link #MOST_TOLD}
 * @param misfitCount how many features have a value that the field can't hold
 * @param notListed values that the code list does not have
 * @param retired values that the code list has as retired
 * @param repeated values that several features share though the field is unique
 */
public record FieldProfile(
    Field field,
    int count,
    int filled,
    int distinct,
    List<ValueCount> values,
    Optional<NumberProfile> numbers,
    Optional<int[]> lengths,
    List<ValueCount> patterns,
    List<Told> misfits,
    int misfitCount,
    List<ValueCount> notListed,
    List<ValueCount> retired,
    List<ValueCount> repeated) {
  /** The most findings that are told with their features. */
  public static final int MOST_TOLD = 200;

  /** The most values that are listed; the most frequent ones. */
  public static final int MOST_VALUES = 20_000;

  private static final int MOST_PATTERNS = 12;

  /** The most bars of a field in short. */
  public static final int MOST_BARS = 12;

  /** A value and the feature that has it. */
  public record Told(String feature, String caption, String value) {}

  /** The filled share, 0 to 1; 0 for a layer without features. */
  public double filledShare() {
    return count == 0 ? 0 : (double) filled / count;
  }

  /** The profile of a field over some rows of a read model. */
  public static FieldProfile of(Field field, LayerColumns layer, BitSet rows) {
    Tally t = tally(field, layer, rows);
    List<ValueCount> frequent = t.mostFrequent();
    boolean text = field.type().valueType() == ValueType.TEXT;
    return new FieldProfile(
        field,
        rows.cardinality(),
        t.filled,
        t.counts.size(),
        frequent,
        t.numbers.length == 0 || !field.codes().isEmpty()
            ? Optional.empty()
            : Optional.of(NumberProfile.of(t.numbers)),
        text ? t.lengths() : Optional.empty(),
        text ? t.patterns() : List.of(),
        t.misfits,
        t.misfitCount,
        listed(field, t.counts, false),
        listed(field, t.counts, true),
        field.unique() ? frequent.stream().filter(v -> v.count() > 1).toList() : List.of());
  }

  /**
   * How much of a field is filled, how many values do not fit, how many different ones there are.
   *
   * @param bars how the values are spread, up to {@link #MOST_BARS} counts: of numbers those in
   *     equal steps from the least to the greatest, of anything else those of the most frequent
   *     values, the most frequent first; none for a field without values
   */
  public record Summary(int count, int filled, int misfits, int distinct, List<Integer> bars) {
    /** The filled share, 0 to 1; 0 for a layer without features. */
    public double filledShare() {
      return count == 0 ? 0 : (double) filled / count;
    }
  }

  /** A field in short, for a list of many: nothing is sorted and nothing is written as text. */
  public static Summary summary(Field field, LayerColumns layer, BitSet rows) {
    Tally t = tally(field, layer, rows);
    return new Summary(rows.cardinality(), t.filled, t.misfitCount, t.counts.size(), t.bars());
  }

  private static Tally tally(Field field, LayerColumns layer, BitSet rows) {
    Column column =
        layer
            .column(field.name())
            .orElseThrow(() -> new IllegalArgumentException("no such field: " + field.name()));
    Tally t = new Tally(field, layer);
    if (column instanceof DictionaryColumn d) t.dictionary(d, rows);
    else t.numbers((NumberColumn) column, rows);
    return t;
  }

  /** All values of a field over some rows, however many, with their counts. */
  public static List<ValueCount> counts(Field field, LayerColumns layer, BitSet rows) {
    Tally t = tally(field, layer, rows);
    return t.counts.stream().map(c -> new ValueCount(c.value.plain(), c.count)).toList();
  }

  /** A value and how many features have it. */
  private record Counted(Value value, int count) {}

  /** Counts the values of a column without a look at each row's value where that can be spared. */
  private static final class Tally {
    private final Field field;
    private final LayerColumns layer;
    private final List<Counted> counts = new ArrayList<>();
    private final List<Told> misfits = new ArrayList<>();
    private double[] numbers = new double[0];
    private int filled;
    private int misfitCount;

    Tally(Field field, LayerColumns layer) {
      this.field = field;
      this.layer = layer;
    }

    void dictionary(DictionaryColumn d, BitSet rows) {
      int[] n = new int[d.distinct()];
      boolean[] fits = new boolean[n.length];
      for (int i = 0; i < n.length; i++) fits[i] = field.holds(d.distinct(i));
      for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
        n[d.number(row)]++;
        if (!fits[d.number(row)]) misfit(row, d.value(row));
      }
      for (int i = 1; i < n.length; i++) if (n[i] > 0) count(d.distinct(i), n[i]);
    }

    void numbers(NumberColumn c, BitSet rows) {
      double[] all = new double[rows.cardinality()];
      int n = 0;
      boolean whole = field.type() == FieldType.WHOLE;
      Map<Value, Integer> others = new LinkedHashMap<>();
      for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
        double d = c.number(row);
        if (!Double.isNaN(d)) {
          all[n++] = d;
          if (whole && d != Math.floor(d)) misfit(row, c.value(row));
          continue;
        }
        Value v = c.value(row);
        if (v.isEmpty()) continue;
        others.merge(v, 1, Integer::sum);
        if (!field.holds(v)) misfit(row, v);
      }
      numbers = Arrays.copyOf(all, n);
      Arrays.sort(numbers);
      for (int from = 0; from < n; ) {
        int to = from + 1;
        while (to < n && numbers[to] == numbers[from]) to++;
        count(c.of(numbers[from]), to - from);
        from = to;
      }
      others.forEach(this::count);
    }

    private void count(Value v, int n) {
      counts.add(new Counted(v, n));
      filled += n;
    }

    private void misfit(int row, Value v) {
      misfitCount++;
      if (misfits.size() < MOST_TOLD)
        misfits.add(
            new Told(
                layer.id(row), layer.schema().caption(layer.feature(row).values()), v.plain()));
    }

    List<ValueCount> mostFrequent() {
      // the few that are listed are picked before they are sorted: there may be very many
      int[] sorted = counts.stream().mapToInt(Counted::count).sorted().toArray();
      int least = sorted.length <= MOST_VALUES ? 0 : sorted[sorted.length - MOST_VALUES];
      long above = counts.stream().filter(c -> c.count > least).count();
      long[] room = {MOST_VALUES - above};
      return counts.stream()
          .filter(c -> c.count > least || c.count == least && room[0]-- > 0)
          .map(c -> new ValueCount(c.value.plain(), c.count))
          .sorted(
              Comparator.comparingInt((ValueCount v) -> -v.count())
                  .thenComparing(ValueCount::value))
          .toList();
    }

    /** The highest counts, found without sorting all of them: there may be very many. */
    private List<Integer> mostCounts() {
      List<Integer> most = new ArrayList<>();
      for (Counted c : counts) {
        int at = most.size();
        while (at > 0 && most.get(at - 1) < c.count) at--;
        if (at < MOST_BARS) most.add(at, c.count);
        if (most.size() > MOST_BARS) most.remove(MOST_BARS);
      }
      return most;
    }

    List<Integer> bars() {
      if (numbers.length == 0 || !field.codes().isEmpty()) return mostCounts();
      Integer[] bars = new Integer[MOST_BARS];
      Arrays.fill(bars, 0);
      double least = numbers[0];
      double wide = (numbers[numbers.length - 1] - least) / MOST_BARS;
      for (double d : numbers)
        bars[wide > 0 ? Math.min(MOST_BARS - 1, (int) ((d - least) / wide)) : 0]++;
      return List.of(bars);
    }

    Optional<int[]> lengths() {
      int least = Integer.MAX_VALUE;
      int most = 0;
      for (Counted c : counts) {
        int n = c.value.plain().length();
        least = Math.min(least, n);
        most = Math.max(most, n);
      }
      return counts.isEmpty() ? Optional.empty() : Optional.of(new int[] {least, most});
    }

    List<ValueCount> patterns() {
      Map<String, Integer> n = new LinkedHashMap<>();
      for (Counted c : counts)
        if (n.size() < MOST_VALUES) n.merge(pattern(c.value.plain()), c.count, Integer::sum);
      return n.entrySet().stream()
          .map(e -> new ValueCount(e.getKey(), e.getValue()))
          .sorted(
              Comparator.comparingInt((ValueCount v) -> -v.count())
                  .thenComparing(ValueCount::value))
          .limit(MOST_PATTERNS)
          .toList();
    }
  }

  /** The pattern of a text: capitals A, small letters a, digits 9, runs of more than three cut. */
  static String pattern(String s) {
    StringBuilder b = new StringBuilder();
    int run = 0;
    char last = 0;
    for (int i = 0; i < s.length() && b.length() < 40; i++) {
      char c = s.charAt(i);
      char k =
          Character.isDigit(c)
              ? '9'
              : Character.isUpperCase(c) ? 'A' : Character.isLetter(c) ? 'a' : c;
      run = k == last ? run + 1 : 1;
      last = k;
      if (run <= 4 || k == '9') b.append(k);
      else if (run == 5) b.append('…');
    }
    return b.toString();
  }

  private static List<ValueCount> listed(Field field, List<Counted> counts, boolean retired) {
    if (field.codes().isEmpty()) return List.of();
    Map<String, Integer> out = new LinkedHashMap<>();
    counts.forEach(
        counted -> {
          Value v = counted.value;
          int c = counted.count;
          for (Value one : v instanceof Value.Many m ? m.values() : List.of(v)) {
            Optional<Code> code =
                field.codes().stream().filter(x -> x.code().equals(one.plain())).findFirst();
            if (retired ? code.filter(Code::retired).isPresent() : code.isEmpty())
              out.merge(one.plain(), c, Integer::sum);
          }
        });
    return out.entrySet().stream().map(e -> new ValueCount(e.getKey(), e.getValue())).toList();
  }
}
