package org.whinridge.core.rules.saying;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.text.Fold;
import org.whinridge.core.text.Numbers;

/** The words for functions and operators in sentences; {0}, {1}, {2} stand for the arguments. */
final class Phrases {
  private static final Map<String, String> ALL = new TreeMap<>();

  static {
    ALL.put("today", "today");
    ALL.put("now", "now");
    ALL.put("if", "{1} if {0}, else {2}");
    ALL.put("abs", "{0} without its sign");
    ALL.put("sqrt", "the square root of {0}");
    ALL.put("floor", "{0} rounded down");
    ALL.put("ceil", "{0} rounded up");
    ALL.put("upper", "{0} in capitals");
    ALL.put("lower", "{0} in small letters");
    ALL.put("count", "the number of {0}");
    ALL.put("sum", "the total of {0}");
    ALL.put("mean", "the mean of {0}");
    ALL.put("length", "the number of letters of {0}");
    ALL.put("trim", "{0} without blanks at its ends");
    ALL.put("CASEI", "{0} in any case");
    ALL.put("ACCENTI", "{0} with or without accents");
    ALL.put("label", "the label of {0}");
    ALL.put("days_between", "the days from {0} to {1}");
    ALL.put("years_between", "the years from {0} to {1}");
    ALL.put("add_days", "{1} days after {0}");
    ALL.put("year", "the year of {0}");
    ALL.put("month", "the month of {0}");
    ALL.put("day", "the day of {0}");
    ALL.put("matches", "{0} has the form {1}");
    ALL.put("length_m", "the length of {0} in m");
    ALL.put("area_m2", "the area of {0} in m²");
    ALL.put("area_ha", "the area of {0} in ha");
    ALL.put("distance_m", "the distance from {0} to {1} in m");
    ALL.put("bearing_deg", "the bearing from {0} to {1} in degrees");
    ALL.put("chainage_m", "the chainage of {1} along {0} in m");
    ALL.put("easting", "the easting of {0}");
    ALL.put("northing", "the northing of {0}");
    ALL.put("longitude", "the longitude of {0}");
    ALL.put("latitude", "the latitude of {0}");
    ALL.put("INTERVAL", "{0} to {1}");
    ALL.put("S_INTERSECTS", "{0} meets {1}");
    ALL.put("S_EQUALS", "{0} is the same shape as {1}");
    ALL.put("S_DISJOINT", "{0} lies apart from {1}");
    ALL.put("S_TOUCHES", "{0} touches {1}");
    ALL.put("S_WITHIN", "{0} lies within {1}");
    ALL.put("S_OVERLAPS", "{0} overlaps {1}");
    ALL.put("S_CROSSES", "{0} crosses {1}");
    ALL.put("S_CONTAINS", "{0} holds {1}");
    ALL.put("T_AFTER", "{0} is after {1}");
    ALL.put("T_BEFORE", "{0} is before {1}");
    ALL.put("T_CONTAINS", "{0} spans {1}");
    ALL.put("T_DISJOINT", "{0} lies outside {1}");
    ALL.put("T_DURING", "{0} lies within {1}");
    ALL.put("T_EQUALS", "{0} is at {1}");
    ALL.put("T_FINISHEDBY", "{0} begins before {1} and ends with it");
    ALL.put("T_FINISHES", "{0} begins after {1} and ends with it");
    ALL.put("T_INTERSECTS", "{0} shares time with {1}");
    ALL.put("T_MEETS", "{0} ends when {1} begins");
    ALL.put("T_METBY", "{0} begins when {1} ends");
    ALL.put("T_OVERLAPPEDBY", "{0} begins within {1} and ends after it");
    ALL.put("T_OVERLAPS", "{0} begins before {1} and ends within it");
    ALL.put("T_STARTEDBY", "{0} begins with {1} and ends after it");
    ALL.put("T_STARTS", "{0} begins with {1} and ends before it");
    ALL.put("A_EQUALS", "{0} is exactly {1}");
    ALL.put("A_CONTAINS", "{0} has all of {1}");
    ALL.put("A_CONTAINEDBY", "{0} has nothing but {1}");
    ALL.put("A_OVERLAPS", "{0} has any of {1}");
  }

  private Phrases() {}

  /** What is said of several things that stand in a row, and so needs brackets around it. */
  private static final Set<String> ROWS = Set.of("if", "coalesce", "concat", "min", "max");

  /**
   * Whether a phrase ends with its one argument: "the total of …"; it can be told without brackets.
   */
  static boolean isPrefix(String function) {
    String phrase = ALL.getOrDefault(function, "");
    return phrase.startsWith("the ") && phrase.indexOf("{0}") == phrase.length() - 3;
  }

  /** Whether a phrase names several things in a row. */
  static boolean isRow(String function, int arguments) {
    return ROWS.contains(function) && arguments > 1;
  }

  /** "a, b or c". */
  static String series(List<String> items, String last) {
    int n = items.size();
    return n == 1
        ? items.get(0)
        : String.join(", ", items.subList(0, n - 1)) + last + items.get(n - 1);
  }

  /** To how many decimals something is rounded. */
  static String rounded(double digits) {
    if (digits == 0) return " rounded to a whole number";
    if (digits == -1) return " rounded to tens";
    if (digits == -2) return " rounded to hundreds";
    if (digits == -3) return " rounded to thousands";
    String n = Numbers.plain(digits);
    return " rounded to " + n + (digits == 1 ? " decimal" : " decimals");
  }

  /**
   * A geometry that is written out: a point by its position, others by their corners and a mark.
   */
  static String shape(Geometry g) {
    String kind = Fold.lower(g.getGeometryType());
    if (g instanceof Point && !g.isEmpty())
      return "the point "
          + Numbers.plain(g.getCoordinate().x)
          + " "
          + Numbers.plain(g.getCoordinate().y);
    int mark = 0x811c9dc5; // FNV-1a over its text, so that two shapes do not read the same
    for (char c : Printer.wkt(g).toCharArray()) mark = (mark ^ c) * 0x01000193;
    return "a given "
        + kind
        + " ("
        + g.getNumPoints()
        + " corners, "
        + Integer.toHexString(mark)
        + ")";
  }

  /** The phrase of a call; what has none is said as it is written. */
  static String say(String function, List<String> arguments) {
    String phrase = ALL.get(function);
    if (phrase == null) return other(function, arguments);
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < phrase.length(); i++) {
      if (phrase.charAt(i) != '{') b.append(phrase.charAt(i));
      else {
        b.append(arguments.get(phrase.charAt(i + 1) - '0'));
        i += 2;
      }
    }
    return b.toString();
  }

  private static String other(String function, List<String> a) {
    switch (function) {
      case "coalesce":
        return "the first answered of " + series(a, " and ");
      case "concat":
        return String.join(" followed by ", a);
      case "min":
        return "the smallest of " + series(a, " and ");
      case "max":
        return "the largest of " + series(a, " and ");
      case "round":
        return a.size() == 1
            ? a.get(0) + rounded(0)
            : a.get(0) + " rounded to " + a.get(1) + " decimals";
      case "joined":
        return a.get(0) + (a.size() == 1 ? " joined by commas" : " joined by " + a.get(1));
      case "substr":
        return a.size() == 2
            ? a.get(0) + " from letter " + a.get(1) + " on"
            : a.get(2) + " letters of " + a.get(0) + " from letter " + a.get(1) + " on";
      default:
        return function + "(" + String.join(", ", a) + ")";
    }
  }
}
