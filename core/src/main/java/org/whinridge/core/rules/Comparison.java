package org.whinridge.core.rules;

import org.whinridge.core.value.Value;

/** {@code = <> < > <= >=} of two values; unknown when one is empty or they are of two kinds. */
public final class Comparison {
  static final int SAME = 0;
  static final int OTHER = 1;
  static final int UNDER = 2;
  static final int OVER = 3;
  static final int AT_MOST = 4;
  static final int AT_LEAST = 5;

  private Comparison() {}

  /** The number of an operator, for {@link #of}. */
  public static int code(String op) {
    switch (op) {
      case "=":
        return SAME;
      case "<>":
        return OTHER;
      case "<":
        return UNDER;
      case ">":
        return OVER;
      case "<=":
        return AT_MOST;
      default:
        return AT_LEAST;
    }
  }

  /** Whether two values compare so: yes, no, or {@link Value#EMPTY} for unknown. */
  public static Value of(int op, Value a, Value b) {
    int c;
    if (a instanceof Value.Num x && b instanceof Value.Num y)
      c = Double.compare(x.value(), y.value());
    else if (a instanceof Value.Text x && b instanceof Value.Text y)
      c = x.value().compareTo(y.value());
    else if (a instanceof Value.Day x && b instanceof Value.Day y)
      c = x.value().compareTo(y.value());
    else if (a instanceof Value.Moment x && b instanceof Value.Moment y)
      c = x.value().compareTo(y.value());
    else return unordered(op, a, b);
    switch (op) {
      case SAME:
        return Value.of(c == 0);
      case OTHER:
        return Value.of(c != 0);
      case UNDER:
        return Value.of(c < 0);
      case OVER:
        return Value.of(c > 0);
      case AT_MOST:
        return Value.of(c <= 0);
      default:
        return Value.of(c >= 0);
    }
  }

  private static Value unordered(int op, Value a, Value b) {
    if (a.isEmpty() || b.isEmpty() || a.type() != b.type() || op > OTHER) return Value.EMPTY;
    if (a instanceof Value.Place p && b instanceof Value.Place q) {
      Value same = Spatial.relate("S_EQUALS", p.geometry(), q.geometry());
      return same.isEmpty() ? same : Value.of(same.equals(Value.YES) == (op == SAME));
    }
    return Value.of(a.equals(b) == (op == SAME));
  }
}
