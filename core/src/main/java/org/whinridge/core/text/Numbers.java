package org.whinridge.core.text;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonValue;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.OptionalDouble;

/** Numbers to text and back, the same on every engine and in every locale. */
public final class Numbers {
  private static final double EXACT = 9007199254740992.0; // 2^53

  private Numbers() {}

  /**
   * The shortest plain decimal that reads back as the same double; never an exponent, never a
   * trailing zero.
   */
  public static String plain(double d) {
    if (d == Math.rint(d) && Math.abs(d) < EXACT) return Long.toString((long) d);
    if (Math.abs(d) >= 1e15 && Math.abs(d) < EXACT) {
      // sixteen digits before the point leave one behind it; not every engine's BigDecimal counts
      // them right
      double whole = Math.floor(Math.abs(d));
      long tenth = (long) Math.rint((Math.abs(d) - whole) * 10);
      return (d < 0 ? "-" : "") + (long) whole + "." + tenth;
    }
    for (int digits = 15; digits < 17; digits++) {
      BigDecimal b = new BigDecimal(d).round(new MathContext(digits, RoundingMode.HALF_EVEN));
      if (b.doubleValue() == d) return b.stripTrailingZeros().toPlainString();
    }
    return new BigDecimal(d)
        .round(new MathContext(17, RoundingMode.HALF_EVEN))
        .stripTrailingZeros()
        .toPlainString();
  }

  /** A JSON number with the digits of {@link #plain}. */
  public static JsonValue json(double d) {
    return Json.parse(plain(d));
  }

  /**
   * The number with exactly {@code decimals} places (0 to 12), halves away from zero: 2.345 with 2
   * is "2.35".
   */
  public static String fixed(double d, int decimals) {
    return new BigDecimal(plain(d)).setScale(decimals, RoundingMode.HALF_UP).toPlainString();
  }

  /**
   * The number rounded to {@code decimals} places (-12 to 12), halves away from zero, judged on its
   * shortest decimal.
   */
  public static double round(double d, int decimals) {
    return new BigDecimal(plain(d)).setScale(decimals, RoundingMode.HALF_UP).doubleValue();
  }

  /**
   * Reads a plain decimal: optional sign, digits, optional point and digits, optional exponent. A
   * comma, a unit, "NaN" or "Infinity" is not a number; nor is what overflows to infinity.
   */
  public static OptionalDouble read(String text) {
    String s = text.trim();
    if (s.isEmpty() || s.length() > 40) return OptionalDouble.empty();
    boolean digit = false;
    for (int i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      if (c >= '0' && c <= '9') digit = true;
      else if (c == 'e' || c == 'E') {
        if (!digit || i == s.length() - 1) return OptionalDouble.empty();
      } else if (c == '+' || c == '-') {
        if (i > 0 && s.charAt(i - 1) != 'e' && s.charAt(i - 1) != 'E')
          return OptionalDouble.empty();
      } else if (c != '.') return OptionalDouble.empty();
    }
    if (!digit) return OptionalDouble.empty();
    try {
      double d = Double.parseDouble(s);
      return Double.isNaN(d) || Double.isInfinite(d)
          ? OptionalDouble.empty()
          : OptionalDouble.of(d);
    } catch (NumberFormatException e) {
      return OptionalDouble.empty(); // such as 1.2.3 or 1e2e3
    }
  }
}
