package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;

/**
 * The way through a round's stops, of which some may have no place (rows of a table, features that
 * nobody has drawn): these take their time and no way, and come last.
 *
 * @param stops the numbers of the stops in the order of visit
 * @param lengthM geodesic metres over those that have a place
 * @param hours at the stops and between them
 */
public record RoundWay(List<Integer> stops, double lengthM, double hours) {
  public RoundWay {
    stops = List.copyOf(stops);
  }

  /**
   * A stop.
   *
   * @param at position in degrees; empty without a place
   * @param minutes what is to be done there takes, 0 or more
   */
  public record Stop(Optional<Coordinate> at, double minutes) {}

  /** The way in the order in which the stops are given; the number of people does not matter. */
  public static RoundWay asGiven(List<Stop> stops, RoundSplit.How how) {
    List<Coordinate> placed = new ArrayList<>();
    List<Integer> all = new ArrayList<>();
    double minutes = 0;
    for (Stop s : stops) {
      s.at.ifPresent(placed::add);
      all.add(all.size());
      minutes += s.minutes;
    }
    List<Integer> order = new ArrayList<>();
    for (int i = 0; i < placed.size(); i++) order.add(i);
    double lengthM = placed.isEmpty() ? 0 : VisitOrder.lengthM(placed, order, how.ends());
    return new RoundWay(all, lengthM, minutes / 60 + lengthM / how.metresPerHour());
  }

  /**
   * Short ways of about equal hours, one for each person, or one for each stop where there are
   * fewer stops: see {@link RoundSplit}. Each stop without a place goes to whoever has the fewest
   * hours.
   */
  public static List<RoundWay> best(List<Stop> stops, RoundSplit.How how) {
    List<Integer> placed = new ArrayList<>();
    List<Integer> rest = new ArrayList<>();
    for (int i = 0; i < stops.size(); i++) (stops.get(i).at.isPresent() ? placed : rest).add(i);
    List<RoundSplit.Part> parts =
        RoundSplit.of(
            placed.stream().map(i -> stops.get(i).at.orElseThrow()).toList(),
            placed.stream().mapToDouble(i -> stops.get(i).minutes).toArray(),
            how);
    int people = Math.min(how.people(), stops.size());
    List<List<Integer>> orders = new ArrayList<>();
    double[] hours = new double[people];
    double[] lengthM = new double[people];
    for (int k = 0; k < people; k++) {
      orders.add(new ArrayList<>());
      if (k >= parts.size()) continue;
      for (int i : parts.get(k).order().stops()) orders.get(k).add(placed.get(i));
      hours[k] = parts.get(k).hours();
      lengthM[k] = parts.get(k).order().lengthM();
    }
    for (int i : rest) {
      int least = 0;
      for (int k = 1; k < people; k++)
        if (hours[k] < hours[least]
            || hours[k] == hours[least] && orders.get(k).size() < orders.get(least).size())
          least = k;
      orders.get(least).add(i);
      hours[least] += stops.get(i).minutes / 60;
    }
    List<RoundWay> out = new ArrayList<>();
    for (int k = 0; k < people; k++) out.add(new RoundWay(orders.get(k), lengthM[k], hours[k]));
    return out;
  }
}
