package org.whinridge.core.value;

/**
 * Sums, differences and products of decimals as people work them out: 0.1 + 0.2 is 0.3. Both
 * numbers are taken as the shortest decimals that stand for them; as long as all digits fit into
 * 2^53 (about 15) the result is the double nearest to the exact one, else it is the usual sum or
 * product of doubles. So whatever is worked out equals what stands there within the decimals that
 * it came from, on every engine alike.
 */
public final class Decimals {
  private static final double EXACT = 9007199254740992.0; // 2^53
  private static final double[] TEN = {
    1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17,
    1e18, 1e19, 1e20, 1e21, 1e22
  };

  /** The most decimals that are looked for in a number. */
  private static final int MOST = 12;

  private Decimals() {}

  /** a + b; not finite when it overflows. */
  public static double add(double a, double b) {
    if (a == Math.rint(a) && b == Math.rint(b)) return a + b;
    int k = places(a);
    int l = places(b);
    if (k < 0 || l < 0) return a + b;
    int m = Math.max(k, l);
    double x = Math.rint(a * TEN[k]) * TEN[m - k];
    double y = Math.rint(b * TEN[l]) * TEN[m - l];
    return small(x) && small(y) && small(x + y) ? (x + y) / TEN[m] : a + b;
  }

  /** a - b; not finite when it overflows. */
  public static double subtract(double a, double b) {
    return add(a, -b);
  }

  /** a times b; not finite when it overflows. */
  public static double multiply(double a, double b) {
    if (a == Math.rint(a) && b == Math.rint(b)) return a * b;
    int k = places(a);
    int l = places(b);
    if (k < 0 || l < 0 || k + l >= TEN.length) return a * b;
    double p = Math.rint(a * TEN[k]) * Math.rint(b * TEN[l]);
    return small(p) ? p / TEN[k + l] : a * b;
  }

  private static boolean small(double d) {
    return Math.abs(d) < EXACT;
  }

  /** How many decimals a number has, 0 to 12; -1 when it has more, or is too great to tell. */
  private static int places(double d) {
    for (int k = 0; k <= MOST; k++) {
      double whole = Math.rint(d * TEN[k]);
      if (!small(whole)) return -1;
      if (whole / TEN[k] == d) return k;
    }
    return -1;
  }
}
