package org.whinridge.core.form.line;

import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.text.Numbers;

/**
 * A range in a line: {@code 0..500}, {@code 0.0..5.0}, {@code ..200}, {@code 0..}, with {@code by
 * 5} for a step.
 *
 * @param decimals the most decimals that one of its ends is written with
 */
record Range(OptionalDouble from, OptionalDouble to, double step, int decimals) {
  static final String NUMBER = "[-\u2212]?\\d{1,15}(?:\\.\\d{1,12})?";
  private static final Pattern RANGE =
      Pattern.compile(
          "("
              + NUMBER
              + ")?\\s*(?:\\.\\.|\u2026)\\s*("
              + NUMBER
              + ")?(?:\\s+by\\s+("
              + NUMBER
              + "))?");

  /** The range that a text is; empty when it is none. */
  static Optional<Range> read(String text) {
    Matcher m = RANGE.matcher(text.strip());
    if (!m.matches() || m.group(1) == null && m.group(2) == null) return Optional.empty();
    double step = m.group(3) == null ? 0 : number(m.group(3));
    if (step < 0) return Optional.empty();
    return Optional.of(
        new Range(
            end(m.group(1)),
            end(m.group(2)),
            step,
            Math.max(decimals(m.group(1)), decimals(m.group(2)))));
  }

  private static OptionalDouble end(String s) {
    return s == null ? OptionalDouble.empty() : OptionalDouble.of(number(s));
  }

  private static double number(String s) {
    return Double.parseDouble(s.replace('\u2212', '-'));
  }

  private static int decimals(String s) {
    int dot = s == null ? -1 : s.indexOf('.');
    return dot < 0 ? 0 : s.length() - dot - 1;
  }

  /** Whether its end does not lie below its beginning. */
  boolean isSound() {
    return from.isEmpty() || to.isEmpty() || from.getAsDouble() <= to.getAsDouble();
  }

  /** It as a line has it. @param decimals written with so many decimals; -1 for as they are */
  static String write(OptionalDouble from, OptionalDouble to, double step, int decimals) {
    if (from.isEmpty() && to.isEmpty()) return "";
    return text(from, decimals)
        + ".."
        + text(to, decimals)
        + (step > 0 ? " by " + Numbers.plain(step) : "");
  }

  private static String text(OptionalDouble d, int decimals) {
    if (d.isEmpty()) return "";
    return decimals < 0 ? Numbers.plain(d.getAsDouble()) : Numbers.fixed(d.getAsDouble(), decimals);
  }
}
