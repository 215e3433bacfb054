package org.whinridge.core.layer;

import java.util.List;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/** Values of fields and answers as people read them, in the style of whoever reads. */
public final class Shown {
  private Shown() {}

  /**
   * A value as its field or question has it: a code by its label, a number with its decimals and
   * its unit; nothing for an empty one.
   *
   * @param decimals how many a number is told with; less than 0 for all that it has
   */
  public static Said of(Value v, List<Code> codes, int decimals, String unit) {
    if (v.isEmpty()) return Said.NONE;
    if (v instanceof Value.Many m)
      return Said.inARow(
          m.values().stream().map(x -> of(x, codes, decimals, "")).toList(), "list.then");
    Said s = one(v, codes, decimals);
    return unit.isEmpty() ? s : Said.of("value.withUnit", "value", s, "unit", unit);
  }

  private static Said one(Value v, List<Code> codes, int decimals) {
    String plain = codes.isEmpty() ? "" : v.plain();
    for (Code c : codes) if (c.code().equals(plain)) return Said.text(c.label());
    return v instanceof Value.Num n && decimals >= 0 && codes.isEmpty()
        ? Said.fixed(n.value(), decimals)
        : v.said();
  }

  /** How long something took: "1 h 20 min". */
  public static Said minutes(double minutes) {
    long hours = (long) Math.floor(minutes / 60);
    Said rest = Said.number(Numbers.round(minutes - hours * 60, 12));
    return hours == 0
        ? Said.of("value.minutes", "minutes", rest)
        : Said.of("value.hours", "hours", hours, "minutes", rest);
  }
}
