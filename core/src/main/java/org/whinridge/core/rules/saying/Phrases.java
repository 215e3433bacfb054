package org.whinridge.core.rules.saying;

import java.util.List;
import java.util.Set;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;

/**
 * What the functions of the language are called in a sentence. The phrases themselves are texts of
 * the catalogue; which of them are there, and how they may stand in others, is decided here.
 */
final class Phrases {
  /** The functions whose phrase takes its arguments one by one: {@code a}, {@code b}, {@code c}. */
  private static final Set<String> PLAIN =
      Set.of(
          "today",
          "now",
          "if",
          "abs",
          "sqrt",
          "floor",
          "ceil",
          "upper",
          "lower",
          "count",
          "sum",
          "mean",
          "length",
          "trim",
          "CASEI",
          "ACCENTI",
          "label",
          "days_between",
          "years_between",
          "add_days",
          "year",
          "month",
          "day",
          "matches",
          "length_m",
          "area_m2",
          "area_ha",
          "distance_m",
          "bearing_deg",
          "chainage_m",
          "easting",
          "northing",
          "longitude",
          "latitude",
          "INTERVAL",
          "S_INTERSECTS",
          "S_EQUALS",
          "S_DISJOINT",
          "S_TOUCHES",
          "S_WITHIN",
          "S_OVERLAPS",
          "S_CROSSES",
          "S_CONTAINS",
          "T_AFTER",
          "T_BEFORE",
          "T_CONTAINS",
          "T_DISJOINT",
          "T_DURING",
          "T_EQUALS",
          "T_FINISHEDBY",
          "T_FINISHES",
          "T_INTERSECTS",
          "T_MEETS",
          "T_METBY",
          "T_OVERLAPPEDBY",
          "T_OVERLAPS",
          "T_STARTEDBY",
          "T_STARTS",
          "A_EQUALS",
          "A_CONTAINS",
          "A_CONTAINEDBY",
          "A_OVERLAPS");

  /** Functions whose phrase ends with its one argument: "the total of …". */
  private static final Set<String> PREFIXES =
      Set.of(
          "sqrt",
          "count",
          "sum",
          "mean",
          "length",
          "label",
          "year",
          "month",
          "day",
          "easting",
          "northing",
          "longitude",
          "latitude");

  /** Texts in which an "and" or an "or" stands already. */
  private static final Set<String> JOINS =
      Set.of(
          "list.and",
          "list.or",
          "phrase.between",
          "phrase.notBetween",
          "phrase.and",
          "phrase.or",
          "phrase.andComma",
          "phrase.orComma",
          "phrase.ACCENTI",
          "phrase.T_FINISHEDBY",
          "phrase.T_FINISHES",
          "phrase.T_OVERLAPPEDBY",
          "phrase.T_OVERLAPS",
          "phrase.T_STARTEDBY",
          "phrase.T_STARTS");

  /** What is said of several things that stand in a row, and so needs brackets around it. */
  private static final Set<String> ROWS = Set.of("if", "coalesce", "concat", "min", "max");

  private Phrases() {}

  /**
   * Whether a phrase ends with its one argument: "the total of …"; it can be told without brackets.
   */
  static boolean isPrefix(String function) {
    return PREFIXES.contains(function);
  }

  /** Whether a phrase names several things in a row. */
  static boolean isRow(String function, int arguments) {
    return ROWS.contains(function) && arguments > 1;
  }

  /** Whether things are joined in a phrase, so that more can be joined to it only by a comma. */
  static boolean isJoined(Said said) {
    if (JOINS.contains(said.key())) return true;
    for (Object v : said.args().values())
      if (v instanceof Said s ? isJoined(s) : v instanceof String t && joins(t)) return true;
    return false;
  }

  private static boolean joins(String text) {
    return text.contains(" or ") || text.contains(" and ");
  }

  /** To how many decimals something is rounded. */
  static Said rounded(Said a, double digits) {
    if (digits == 0) return Said.of("phrase.roundedWhole", "a", a);
    if (digits == -1) return Said.of("phrase.roundedTens", "a", a);
    if (digits == -2) return Said.of("phrase.roundedHundreds", "a", a);
    if (digits == -3) return Said.of("phrase.roundedThousands", "a", a);
    return Said.of("phrase.rounded", "a", a, "n", digits);
  }

  /**
   * A geometry that is written out: a point by its position, others by their corners and a mark.
   */
  static Said shape(Geometry g) {
    if (g instanceof Point && !g.isEmpty())
      return Said.of(
          "phrase.point",
          "x",
          Said.number(g.getCoordinate().x),
          "y",
          Said.number(g.getCoordinate().y));
    int mark = 0x811c9dc5; // FNV-1a over its text, so that two shapes do not read the same
    for (char c : Printer.wkt(g).toCharArray()) mark = (mark ^ c) * 0x01000193;
    return Said.of(
        "phrase.shape",
        "kind",
        Fold.lower(g.getGeometryType()),
        "n",
        g.getNumPoints(),
        "mark",
        Integer.toHexString(mark));
  }

  /** The phrase of a call; what has none is said as it is written. */
  static Said say(String function, List<Said> a) {
    if (PLAIN.contains(function)) return of("phrase." + function, a);
    switch (function) {
      case "coalesce":
      case "min":
      case "max":
        return Said.of("phrase." + function, "a", Said.row(a, "list.and"));
      case "concat":
        return Said.row(a, "phrase.followedBy", "phrase.followedBy");
      case "round":
        return a.size() == 1 ? rounded(a.get(0), 0) : of("phrase.roundedBy", a);
      case "joined":
        return of(a.size() == 1 ? "phrase.joinedCommas" : "phrase.joined", a);
      case "substr":
        return of(a.size() == 2 ? "phrase.substr" : "phrase.substrCount", a);
      default:
        return Said.of("phrase.call", "function", function, "a", Said.inARow(a, "list.then"));
    }
  }

  private static Said of(String key, List<Said> a) {
    Object[] args = new Object[2 * a.size()];
    for (int i = 0; i < a.size(); i++) {
      args[2 * i] = String.valueOf((char) ('a' + i));
      args[2 * i + 1] = a.get(i);
    }
    return Said.of(key, args);
  }
}
