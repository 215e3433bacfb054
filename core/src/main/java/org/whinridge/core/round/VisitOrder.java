package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.LocalPlane;

/**
 * In which order stops are visited, and how long the way is.
 *
 * @param stops the numbers of the stops, each once, in the order given by the way
 * @param lengthM geodesic metres from the start over the stops to the end
 */
public record VisitOrder(List<Integer> stops, double lengthM) {
  /** No place: the way begins, or ends, at whichever stop is best. */
  public static final int ANYWHERE = -1;

  /** So often pieces of a way are swapped for each stop. */
  private static final int TRIES = 60;

  private static final int MOST_TRIES = 30_000;

  public VisitOrder {
    stops = List.copyOf(stops);
  }

  /**
   * What lies between places, for an order by something else than metres.
   *
   * @see #of(int, Distance, int, int, int)
   */
  public interface Distance {
    /** The same both ways, 0 or more. */
    double between(int a, int b);
  }

  /**
   * Where a way begins and ends.
   *
   * @param start empty for anywhere
   * @param end empty for anywhere
   */
  public record Ends(Optional<Coordinate> start, Optional<Coordinate> end) {
    /** Anywhere. */
    public static final Ends ANY = new Ends(Optional.empty(), Optional.empty());

    /** From a place to wherever the last stop is. */
    public static Ends from(Coordinate start) {
      return new Ends(Optional.of(start), Optional.empty());
    }

    /** From a place and back to it. */
    public static Ends andBack(Coordinate start) {
      return new Ends(Optional.of(start), Optional.of(start));
    }
  }

  /** The order of stops at positions in degrees, looked for as long as is usual. */
  public static VisitOrder of(List<Coordinate> stops, Ends ends) {
    return of(stops, ends, usual(stops.size()));
  }

  /** How often it is tried to make a way over so many stops shorter. */
  public static int usual(int stops) {
    return Math.min(MOST_TRIES, TRIES * stops);
  }

  /**
   * The order of stops at positions in degrees.
   *
   * @param tries how often it is tried to make the way shorter, 0 for exchanges alone; each takes
   *     about 0.03 ms with 1,000 stops
   */
  public static VisitOrder of(List<Coordinate> stops, Ends ends, int tries) {
    List<Coordinate> places = new ArrayList<>(stops);
    int first = ends.start.map(c -> add(places, c)).orElse(ANYWHERE);
    int last =
        ends.end.isPresent() && ends.end.equals(ends.start)
            ? first
            : ends.end.map(c -> add(places, c)).orElse(ANYWHERE);
    double[][] space = places.stream().map(LocalPlane::space).toArray(double[][]::new);
    List<Integer> order = new ArrayList<>();
    // straight through the earth: what is shorter over ground is so there, too
    for (int i : of(places.size(), (a, b) -> straight(space[a], space[b]), first, last, tries))
      if (i < stops.size()) order.add(i);
    return new VisitOrder(order, lengthM(stops, order, ends));
  }

  private static int add(List<Coordinate> places, Coordinate c) {
    places.add(c);
    return places.size() - 1;
  }

  private static double straight(double[] a, double[] b) {
    double x = a[0] - b[0];
    double y = a[1] - b[1];
    double z = a[2] - b[2];
    return Math.sqrt(x * x + y * y + z * z);
  }

  /** Geodesic metres of the way over stops in an order. */
  public static double lengthM(List<Coordinate> stops, List<Integer> order, Ends ends) {
    List<Coordinate> way = new ArrayList<>();
    ends.start.ifPresent(way::add);
    for (int i : order) way.add(stops.get(i));
    if (!order.isEmpty()) ends.end.ifPresent(way::add);
    double sum = 0;
    for (int i = 1; i < way.size(); i++) sum += Geodesy.distanceM(way.get(i - 1), way.get(i));
    return sum;
  }

  /**
   * The order of places by any distance.
   *
   * @param first the place with which it begins, or {@link #ANYWHERE}
   * @param last the one with which it ends, or {@link #ANYWHERE}; the first for a way that leads
   *     back to it, which is given once
   * @param tries how often it is tried to make the way shorter
   */
  public static int[] of(int places, Distance distance, int first, int last, int tries) {
    boolean back = first == last && first != ANYWHERE;
    int[] place =
        new int[places + (back || first == ANYWHERE ? 1 : 0) + (!back && last == ANYWHERE ? 1 : 0)];
    int n = place.length;
    int k = 1;
    place[0] = first;
    for (int i = 0; i < places; i++) if (i != first && i != last) place[k++] = i;
    place[n - 1] = last;
    List<Integer> nowhere = new ArrayList<>();
    if (first == ANYWHERE) nowhere.add(0);
    if (last == ANYWHERE) nowhere.add(n - 1);
    RouteSearch search =
        new RouteSearch(
            n,
            (a, b) -> distance.between(place[a], place[b]),
            nowhere.stream().mapToInt(i -> i).toArray());
    int[] way = search.run(tries);
    int[] out = new int[places];
    int m = 0;
    for (int i = 0; i < n; i++)
      if (place[way[i]] != ANYWHERE && !(back && i == n - 1)) out[m++] = place[way[i]];
    return out;
  }
}
