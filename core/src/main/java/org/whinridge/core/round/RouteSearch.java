package org.whinridge.core.round;

import java.util.ArrayDeque;
import java.util.Arrays;

/**
 * Looks for a short way through places: the nearest neighbour first, then exchanges of two edges
 * (2-opt, G. A. Croes 1958) and moves of up to three places (Or-opt, I. Or 1976) among near
 * neighbours; then again and again two neighbouring pieces are swapped, and what is no better after
 * the same exchanges is taken back (iterated local search, H. R. Lourenço and others 2003). The
 * same places come to the same way.
 */
final class RouteSearch {
  /** What the way from one place to another costs: the same both ways, not less than 0. */
  interface Cost {
    double between(int a, int b);
  }

  private static final int NEIGHBOURS = 10;
  private static final int LONGEST_MOVED = 3;
  private static final int LONGEST_SWAPPED = 30;
  private static final double LEAST_GAIN = 1e-7;

  private final int n;
  private final Cost cost;
  private final int[][] near;
  private final int[] way;
  private final int[] at;
  private final boolean[] waits;
  private final ArrayDeque<Integer> waiting = new ArrayDeque<>();
  private long drawn = 1;
  private double gained;
  private int from;
  private int to;

  /**
   * Places 0 to n - 1; the way begins at 0 and ends at n - 1.
   *
   * @param nowhere ends that are no places: what leads to them costs nothing
   */
  RouteSearch(int n, Cost cost, int... nowhere) {
    this.n = n;
    boolean[] open = new boolean[n];
    for (int i : nowhere) open[i] = true;
    this.cost = (a, b) -> open[a] || open[b] ? 0 : cost.between(a, b);
    near = new int[n][];
    for (int i = 0; i < n; i++) near[i] = open[i] ? new int[0] : nearest(i, open);
    way = nearestFirst();
    at = new int[n];
    for (int i = 0; i < n; i++) at[way[i]] = i;
    waits = new boolean[n];
  }

  private int[] nearest(int place, boolean[] open) {
    int[] best = new int[NEIGHBOURS];
    double[] far = new double[NEIGHBOURS];
    int found = 0;
    for (int i = 0; i < n; i++) {
      if (i == place || open[i]) continue;
      double d = cost.between(place, i);
      if (found == NEIGHBOURS && d >= far[found - 1]) continue;
      int k = found < NEIGHBOURS ? found++ : found - 1;
      for (; k > 0 && far[k - 1] > d; k--) {
        far[k] = far[k - 1];
        best[k] = best[k - 1];
      }
      far[k] = d;
      best[k] = i;
    }
    return Arrays.copyOf(best, found);
  }

  private int[] nearestFirst() {
    int[] out = new int[n];
    boolean[] there = new boolean[n];
    there[0] = there[n - 1] = true;
    out[n - 1] = n - 1;
    for (int i = 1; i < n - 1; i++) {
      int best = -1;
      double least = Double.MAX_VALUE;
      for (int k = 1; k < n - 1; k++) {
        if (there[k]) continue;
        double d = cost.between(out[i - 1], k);
        if (d < least) {
          least = d;
          best = k;
        }
      }
      there[out[i] = best] = true;
    }
    return out;
  }

  /**
   * The places in their order.
   *
   * @param tries how often pieces are swapped
   */
  int[] run(int tries) {
    for (int i = 0; i < n; i++) wait(way[i]);
    improve();
    if (n < 8) return way.clone();
    int[] best = way.clone();
    for (int i = 0; i < tries; i++) {
      from = n;
      to = -1;
      gained = 0;
      swap();
      improve();
      if (gained < -LEAST_GAIN) takeBack(best);
      else if (to >= from) System.arraycopy(way, from, best, from, to - from + 1);
    }
    return best;
  }

  private void takeBack(int[] best) {
    for (int i = from; i <= to; i++) at[way[i] = best[i]] = i;
  }

  private void touched(int first, int last) {
    from = Math.min(from, first);
    to = Math.max(to, last);
  }

  private void wait(int place) {
    if (waits[place]) return;
    waits[place] = true;
    waiting.add(place);
  }

  private void improve() {
    while (!waiting.isEmpty()) {
      int a = waiting.poll();
      waits[a] = false;
      while (exchange(a, 1) || exchange(a, -1) || move(a)) continue;
    }
  }

  /** Two edges are exchanged: that from a to the place after it, or before it, and one near a. */
  private boolean exchange(int a, int side) {
    int p = at[a];
    if (p + side < 0 || p + side >= n) return false;
    int b = way[p + side];
    double was = cost.between(a, b);
    for (int c : near[a]) {
      double gain = was - cost.between(a, c);
      if (gain <= LEAST_GAIN) return false;
      int q = at[c];
      if (q + side < 0 || q + side >= n) continue;
      int d = way[q + side];
      gain += cost.between(c, d) - cost.between(b, d);
      if (gain <= LEAST_GAIN) continue;
      int first = Math.min(p, q) + (side > 0 ? 1 : 0);
      turn(first, Math.max(p, q) - (side > 0 ? 0 : 1));
      done(gain, a, b, c, d);
      return true;
    }
    return false;
  }

  private void done(double gain, int... places) {
    gained += gain;
    for (int place : places) wait(place);
  }

  private void turn(int first, int last) {
    touched(first, last);
    for (int i = first, k = last; i < k; i++, k--) {
      int x = way[i];
      at[way[i] = way[k]] = i;
      at[way[k] = x] = k;
    }
  }

  /** Up to three places of which a is the first or the last are moved beside one near a. */
  private boolean move(int a) {
    for (int length = 1; length <= LONGEST_MOVED; length++)
      if (move(a, at[a], at[a] + length - 1) || length > 1 && move(a, at[a] - length + 1, at[a]))
        return true;
    return false;
  }

  private boolean move(int a, int first, int last) {
    if (first < 1 || last > n - 2) return false;
    int before = way[first - 1];
    int after = way[last + 1];
    int e = at[a] == first ? way[last] : way[first];
    double free =
        cost.between(before, way[first])
            + cost.between(way[last], after)
            - cost.between(before, after);
    for (int c : near[a]) {
      double gain = free - cost.between(a, c);
      if (gain <= LEAST_GAIN) return false;
      int q = at[c];
      if (q >= first && q <= last) continue;
      for (int side = 1; side >= -1; side -= 2) {
        int k = q + side;
        if (k < 0 || k >= n || k >= first && k <= last) continue;
        int d = way[k];
        double more = gain + cost.between(c, d) - cost.between(e, d);
        if (more <= LEAST_GAIN) continue;
        // behind c they begin with a, before it they end with it
        boolean turned = side > 0 == (at[a] != first);
        if (first == last) turned = false;
        if (turned) turn(first, last);
        put(first, last, Math.min(q, k));
        done(more, a, e, before, after, c, d);
        return true;
      }
    }
    return false;
  }

  /** Puts the places from first to last behind the one at a place outside of them. */
  private void put(int first, int last, int behind) {
    int length = last - first + 1;
    int[] piece = Arrays.copyOfRange(way, first, last + 1);
    int begin = behind > last ? first : behind + 1;
    int end = behind > last ? behind : last;
    touched(begin, end);
    if (behind > last) System.arraycopy(way, last + 1, way, first, behind - last);
    else System.arraycopy(way, behind + 1, way, behind + 1 + length, first - behind - 1);
    System.arraycopy(piece, 0, way, behind > last ? behind - length + 1 : behind + 1, length);
    for (int i = begin; i <= end; i++) at[way[i]] = i;
  }

  /** A number from 0, by a linear congruence (D. E. Knuth's MMIX), the same on every engine. */
  private int below(int n) {
    drawn = drawn * 6364136223846793005L + 1442695040888963407L;
    return (int) ((drawn >>> 33) % n);
  }

  /** Swaps two pieces that lie beside each other, whatever it costs. */
  private void swap() {
    int first = 1 + below(n - 3);
    int one = 1 + below(Math.min(LONGEST_SWAPPED, n - 2 - first));
    int other = 1 + below(Math.min(LONGEST_SWAPPED, n - 1 - first - one));
    int middle = first + one;
    int last = middle + other - 1;
    int[] ends = {
      way[first - 1], way[first], way[middle - 1], way[middle], way[last], way[last + 1]
    };
    double was =
        cost.between(ends[0], ends[1])
            + cost.between(ends[2], ends[3])
            + cost.between(ends[4], ends[5]);
    double now =
        cost.between(ends[0], ends[3])
            + cost.between(ends[4], ends[1])
            + cost.between(ends[2], ends[5]);
    put(first, middle - 1, last);
    done(was - now, ends);
  }
}
