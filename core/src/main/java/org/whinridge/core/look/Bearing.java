package org.whinridge.core.look;

import java.util.OptionalDouble;
import org.whinridge.core.value.Value;

/** Bearings as turns of a symbol. */
final class Bearing {
  private Bearing() {}

  /**
   * Degrees clockwise from north, 0 up to 360; empty for what is no number and for what lies
   * outside of 0 to 360 (common practice, no source): such a symbol is drawn upright.
   */
  static OptionalDouble of(Value v) {
    if (!(v instanceof Value.Num n) || !isOne(n.value())) return OptionalDouble.empty();
    return OptionalDouble.of(n.value() == 360 ? 0 : n.value());
  }

  static boolean isOne(double d) {
    return d >= 0 && d <= 360;
  }
}
