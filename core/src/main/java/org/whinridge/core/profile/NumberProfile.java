package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Range, quartiles, histogram and outliers of numbers; dates come as days since 1970, moments as
 * milliseconds.
 *
 * @param lowFence values below are outliers: first quartile less 1.5 interquartile ranges (J. W.
 *     Tukey, Exploratory Data Analysis, 1977; from memory)
 * @param highFence values above are outliers
 * @param outliers how many lie outside the fences
 */
public record NumberProfile(
    double least,
    double greatest,
    double mean,
    double firstQuartile,
    double median,
    double thirdQuartile,
    double lowFence,
    double highFence,
    int outliers,
    List<Bin> histogram) {
  private static final int MOST_BINS = 24;

  /** Values from {@code from} up to, not including, {@code to}; the last bin includes its end. */
  public record Bin(double from, double to, int count) {}

  /** The profile of some numbers, at least one; the array is sorted by this. */
  static NumberProfile of(double[] v) {
    Arrays.sort(v);
    double sum = 0;
    for (double d : v) sum += d;
    double q1 = quantile(v, 0.25);
    double q3 = quantile(v, 0.75);
    double low = q1 - 1.5 * (q3 - q1);
    double high = q3 + 1.5 * (q3 - q1);
    int outliers = 0;
    if (q3 > q1) for (double d : v) if (d < low || d > high) outliers++;
    return new NumberProfile(
        v[0],
        v[v.length - 1],
        sum / v.length,
        q1,
        quantile(v, 0.5),
        q3,
        low,
        high,
        outliers,
        bins(v));
  }

  /** The value at a share of sorted numbers, linear between neighbours. */
  static double quantile(double[] sorted, double share) {
    double at = share * (sorted.length - 1);
    int i = (int) at;
    return i + 1 >= sorted.length
        ? sorted[sorted.length - 1]
        : sorted[i] + (at - i) * (sorted[i + 1] - sorted[i]);
  }

  private static List<Bin> bins(double[] v) {
    double range = v[v.length - 1] - v[0];
    if (range == 0) return List.of(new Bin(v[0], v[0], v.length));
    double step = step(range / Math.min(MOST_BINS - 2, Math.max(4, Math.sqrt(v.length))));
    double from = Math.floor(v[0] / step) * step;
    int n = (int) Math.floor((v[v.length - 1] - from) / step) + 1;
    int[] counts = new int[n];
    for (double d : v) counts[Math.min(n - 1, (int) ((d - from) / step))]++;
    List<Bin> out = new ArrayList<>();
    for (int i = 0; i < n; i++) out.add(new Bin(from + i * step, from + (i + 1) * step, counts[i]));
    return out;
  }

  /** The next round step (1, 2 or 5 times a power of ten) at or above a width. */
  private static double step(double width) {
    double power = 1;
    while (power * 10 <= width) power *= 10;
    while (power > width) power /= 10;
    for (double k : new double[] {1, 2, 5, 10}) if (k * power >= width * 0.999999) return k * power;
    return power * 10;
  }
}
