package org.whinridge.core.rules;

/**
 * Rules made by a seeded generator, well typed by construction, over the names kind, note (texts),
 * silt, width, none (numbers, the last empty), ok (yes / no), built (a date), seen (a moment),
 * defects, lengths (lists) and place. The same on every engine.
 */
public final class RuleGenerator {
  private long state;

  /** A generator that makes the same rules for the same seed. */
  public RuleGenerator(long seed) {
    state = seed * 0x9E3779B97F4A7C15L + 1;
  }

  /** A linear congruential generator with the multiplier of D. Knuth's MMIX. */
  private int next(int n) {
    state = state * 6364136223846793005L + 1442695040888963407L;
    return (int) ((state >>> 33) % n);
  }

  private String pick(String... from) {
    return from[next(from.length)];
  }

  /** A condition of that depth at most. */
  public String condition(int depth) {
    if (depth == 0)
      return pick(
          "ok", "TRUE", "FALSE", "kind = 'flap'", "none IS NULL", "none > 1", "note LIKE '%ea_%'");
    switch (next(12)) {
      case 0:
        return "(" + condition(depth - 1) + ") AND (" + condition(depth - 1) + ")";
      case 1:
        return "(" + condition(depth - 1) + ") OR (" + condition(depth - 1) + ")";
      case 2:
        return "NOT (" + condition(depth - 1) + ")";
      case 3:
        return number(depth - 1)
            + pick(" = ", " <> ", " < ", " > ", " <= ", " >= ")
            + number(depth - 1);
      case 4:
        return text(depth - 1)
            + pick("", " NOT")
            + " LIKE "
            + pick("'%a_'", "'it''s%'", "'\\%'", "note");
      case 5:
        return "("
            + number(depth - 1)
            + ")"
            + pick("", " NOT")
            + " IN ("
            + number(depth - 1)
            + ", "
            + number(0)
            + ")";
      case 6:
        return "(" + number(depth - 1) + ") IS" + pick("", " NOT") + " NULL";
      case 7:
        return "("
            + number(depth - 1)
            + ")"
            + pick("", " NOT")
            + " BETWEEN "
            + number(0)
            + " AND "
            + number(0);
      case 8:
        return date(depth - 1) + pick(" < ", " = ", " >= ") + date(depth - 1);
      case 9:
        return pick("T_AFTER", "T_DURING", "T_INTERSECTS", "T_OVERLAPS", "T_MEETS")
            + "("
            + time(depth - 1)
            + ", "
            + time(depth - 1)
            + ")";
      case 10:
        return pick("S_INTERSECTS", "S_WITHIN", "S_DISJOINT")
            + "("
            + pick("place", "POINT(-10.2 57.9)", "POINT(1 2)")
            + ", BBOX(-11, 57, "
            + pick("-10", "-10.5")
            + ", 58))";
      default:
        return pick("A_CONTAINS", "A_OVERLAPS", "A_EQUALS", "A_CONTAINEDBY")
            + "(defects, ('leak', "
            + pick("'crack'", "'x'")
            + "))";
    }
  }

  /** A formula that gives a number, of that depth at most. */
  public String number(int depth) {
    if (depth <= 0) return pick("silt", "width", "none", "3", "-2", "0.5", "1e3", "0", "0.1");
    switch (next(8)) {
      case 0:
        return "-(" + number(depth - 1) + ")";
      case 1:
        return "("
            + number(depth - 1)
            + ")"
            + pick(" + ", " - ", " * ", " / ", " % ", " div ")
            + "("
            + number(depth - 1)
            + ")";
      case 2:
        return pick("abs", "floor", "ceil", "round", "sqrt") + "(" + number(depth - 1) + ")";
      case 3:
        return "if("
            + condition(depth - 1)
            + ", "
            + number(depth - 1)
            + ", "
            + number(depth - 1)
            + ")";
      case 4:
        return "coalesce(" + number(depth - 1) + ", 7)";
      case 5:
        return pick("min", "max") + "(" + number(depth - 1) + ", lengths)";
      case 6:
        return "days_between(" + date(depth - 1) + ", " + date(0) + ")";
      default:
        return "length(" + text(depth - 1) + ")";
    }
  }

  private String date(int depth) {
    if (depth <= 0) return pick("built", "today()", "DATE('2024-02-29')");
    return "add_days(" + date(depth - 1) + ", " + pick("1", "-30", "365", "silt") + ")";
  }

  private String time(int depth) {
    return next(3) == 0
        ? pick(
            "seen", "TIMESTAMP('2026-05-04T09:30:00Z')", "INTERVAL('2026-01-01T00:00:00Z', '..')")
        : next(2) == 0
            ? date(depth)
            : "INTERVAL("
                + pick("'..'", "'1987-05-04'", "built")
                + ", "
                + pick("'..'", "'2026-05-04'", "today()")
                + ")";
  }

  private String text(int depth) {
    if (depth <= 0) return pick("note", "kind", "'plain'", "'it''s'", "'%'", "label(kind)");
    return pick("upper", "lower", "trim", "CASEI", "ACCENTI") + "(" + text(depth - 1) + ")";
  }
}
