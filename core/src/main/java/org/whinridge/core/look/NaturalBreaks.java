package org.whinridge.core.look;

import java.util.Arrays;

/**
 * Natural breaks: the classes of one dimension whose summed squared distance to their means is
 * least. Exact, on the sorted distinct numbers with their counts.
 *
 * <p>Sources: G. F. Jenks, "The data model concept in statistical mapping" (1967); W. D. Fisher,
 * "On grouping for maximum homogeneity", J. American Statistical Association 53 (1958), for the
 * recurrence. The best last break of a longer row never lies before that of a shorter one (the cost
 * has the quadrangle property), so that each class takes n log n steps by halving instead of n².
 * Means are taken around the middle number, to keep digits.
 */
final class NaturalBreaks {
  private final double[] values;
  private final double[] weight;
  private final double[] sum;
  private final double[] squares;
  private final int n;

  NaturalBreaks(double[] sorted) {
    double middle = sorted[sorted.length / 2];
    values = new double[sorted.length];
    weight = new double[sorted.length + 1];
    sum = new double[sorted.length + 1];
    squares = new double[sorted.length + 1];
    int count = 0;
    for (int i = 0; i < sorted.length; ) {
      int from = i;
      while (i < sorted.length && sorted[i] == sorted[from]) i++;
      double d = sorted[from] - middle;
      values[count] = sorted[from];
      weight[count + 1] = i;
      sum[count + 1] = sum[count] + d * (i - from);
      squares[count + 1] = squares[count] + d * d * (i - from);
      count++;
    }
    n = count;
  }

  double[] upperEnds(int classes) {
    int k = Math.min(classes, n);
    if (k == n) return Arrays.copyOf(values, n);
    double[] before = new double[n + 1];
    for (int j = 1; j <= n; j++) before[j] = cost(0, j);
    int[][] last = new int[k + 1][];
    for (int c = 2; c <= k; c++) {
      double[] now = new double[n + 1];
      Arrays.fill(now, 0, c, Double.POSITIVE_INFINITY);
      last[c] = new int[n + 1];
      solve(c, n, c - 1, n - 1, before, now, last[c]);
      before = now;
    }
    double[] ends = new double[k];
    int to = n;
    for (int c = k; c >= 1; c--) {
      ends[c - 1] = values[to - 1];
      if (c > 1) to = last[c][to];
    }
    return ends;
  }

  /** The best start of the last class for all row lengths low..high, known to lie in from..to. */
  private void solve(
      int low, int high, int from, int to, double[] before, double[] now, int[] last) {
    if (low > high) return;
    int middle = (low + high) >>> 1;
    double best = Double.POSITIVE_INFINITY;
    int at = from;
    int end = Math.min(to, middle - 1);
    for (int i = from; i <= end; i++) {
      double c = before[i] + cost(i, middle);
      if (c < best) {
        best = c;
        at = i;
      }
    }
    now[middle] = best;
    last[middle] = at;
    solve(low, middle - 1, from, at, before, now, last);
    solve(middle + 1, high, at, to, before, now, last);
  }

  /** The squared distance to their mean of the distinct numbers from..to-1, with their counts. */
  private double cost(int from, int to) {
    double w = weight[to] - weight[from];
    double s = sum[to] - sum[from];
    return Math.max(0, squares[to] - squares[from] - s * s / w);
  }
}
