package org.whinridge.engine;

import java.util.Random;

/** Expressions at random over the names of the golden vectors: every function, odd values. */
final class OddExpressions {
  private static final String[] NUMBERS = {
    "0",
    "1",
    "-1",
    "0.1",
    "0.2",
    "0.3",
    "1e15",
    "0.25",
    "9007199254740993",
    "1e308",
    "4.9e-324",
    "1e-7",
    "123456.789",
    "33.3",
    "silt",
    "width",
    "none",
    "7",
    "1e22",
    "0.000001",
    "15.3"
  };
  private static final String[] TEXTS = {
    "'x'",
    "' a '",
    "'it''s'",
    "'𝔘𝔫𝔦'",
    "'e\u0301'",
    "'ß'",
    "'İ'",
    "'%'",
    "'_a%'",
    "'\\%'",
    "note",
    "kind",
    "nobody",
    "'Łódź'",
    "'ΑΣ'",
    "'ﬁ'",
    "''",
    "'2026-05-04'",
    "concat('a', 1)"
  };
  private static final String[] DATES = {
    "built",
    "today()",
    "DATE('2024-02-29')",
    "DATE('9999-12-31')",
    "DATE('0001-01-01')",
    "DATE('2025-02-29')",
    "DATE('1900-02-29')"
  };
  private static final String[] MOMENTS = {
    "seen",
    "now()",
    "TIMESTAMP('2026-05-04T10:30:00+01:00')",
    "TIMESTAMP('2026-05-03T24:00:00Z')",
    "TIMESTAMP('2026-05-04T09:30Z')",
    "TIMESTAMP('2026-05-04T09:30:00.123456789Z')",
    "TIMESTAMP('1969-12-31T23:59:59.5-0030')",
    "TIMESTAMP('2026-05-04T09:30:00')"
  };
  private static final String[] PLACES = {
    "place",
    "POINT(1 2)",
    "POINT(180 0)",
    "POINT(-180 90)",
    "LINESTRING(0 0, 1 1, 2 0)",
    "LINESTRING(179.9 1, -179.9 1)",
    "POLYGON((0 0, 2 2, 2 0, 0 2, 0 0))",
    "POLYGON((0 0, 4 0, 4 4, 0 4, 0 0), (1 1, 2 1, 2 2, 1 1))",
    "BBOX(-11, 57, -10, 58)",
    "GEOMETRYCOLLECTION(POINT(1 1), LINESTRING(0 0, 2 2))",
    "MULTIPOINT(0 0, 1 1)",
    "POINT EMPTY"
  };
  private static final String[] LISTS = {
    "defects", "lengths", "('a', 'leak')", "()", "('leak', 'crack')", "(1, 2.5, none)"
  };
  private final Random random;

  OddExpressions(long seed) {
    random = new Random(seed);
  }

  private String pick(String... from) {
    return from[random.nextInt(from.length)];
  }

  /** The next expression; one in twenty is damaged. */
  String next() {
    String s = random.nextInt(3) == 0 ? number(3) : random.nextInt(4) == 0 ? text(2) : condition(3);
    if (random.nextInt(20) != 0) return s;
    int at = random.nextInt(s.length());
    String odd =
        pick("'", "(", ")", "‘", " ", "≤", "𝔘", "\\", ".", ",", "e", "AND", "\u0301", "+");
    return s.substring(0, at) + odd + s.substring(at);
  }

  private String number(int depth) {
    if (depth <= 0) return pick(NUMBERS);
    switch (random.nextInt(12)) {
      case 0:
      case 1:
      case 2:
        return "("
            + number(depth - 1)
            + ") "
            + pick("+", "-", "*", "/", "%", "div", "^")
            + " ("
            + number(depth - 1)
            + ")";
      case 3:
        return pick("abs", "floor", "ceil", "sqrt", "round", "-", "+")
            + "("
            + number(depth - 1)
            + ")";
      case 4:
        return "round("
            + number(depth - 1)
            + ", "
            + pick("0", "1", "2", "-2", "12", "-12", "0.5", "99")
            + ")";
      case 5:
        return pick("min", "max", "coalesce")
            + "("
            + number(depth - 1)
            + ", "
            + pick(number(0), "lengths")
            + ")";
      case 6:
        return pick("count", "sum", "mean", "min", "max") + "(" + pick(LISTS) + ")";
      case 7:
        return "length(" + text(depth - 1) + ")";
      case 8:
        return pick("days_between", "years_between") + "(" + date(depth - 1) + ", " + date(0) + ")";
      case 9:
        return pick("year", "month", "day") + "(" + date(depth - 1) + ")";
      case 10:
        return pick(
                "longitude", "latitude", "length_m", "area_m2", "area_ha", "easting", "northing")
            + "("
            + pick(PLACES)
            + ")";
      default:
        return pick("distance_m", "bearing_deg", "chainage_m")
            + "("
            + pick(PLACES)
            + ", "
            + pick(PLACES)
            + ")";
    }
  }

  private String text(int depth) {
    if (depth <= 0) return pick(TEXTS);
    switch (random.nextInt(5)) {
      case 0:
        return pick("upper", "lower", "trim", "CASEI", "ACCENTI") + "(" + text(depth - 1) + ")";
      case 1:
        return "substr("
            + text(depth - 1)
            + ", "
            + pick(NUMBERS)
            + pick("", ", " + pick(NUMBERS))
            + ")";
      case 2:
        return "concat(" + text(depth - 1) + ", " + number(0) + ", " + date(0) + ")";
      case 3:
        return "joined(" + pick(LISTS) + pick("", ", " + pick(TEXTS)) + ")";
      default:
        return pick("label(kind)", "if(ok, " + text(0) + ", " + text(0) + ")");
    }
  }

  private String date(int depth) {
    return depth <= 0
        ? pick(DATES)
        : "add_days("
            + date(depth - 1)
            + ", "
            + pick("1", "-30", "1e6", "3652059", "1.9", "silt", "none")
            + ")";
  }

  private String time() {
    switch (random.nextInt(3)) {
      case 0:
        return date(1);
      case 1:
        return pick(MOMENTS);
      default:
        return "INTERVAL("
            + pick("'..'", "'1987-05-04'", "built", pick(MOMENTS))
            + ", "
            + pick("'..'", "'2026-05-04'", pick(MOMENTS))
            + ")";
    }
  }

  private String condition(int depth) {
    if (depth <= 0)
      return pick("ok", "none > 1", "TRUE", "kind = 'flap'", "NOT ok", "nobody IS NULL");
    switch (random.nextInt(11)) {
      case 0:
        return "("
            + condition(depth - 1)
            + ") "
            + pick("AND", "OR")
            + " ("
            + condition(depth - 1)
            + ")";
      case 1:
        return "NOT (" + condition(depth - 1) + ")";
      case 2:
        return number(depth - 1)
            + " "
            + pick("=", "<>", "<", ">", "<=", ">=")
            + " "
            + number(depth - 1);
      case 3:
        return text(depth - 1) + pick(" = ", " < ", " LIKE ", " NOT LIKE ") + pick(TEXTS);
      case 4:
        return date(depth - 1) + pick(" = ", " < ", " >= ") + date(0);
      case 5:
        return "T_"
            + pick(
                "AFTER",
                "BEFORE",
                "DURING",
                "EQUALS",
                "MEETS",
                "OVERLAPS",
                "STARTS",
                "CONTAINS",
                "DISJOINT",
                "FINISHES",
                "METBY")
            + "("
            + time()
            + ", "
            + time()
            + ")";
      case 6:
        return "S_"
            + pick(
                "INTERSECTS",
                "EQUALS",
                "DISJOINT",
                "TOUCHES",
                "WITHIN",
                "OVERLAPS",
                "CROSSES",
                "CONTAINS")
            + "("
            + pick(PLACES)
            + ", "
            + pick(PLACES)
            + ")";
      case 7:
        return "A_"
            + pick("EQUALS", "CONTAINS", "CONTAINEDBY", "OVERLAPS")
            + "("
            + pick(LISTS)
            + ", "
            + pick(LISTS)
            + ")";
      case 8:
        return "matches("
            + text(0)
            + ", "
            + pick("'.'", "'[A-Z]+'", "'\\\\p{L}+'", "'a|b'", "'(?=x)'", "'['")
            + ")";
      case 9:
        return "("
            + number(depth - 1)
            + ")"
            + pick("", " NOT")
            + pick(
                " IN (" + number(0) + ", " + number(0) + ")",
                " BETWEEN " + number(0) + " AND " + number(0));
      default:
        return pick(MOMENTS) + pick(" = ", " < ", " >= ") + pick(MOMENTS);
    }
  }
}
