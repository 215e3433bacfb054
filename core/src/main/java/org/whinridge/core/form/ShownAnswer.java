package org.whinridge.core.form;

import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/** Answers as people read them: a code by its label, a number with its unit. */
final class ShownAnswer {
  private ShownAnswer() {}

  static String of(Question q, Value v) {
    if (v.isEmpty()) return "";
    if (v instanceof Value.Many m) {
      StringBuilder b = new StringBuilder();
      for (Value x : m.values()) b.append(b.length() == 0 ? "" : ", ").append(q.labelOf(x));
      return b.toString();
    }
    if (q.type() == QuestionType.DURATION && v instanceof Value.Num n) return duration(n.value());
    String s =
        v instanceof Value.Num n && q.decimals() >= 0 && q.codes().isEmpty()
            ? Numbers.fixed(n.value(), q.decimals())
            : q.labelOf(v);
    return q.unit().isEmpty() ? s : s + " " + q.unit();
  }

  private static String duration(double minutes) {
    long whole = (long) Math.floor(minutes / 60);
    String rest = Numbers.plain(minutes - whole * 60) + " min";
    return whole == 0 ? rest : whole + " h " + rest;
  }
}
