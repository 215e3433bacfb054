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
import org.whinridge.core.read.Column;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.NumberColumn;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * What the values of one field look like.
 *
 * @param count features looked at
 * @param filled those that have a value
 * @param values distinct values as stored with their counts, most frequent first
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

  private static final int MOST_PATTERNS = 12;

  /** A value and the feature that has it. */
  public record Told(String feature, String caption, String value) {}

  /** The filled share, 0 to 1; 0 for a layer without features. */
  public double filledShare() {
    return count == 0 ? 0 : (double) filled / count;
  }

  /** The profile of a field over some rows of a read model. */
  public static FieldProfile of(Field field, LayerColumns layer, BitSet rows) {
    Column column =
        layer
            .column(field.name())
            .orElseThrow(() -> new IllegalArgumentException("no such field: " + field.name()));
    Map<Value, Integer> counts = new LinkedHashMap<>();
    List<Told> misfits = new ArrayList<>();
    double[] numbers = new double[column instanceof NumberColumn ? rows.cardinality() : 0];
    int n = 0;
    int filled = 0;
    int misfitCount = 0;
    int count = 0;
    for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
      count++;
      Value v = column.value(row);
      if (v.isEmpty()) continue;
      filled++;
      counts.merge(v, 1, Integer::sum);
      if (column instanceof NumberColumn c && !Double.isNaN(c.numbers()[row]))
        numbers[n++] = c.numbers()[row];
      if (!field.holds(v)) {
        misfitCount++;
        if (misfits.size() < MOST_TOLD)
          misfits.add(
              new Told(
                  layer.id(row), layer.schema().caption(layer.feature(row).values()), v.plain()));
      }
    }
    List<ValueCount> values = new ArrayList<>();
    counts.forEach((v, c) -> values.add(new ValueCount(v.plain(), c)));
    values.sort(
        Comparator.comparingInt((ValueCount v) -> -v.count()).thenComparing(ValueCount::value));
    boolean text = field.type().valueType() == ValueType.TEXT;
    return new FieldProfile(
        field,
        count,
        filled,
        List.copyOf(values),
        n == 0 || !field.codes().isEmpty()
            ? Optional.empty()
            : Optional.of(NumberProfile.of(Arrays.copyOf(numbers, n))),
        text ? lengths(values) : Optional.empty(),
        text ? patterns(values) : List.of(),
        misfits,
        misfitCount,
        listed(field, counts, false),
        listed(field, counts, true),
        field.unique() ? values.stream().filter(v -> v.count() > 1).toList() : List.of());
  }

  private static Optional<int[]> lengths(List<ValueCount> values) {
    if (values.isEmpty()) return Optional.empty();
    int least = Integer.MAX_VALUE;
    int most = 0;
    for (ValueCount v : values) {
      least = Math.min(least, v.value().length());
      most = Math.max(most, v.value().length());
    }
    return Optional.of(new int[] {least, most});
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

  private static List<ValueCount> patterns(List<ValueCount> values) {
    Map<String, Integer> n = new LinkedHashMap<>();
    for (ValueCount v : values) n.merge(pattern(v.value()), v.count(), Integer::sum);
    return n.entrySet().stream()
        .map(e -> new ValueCount(e.getKey(), e.getValue()))
        .sorted(
            Comparator.comparingInt((ValueCount v) -> -v.count()).thenComparing(ValueCount::value))
        .limit(MOST_PATTERNS)
        .toList();
  }

  private static List<ValueCount> listed(Field field, Map<Value, Integer> counts, boolean retired) {
    if (field.codes().isEmpty()) return List.of();
    Map<String, Integer> out = new LinkedHashMap<>();
    counts.forEach(
        (v, c) -> {
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
