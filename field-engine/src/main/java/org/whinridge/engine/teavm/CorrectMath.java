package org.whinridge.engine.teavm;

import org.teavm.jso.JSBody;

/** Math methods as the JDK's documentation defines them, for the browser. */
public final class CorrectMath {
  private static final double TWO_52 = 4503599627370496.0;

  private CorrectMath() {}

  /** x - y n, n the integer nearest to x/y, even on ties; exact (IEEE 754 remainder). */
  public static double ieeeRemainder(double x, double y) {
    if (Double.isNaN(x) || Double.isNaN(y) || Double.isInfinite(x) || y == 0) return Double.NaN;
    if (Double.isInfinite(y)) return x;
    double ay = Math.abs(y);
    double r = Math.abs(x);
    if (ay <= Double.MAX_VALUE / 2) r = r % (ay + ay);
    if (ay < Double.MIN_NORMAL * 2) {
      if (r + r > ay) {
        r -= ay;
        if (r + r >= ay) r -= ay;
      }
    } else {
      double half = 0.5 * ay;
      if (r > half) {
        r -= ay;
        if (r >= half) r -= ay;
      }
    }
    return x < 0 || (x == 0 && 1 / x < 0) ? -r : r;
  }

  /** The nearest long, halves up. */
  public static long round(double d) {
    if (Double.isNaN(d)) return 0;
    double f = Math.floor(d);
    return (long) (d - f >= 0.5 ? f + 1 : f);
  }

  /** The nearest integer, halves to even. */
  public static double rint(double x) {
    if (!(Math.abs(x) < TWO_52)) return x;
    double t = Math.copySign(TWO_52, x);
    return Math.copySign((x + t) - t, x);
  }

  /** The square root of a² + b² without overflow in between. */
  public static double hypot(double a, double b) {
    double m = Math.max(Math.abs(a), Math.abs(b));
    double n = Math.min(Math.abs(a), Math.abs(b));
    if (Double.isInfinite(a) || Double.isInfinite(b)) return Double.POSITIVE_INFINITY;
    if (m == 0 || m != m || n != n) return m + n;
    if (m < 1e150 && m > 1e-140) return Math.sqrt(m * m + n * n);
    double q = n / m;
    return m * Math.sqrt(1 + q * q);
  }

  /** The distance to the next greater double. */
  public static double ulp(double x) {
    if (Double.isNaN(x)) return x;
    if (Double.isInfinite(x)) return Double.POSITIVE_INFINITY;
    double a = Math.abs(x);
    return a == Double.MAX_VALUE
        ? 0x1p971
        : Double.longBitsToDouble(Double.doubleToLongBits(a) + 1) - a;
  }

  /** Base 10 logarithm. */
  public static double log10(double x) {
    return log10Js(x);
  }

  /** Logarithm of 1 + x. */
  public static double log1p(double x) {
    return log1pJs(x);
  }

  /** e to the x, less 1. */
  public static double expm1(double x) {
    return expm1Js(x);
  }

  /** Cube root. */
  public static double cbrt(double x) {
    return cbrtJs(x);
  }

  @JSBody(params = "x", script = "return Math.log10(x);")
  private static native double log10Js(double x);

  @JSBody(params = "x", script = "return Math.log1p(x);")
  private static native double log1pJs(double x);

  @JSBody(params = "x", script = "return Math.expm1(x);")
  private static native double expm1Js(double x);

  @JSBody(params = "x", script = "return Math.cbrt(x);")
  private static native double cbrtJs(double x);
}
