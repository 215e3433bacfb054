package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.Geodesy;

/**
 * Splits stops over people into parts of about equal hours that lie close together: one way through
 * all stops is cut where it is longest between two of them, each part gets an order of its own, and
 * the cuts are moved until the hours are alike (route first, cluster second; J. E. Beasley 1983).
 */
public final class RoundSplit {
  /** Parts whose hours differ by no more than this share of the longest are about equal. */
  public static final double ABOUT_EQUAL = 0.1;

  private static final int ROUNDS = 6;
  private static final int STARTS = 48;

  /** So often for each stop a part is made shorter each time that it is cut. */
  private static final int TRIES = 5;

  private RoundSplit() {}

  /**
   * What one person does.
   *
   * @param order over the stops that were given
   * @param hours at the stops and between them
   */
  public record Part(VisitOrder order, double hours) {}

  /**
   * How people go about it.
   *
   * @param people how many, 1 or more
   * @param metresPerHour how fast they travel, more than 0
   * @param ends where each begins and ends
   */
  public record How(int people, double metresPerHour, VisitOrder.Ends ends) {
    public How {
      if (people < 1) throw new IllegalArgumentException("people: " + people);
      if (!(metresPerHour > 0)) throw new IllegalArgumentException("metresPerHour");
    }
  }

  /**
   * The parts: as many as there are people, or one for each stop where there are fewer stops.
   *
   * @param stops positions in degrees
   * @param minutes what is to be done at each takes, by stop
   */
  public static List<Part> of(List<Coordinate> stops, double[] minutes, How how) {
    if (minutes.length != stops.size()) throw new IllegalArgumentException("minutes");
    if (stops.isEmpty()) return List.of();
    int parts = Math.min(how.people, stops.size());
    if (parts == 1)
      return List.of(part(stops, minutes, how, all(stops.size()), VisitOrder.usual(stops.size())));
    int[] way = wayThrough(stops, minutes, how, parts);
    double[] share = new double[parts];
    Arrays.fill(share, 1.0 / parts);
    List<Part> best = List.of();
    for (int i = 0; i < ROUNDS; i++) {
      List<Part> now = new ArrayList<>();
      for (int[] piece : cut(stops, minutes, how, way, share))
        now.add(part(stops, minutes, how, piece, TRIES * piece.length));
      if (best.isEmpty() || spread(now) < spread(best)) best = now;
      if (spread(best) < ABOUT_EQUAL / 4) break;
      move(share, now);
    }
    return best.stream().map(p -> anew(stops, minutes, how, p)).toList();
  }

  /** The same part, its order looked for longer. */
  private static Part anew(List<Coordinate> stops, double[] minutes, How how, Part p) {
    Part longer =
        part(
            stops,
            minutes,
            how,
            p.order.stops().stream().mapToInt(i -> i).toArray(),
            VisitOrder.usual(p.order.stops().size()));
    return longer.hours < p.hours ? longer : p;
  }

  /** How far hours are apart, as a share of the longest. */
  static double spread(List<Part> parts) {
    double most = parts.stream().mapToDouble(Part::hours).max().orElse(0);
    double least = parts.stream().mapToDouble(Part::hours).min().orElse(0);
    return most == 0 ? 0 : (most - least) / most;
  }

  /** Who has more hours than others gets less of the way, and the other way round. */
  private static void move(double[] share, List<Part> parts) {
    double mean = parts.stream().mapToDouble(Part::hours).average().orElse(0);
    double sum = 0;
    for (int i = 0; i < share.length; i++) {
      double hours = Math.max(parts.get(i).hours, mean / 100);
      share[i] *= Math.max(0.5, Math.min(2, mean / hours));
      sum += share[i];
    }
    for (int i = 0; i < share.length; i++) share[i] /= sum;
  }

  private static int[] all(int n) {
    int[] out = new int[n];
    for (int i = 0; i < n; i++) out[i] = i;
    return out;
  }

  /** A way round all stops, begun where it is best cut into equal parts. */
  private static int[] wayThrough(List<Coordinate> stops, double[] minutes, How how, int parts) {
    List<Integer> round =
        new ArrayList<>(
            VisitOrder.of(stops, VisitOrder.Ends.andBack(stops.get(0)), TRIES * stops.size())
                .stops());
    double[] share = new double[parts];
    Arrays.fill(share, 1.0 / parts);
    int[] best = null;
    double most = -1;
    for (int s = 0; s < Math.min(STARTS, round.size()); s++) {
      int[] way = new int[round.size()];
      int from = s * round.size() / Math.min(STARTS, round.size());
      for (int i = 0; i < way.length; i++) way[i] = round.get((from + i) % way.length);
      double saved = Geodesy.distanceM(stops.get(way[way.length - 1]), stops.get(way[0]));
      List<int[]> pieces = cut(stops, minutes, how, way, share);
      for (int i = 1; i < pieces.size(); i++) {
        int[] before = pieces.get(i - 1);
        saved +=
            Geodesy.distanceM(stops.get(before[before.length - 1]), stops.get(pieces.get(i)[0]));
      }
      if (saved > most) {
        most = saved;
        best = way;
      }
    }
    return best;
  }

  /** Cuts a way into pieces of about these shares of its hours, none of them empty. */
  private static List<int[]> cut(
      List<Coordinate> stops, double[] minutes, How how, int[] way, double[] share) {
    double[] until = new double[way.length];
    double sum = 0;
    for (int i = 0; i < way.length; i++) {
      if (i > 0)
        sum += Geodesy.distanceM(stops.get(way[i - 1]), stops.get(way[i])) / how.metresPerHour;
      until[i] = sum + minutes[way[i]] / 120; // the middle of the work there
      sum += minutes[way[i]] / 60;
    }
    List<int[]> out = new ArrayList<>();
    double upTo = 0;
    int first = 0;
    for (int k = 0; k < share.length; k++) {
      upTo += share[k] * sum;
      int left = share.length - 1 - k;
      int last = first + 1;
      while (last < way.length - left && (left == 0 || until[last] <= upTo)) last++;
      out.add(Arrays.copyOfRange(way, first, last));
      first = last;
    }
    return out;
  }

  private static Part part(
      List<Coordinate> stops, double[] minutes, How how, int[] piece, int tries) {
    List<Coordinate> own = new ArrayList<>();
    double work = 0;
    for (int i : piece) {
      own.add(stops.get(i));
      work += minutes[i];
    }
    VisitOrder o = VisitOrder.of(own, how.ends, tries);
    List<Integer> order = o.stops().stream().map(i -> piece[i]).toList();
    return new Part(
        new VisitOrder(order, o.lengthM()), work / 60 + o.lengthM() / how.metresPerHour);
  }
}
