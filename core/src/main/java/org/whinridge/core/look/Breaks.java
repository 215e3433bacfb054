package org.whinridge.core.look;

import java.util.Arrays;
import java.util.Optional;
import org.whinridge.core.text.Word;

/**
 * Class breaks of numbers. Every method takes finite numbers in rising order and a count of
 * classes, and gives the upper ends of the classes in rising order, the last being the greatest
 * number: a class holds what is greater than the end before it, up to and including its own. Fewer
 * classes come back where the numbers don't have so many: one value alone gives one class.
 */
public final class Breaks {
  /** The least and greatest count of classes. */
  public static final int LEAST = 2;

  public static final int MOST = 9;

  /** How breaks are found. */
  public enum Method implements Word {
    EQUAL("equal"),
    QUANTILE("quantile"),
    NATURAL("natural"),
    DEVIATION("deviation"),
    HAND("hand");
    private final String id;

    Method(String id) {
      this.id = id;
    }

    /** The word in data. */
    @Override
    public String id() {
      return id;
    }

    /** The method with that word. */
    public static Optional<Method> of(String id) {
      return Word.of(values(), id);
    }
  }

  private Breaks() {}

  /**
   * Breaks by a method; {@link Method#HAND} begins with equal steps.
   *
   * @param sorted finite, rising; empty gives no class
   * @param classes {@link #LEAST} to {@link #MOST}; outside is brought inside
   */
  public static double[] by(Method method, double[] sorted, int classes) {
    int k = Math.max(LEAST, Math.min(MOST, classes));
    if (sorted.length == 0) return new double[0];
    if (sorted[0] == sorted[sorted.length - 1]) return new double[] {sorted[0]};
    return switch (method) {
      case QUANTILE -> quantile(sorted, k);
      case NATURAL -> new NaturalBreaks(sorted).upperEnds(k);
      case DEVIATION -> deviation(sorted, k);
      default -> equal(sorted, k);
    };
  }

  private static double[] equal(double[] v, int k) {
    double least = v[0];
    double most = v[v.length - 1];
    double[] ends = new double[k];
    for (int i = 0; i < k; i++) ends[i] = least + (most - least) / k * (i + 1);
    return rising(ends, most);
  }

  /** The number at rank ceil(n·i/k), so that each class has as many features as ties allow. */
  private static double[] quantile(double[] v, int k) {
    double[] ends = new double[k];
    for (int i = 0; i < k; i++)
      ends[i] = v[(int) Math.max(0, ((long) v.length * (i + 1) + k - 1) / k - 1)];
    return rising(ends, v[v.length - 1]);
  }

  /**
   * Ends at whole (for an even count of classes) or half (odd) standard deviations of the
   * population around the mean, so that the middle of the classes is the mean.
   */
  private static double[] deviation(double[] v, int k) {
    double mean = 0;
    for (int i = 0; i < v.length; i++) mean += (v[i] - mean) / (i + 1);
    double squares = 0;
    for (double d : v) squares += (d - mean) * (d - mean);
    double sd = Math.sqrt(squares / v.length);
    double[] ends = new double[k];
    for (int i = 0; i < k - 1; i++) ends[i] = mean + sd * (i + 1 - k / 2.0);
    ends[k - 1] = v[v.length - 1];
    double[] kept = Arrays.stream(ends).filter(e -> e >= v[0]).toArray();
    return rising(kept, v[v.length - 1]);
  }

  /** Ends without repeats, none above {@code most}, the last one {@code most} exactly. */
  private static double[] rising(double[] ends, double most) {
    double[] out = new double[ends.length + 1];
    int n = 0;
    for (double e : ends) if (e < most && (n == 0 || e > out[n - 1])) out[n++] = e;
    out[n++] = most;
    return Arrays.copyOf(out, n);
  }
}
