package org.whinridge.core.value;

/**
 * x to the power of y, the same to the last digit on every engine; what a browser calls pow is left
 * to it (ECMA-262, Math.pow: "implementation-approximated"). The method is the one of fdlibm, which
 * Java's StrictMath specifies: log2(x) in two doubles, then 2^(y log2(x)) by a rational function;
 * within 0.7 units in the last place. Written after its published description, with its constants
 * from memory; held against StrictMath by test.
 */
public final class Power {
  private static final double[] BP = {1.0, 1.5};
  private static final double[] DP_H = {0.0, 5.84962487220764160156e-01};
  private static final double[] DP_L = {0.0, 1.35003920212974897128e-08};
  private static final double TWO_53 = 9007199254740992.0;
  private static final double L1 = 5.99999999999994648725e-01;
  private static final double L2 = 4.28571428578550184252e-01;
  private static final double L3 = 3.33333329818377432918e-01;
  private static final double L4 = 2.72728123808534006489e-01;
  private static final double L5 = 2.30660745775561754067e-01;
  private static final double L6 = 2.06975017800338417784e-01;
  private static final double P1 = 1.66666666666666019037e-01;
  private static final double P2 = -2.77777777770155933842e-03;
  private static final double P3 = 6.61375632143793436117e-05;
  private static final double P4 = -1.65339022054652515390e-06;
  private static final double P5 = 4.13813679705723846039e-08;
  private static final double LG2 = 6.93147180559945286227e-01;
  private static final double LG2_H = 6.93147182464599609375e-01;
  private static final double LG2_L = -1.90465429995776804525e-09;
  private static final double OVT = 8.0085662595372944372e-17;
  private static final double CP = 9.61796693925975554329e-01;
  private static final double CP_H = 9.61796700954437255859e-01;
  private static final double CP_L = -7.02846165095275826516e-09;
  private static final double IVLN2 = 1.44269504088896338700e+00;
  private static final double IVLN2_H = 1.44269502162933349609e+00;
  private static final double IVLN2_L = 1.92596299112661746887e-08;

  private Power() {}

  private static int high(double d) {
    return (int) (Double.doubleToLongBits(d) >> 32);
  }

  private static int low(double d) {
    return (int) Double.doubleToLongBits(d);
  }

  private static double withHigh(double d, int high) {
    return Double.longBitsToDouble(
        (Double.doubleToLongBits(d) & 0xFFFFFFFFL) | ((long) high << 32));
  }

  private static double withoutLow(double d) {
    return Double.longBitsToDouble(Double.doubleToLongBits(d) & 0xFFFFFFFF00000000L);
  }

  /** x to the power of y as StrictMath defines it; NaN where it is not defined. */
  public static double of(double x, double y) {
    if (y == 0) return 1;
    if (Double.isNaN(x) || Double.isNaN(y)) return Double.NaN;
    double ax = Math.abs(x);
    boolean whole = y == Math.rint(y);
    boolean odd = whole && Math.abs(y) < TWO_53 && Math.abs(y) % 2 == 1;
    if (Double.isInfinite(y)) {
      if (ax == 1) return Double.NaN;
      return ax > 1 == y > 0 ? Double.POSITIVE_INFINITY : 0;
    }
    if (y == 1) return x;
    if (y == -1) return 1 / x;
    if (y == 2) return x * x;
    if (y == 0.5 && high(x) >= 0) return Math.sqrt(x);
    boolean negative = x < 0 || (x == 0 && 1 / x < 0);
    if (ax == 0 || ax == 1 || Double.isInfinite(ax)) {
      double z = y < 0 ? 1 / ax : ax;
      if (!negative) return z;
      if (ax == 1 && !whole) return Double.NaN;
      return odd ? -z : z;
    }
    if (negative && !whole) return Double.NaN;
    double s = negative && odd ? -1 : 1;
    return s * positive(ax, y);
  }

  /** A positive, finite x other than 1 to a finite y. */
  private static double positive(double ax, double y) {
    double t1;
    double t2;
    int hy = high(y) & 0x7fffffff;
    if (hy > 0x41e00000) { // |y| > 2^31
      int hx = high(ax);
      if (hx < 0x3fefffff) return y < 0 ? Double.POSITIVE_INFINITY : 0;
      if (hx > 0x3ff00000) return y > 0 ? Double.POSITIVE_INFINITY : 0;
      // |1 - x| is tiny: log(x) by x - x²/2 + x³/3 - x⁴/4
      double t = ax - 1;
      double w = (t * t) * (0.5 - t * (0.3333333333333333333333 - t * 0.25));
      double u = IVLN2_H * t;
      double v = t * IVLN2_L - w * IVLN2;
      t1 = withoutLow(u + v);
      t2 = v - (t1 - u);
    } else {
      double[] log = log2(ax);
      t1 = log[0];
      t2 = log[1];
    }
    // y times log2(x), with y in two parts
    double y1 = withoutLow(y);
    double lo = (y - y1) * t1 + y * t2;
    double hi = y1 * t1;
    double z = lo + hi;
    int j = high(z);
    int i = low(z);
    if (j >= 0x40900000) { // z >= 1024
      if (((j - 0x40900000) | i) != 0 || lo + OVT > z - hi) return Double.POSITIVE_INFINITY;
    } else if ((j & 0x7fffffff) >= 0x4090cc00) { // z <= -1075
      if (((j - 0xc090cc00) | i) != 0 || lo <= z - hi) return 0;
    }
    return exp2(hi, lo, j);
  }

  /** log2 of a positive, finite x in two parts. */
  private static double[] log2(double x) {
    double ax = x;
    int n = 0;
    int ix = high(ax);
    if (ix < 0x00100000) { // subnormal
      ax *= TWO_53;
      n -= 53;
      ix = high(ax);
    }
    n += (ix >> 20) - 0x3ff;
    int j = ix & 0x000fffff;
    ix = j | 0x3ff00000;
    int k;
    if (j <= 0x3988E) k = 0; // |x| < sqrt(3/2)
    else if (j < 0xBB67A) k = 1; // |x| < sqrt(3)
    else {
      k = 0;
      n += 1;
      ix -= 0x00100000;
    }
    ax = withHigh(ax, ix);
    double u = ax - BP[k];
    double v = 1.0 / (ax + BP[k]);
    double ss = u * v;
    double sh = withoutLow(ss);
    double th = withHigh(0, ((ix >> 1) | 0x20000000) + 0x00080000 + (k << 18));
    double tl = ax - (th - BP[k]);
    double sl = v * ((u - sh * th) - sh * tl);
    double s2 = ss * ss;
    double r = s2 * s2 * (L1 + s2 * (L2 + s2 * (L3 + s2 * (L4 + s2 * (L5 + s2 * L6)))));
    r += sl * (sh + ss);
    s2 = sh * sh;
    th = withoutLow(3.0 + s2 + r);
    tl = r - ((th - 3.0) - s2);
    u = sh * th;
    v = sl * th + tl * ss;
    double ph = withoutLow(u + v);
    double pl = v - (ph - u);
    double zh = CP_H * ph;
    double zl = CP_L * ph + pl * CP + DP_L[k];
    double t = n;
    double t1 = withoutLow(((zh + zl) + DP_H[k]) + t);
    double t2 = zl - (((t1 - t) - DP_H[k]) - zh);
    return new double[] {t1, t2};
  }

  /** 2 to the power of hi + lo, whose sum has the high word j. */
  private static double exp2(double high, double lo, int j) {
    double hi = high;
    int i = j & 0x7fffffff;
    int k = (i >> 20) - 0x3ff;
    int n = 0;
    if (i > 0x3fe00000) { // |z| > 0.5: n is the whole part
      n = j + (0x00100000 >> (k + 1));
      k = ((n & 0x7fffffff) >> 20) - 0x3ff;
      double t = withHigh(0, n & ~(0x000fffff >> k));
      n = ((n & 0x000fffff) | 0x00100000) >> (20 - k);
      if (j < 0) n = -n;
      hi -= t;
    }
    double t = withoutLow(lo + hi);
    double u = t * LG2_H;
    double v = (lo - (t - hi)) * LG2 + t * LG2_L;
    double z = u + v;
    double w = v - (z - u);
    double z2 = z * z;
    double t1 = z - z2 * (P1 + z2 * (P2 + z2 * (P3 + z2 * (P4 + z2 * P5))));
    double r = (z * t1) / (t1 - 2.0) - (w + z * w);
    z = 1.0 - (r - z);
    int jj = high(z) + (n << 20);
    return (jj >> 20) <= 0 ? scaled(z, n) : withHigh(z, jj);
  }

  /** z times 2^n for a result that is subnormal. */
  private static double scaled(double z, int n) {
    double half = Double.longBitsToDouble((long) (1023 + n / 2) << 52);
    double rest = Double.longBitsToDouble((long) (1023 + (n - n / 2)) << 52);
    return z * half * rest;
  }
}
