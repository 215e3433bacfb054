package org.whinridge.core.form;

import java.util.OptionalDouble;
import org.whinridge.core.said.Unfit;

/**
 * What an answer may measure.
 *
 * @param unit the unit of a number; "" for none
 * @param decimals decimals shown and kept of a decimal number, 0 to 12; -1 for as given
 * @param from the smallest number allowed
 * @param to the largest number allowed
 * @param step the step between numbers, counted from {@code from} or 0; 0 for none
 * @param least fewest characters of a text, codes of a many choice, or photos; 0 for any
 * @param most most characters, codes or photos; 0 for any
 * @param lines lines that a long text shows; 0 for the usual
 */
public record Limits(
    String unit,
    int decimals,
    OptionalDouble from,
    OptionalDouble to,
    double step,
    int least,
    int most,
    int lines) {
  /** The largest least or most. */
  public static final int LARGEST = 100_000;

  /** No limits. */
  public static final Limits NONE =
      new Limits("", -1, OptionalDouble.empty(), OptionalDouble.empty(), 0, 0, 0, 0);

  public Limits {
    if (decimals < -1 || decimals > 12) throw new Unfit("form.decimals");
    if (least < 0 || most < 0 || least > LARGEST || most > LARGEST)
      throw new Unfit("form.leastMost", "most", 100_000);
    if (step < 0 || Double.isNaN(step) || Double.isInfinite(step)) throw new Unfit("form.step");
    if (lines < 0 || lines > 100) throw new Unfit("form.lines");
  }

  /** Limits of a number in a unit. */
  public static Limits in(String unit) {
    return new Limits(unit, -1, OptionalDouble.empty(), OptionalDouble.empty(), 0, 0, 0, 0);
  }

  /** A least and a most of characters, codes or photos. */
  public static Limits count(int least, int most) {
    return new Limits("", -1, OptionalDouble.empty(), OptionalDouble.empty(), 0, least, most, 0);
  }
}
