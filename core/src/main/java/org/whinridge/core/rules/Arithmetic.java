package org.whinridge.core.rules;

import org.whinridge.core.value.Decimals;
import org.whinridge.core.value.Power;
import org.whinridge.core.value.Value;

/**
 * {@code + - * / % div ^} on finite numbers; sums, differences and products within their decimals
 * ({@link Decimals}). Division by zero and what is not finite give an empty value and are told to
 * the situation.
 */
final class Arithmetic {
  private Arithmetic() {}

  private interface Op {
    double of(double l, double r);
  }

  static Evaluator.Step step(String op, Evaluator.Step left, Evaluator.Step right) {
    Op f = op(op);
    return s -> {
      Value a = left.in(s);
      Value b = right.in(s);
      if (!(a instanceof Value.Num x) || !(b instanceof Value.Num y)) return Value.EMPTY;
      Value v = Value.of(f.of(x.value(), y.value()));
      if (v.isEmpty()) s.notFinite();
      return v;
    };
  }

  private static Op op(String op) {
    switch (op) {
      case "+":
        return Decimals::add;
      case "-":
        return Decimals::subtract;
      case "*":
        return Decimals::multiply;
      case "/":
        return (l, r) -> r == 0 ? Double.NaN : l / r;
      case "%":
        return (l, r) -> r == 0 ? Double.NaN : l % r;
      case "div":
        return (l, r) -> r == 0 ? Double.NaN : l / r < 0 ? Math.ceil(l / r) : Math.floor(l / r);
      default:
        return Power::of;
    }
  }
}
