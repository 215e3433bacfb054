package org.whinridge.core.rules;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** The words for functions and operators in sentences; {0}, {1}, {2} stand for the arguments. */
final class Phrases {
  private static final Map<String, String> ALL = new TreeMap<>();

  static {
    ALL.put("today", "today");
    ALL.put("now", "now");
    ALL.put("if", "{1} if {0}, else {2}");
    ALL.put("abs", "{0} without its sign");
    ALL.put("round", "{0}, rounded");
    ALL.put("floor", "{0}, rounded down");
    ALL.put("ceil", "{0}, rounded up");
    ALL.put("count", "the number of {0}");
    ALL.put("sum", "the total of {0}");
    ALL.put("mean", "the mean of {0}");
    ALL.put("length", "the number of letters of {0}");
    ALL.put("trim", "{0}");
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

  /**
   * The phrase of a call; {@code min(a, b)} and others without one are said as they are written.
   */
  static String say(String function, List<String> arguments) {
    String phrase = ALL.get(function);
    if (phrase == null) {
      if (function.equals("coalesce")) return String.join(", else ", arguments);
      if (function.equals("concat")) return String.join(" followed by ", arguments);
      if (function.equals("min") || function.equals("max"))
        return (function.equals("min") ? "the smallest of " : "the largest of ")
            + String.join(", ", arguments);
      return function + "(" + String.join(", ", arguments) + ")";
    }
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
}
