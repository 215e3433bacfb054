package org.whinridge.core.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class BreaksTest {
  private static double[] sorted(double... ds) {
    return DoubleStream.of(ds).sorted().toArray();
  }

  @Test
  void equalStepsDivideTheRange() {
    assertThat(Breaks.by(Breaks.Method.EQUAL, sorted(0, 1, 2, 10), 4))
        .containsExactly(2.5, 5, 7.5, 10);
  }

  @Test
  void quantilesHoldAsManyEach() {
    assertThat(Breaks.by(Breaks.Method.QUANTILE, sorted(1, 2, 3, 4, 5, 6, 7, 8), 4))
        .containsExactly(2, 4, 6, 8);
    assertThat(Breaks.by(Breaks.Method.QUANTILE, sorted(1, 1, 1, 1, 1, 1, 2, 9), 4))
        .as("ties can't be parted")
        .containsExactly(1, 9);
  }

  @Test
  void deviationsStandAroundTheMean() {
    // mean 5, population deviation 2: the well-known row 2 4 4 4 5 5 7 9
    assertThat(Breaks.by(Breaks.Method.DEVIATION, sorted(2, 4, 4, 4, 5, 5, 7, 9), 4))
        .containsExactly(3, 5, 7, 9);
    assertThat(Breaks.by(Breaks.Method.DEVIATION, sorted(2, 4, 4, 4, 5, 5, 7, 9), 3))
        .containsExactly(4, 6, 9);
  }

  @Test
  void naturalBreaksFindGaps() {
    assertThat(Breaks.by(Breaks.Method.NATURAL, sorted(1, 2, 3, 20, 21, 22, 60, 61), 3))
        .containsExactly(3, 22, 61);
  }

  @Test
  void naturalBreaksAreTheBestOfAllBreaks() {
    Random r = new Random(41);
    for (int run = 0; run < 400; run++) {
      double[] v = sorted(r.doubles(3 + r.nextInt(11)).map(d -> Math.floor(d * d * 40)).toArray());
      int k = 2 + r.nextInt(4);
      double[] ends = Breaks.by(Breaks.Method.NATURAL, v, k);
      assertThat(cost(v, ends))
          .as("%s in %d", Arrays.toString(v), k)
          .isCloseTo(best(v, 0, k), within(1e-6));
    }
  }

  @Test
  void digitsAreKeptFarFromNought() {
    double[] v = sorted(1e9 + 0.1, 1e9 + 0.2, 1e9 + 0.3, 1e9 + 7, 1e9 + 7.1);
    assertThat(Breaks.by(Breaks.Method.NATURAL, v, 2)).containsExactly(1e9 + 0.3, 1e9 + 7.1);
  }

  @ParameterizedTest
  @EnumSource(Breaks.Method.class)
  void fewValuesGiveFewClasses(Breaks.Method m) {
    assertThat(Breaks.by(m, new double[0], 5)).isEmpty();
    assertThat(Breaks.by(m, sorted(7, 7, 7), 5)).containsExactly(7);
    assertThat(Breaks.by(m, sorted(1, 2), 9)).isSorted().doesNotHaveDuplicates().endsWith(2);
  }

  @ParameterizedTest
  @EnumSource(Breaks.Method.class)
  void endsAlwaysRiseToTheGreatest(Breaks.Method m) {
    Random r = new Random(5);
    for (int run = 0; run < 300; run++) {
      double[] v =
          sorted(
              r.doubles(1 + r.nextInt(40))
                  .map(d -> Math.floor(d * 9) * (r.nextInt(5) == 0 ? 1e12 : 1))
                  .toArray());
      double[] ends = Breaks.by(m, v, r.nextInt(14));
      assertThat(ends).isSorted().doesNotHaveDuplicates().endsWith(v[v.length - 1]);
      assertThat(ends.length).isBetween(1, 9);
    }
  }

  private static double cost(double[] v, double[] ends) {
    double sum = 0;
    double before = Double.NEGATIVE_INFINITY;
    for (double e : ends) {
      double from = before;
      sum += squares(Arrays.stream(v).filter(d -> d > from && d <= e).toArray());
      before = e;
    }
    return sum;
  }

  private static double squares(double[] part) {
    double mean = Arrays.stream(part).average().orElse(0);
    return Arrays.stream(part).map(d -> (d - mean) * (d - mean)).sum();
  }

  /** The least cost by trying every break; equal values stay together. */
  private static double best(double[] v, int from, int k) {
    if (k == 1 || from >= v.length)
      return squares(Arrays.copyOfRange(v, Math.min(from, v.length), v.length));
    double best = squares(Arrays.copyOfRange(v, from, v.length));
    for (int i = from + 1; i < v.length; i++)
      if (v[i] != v[i - 1])
        best = Math.min(best, squares(Arrays.copyOfRange(v, from, i)) + best(v, i, k - 1));
    return best;
  }
}
