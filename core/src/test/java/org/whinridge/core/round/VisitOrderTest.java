package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.round.VisitOrder.Ends;

class VisitOrderTest {
  /** TSPLIB {@code berlin52} (G. Reinelt 1991), coordinates and best tour from memory. */
  private static final int[][] BERLIN_52 =
      of(
          "565 575 25 185 345 750 945 685 845 655 880 660 25 230 525 1000 580 1175 650 1130 1605 620"
              + " 1220 580 1465 200 1530 5 845 680 725 370 145 665 415 635 510 875 560 365 300 465 520 585"
              + " 480 415 835 625 975 580 1215 245 1320 315 1250 400 660 180 410 250 420 555 575 665 1150 1160"
              + " 700 580 685 595 685 610 770 610 795 645 720 635 760 650 475 960 95 260 875 920 700 500"
              + " 555 815 830 485 1170 65 830 610 605 625 595 360 1340 725 1740 245");

  private static final int[] BEST_OF_BERLIN_52 = {
    1, 49, 32, 45, 19, 41, 8, 9, 10, 43, 33, 51, 11, 52, 14, 13, 47, 26, 27, 28, 12, 25, 4, 6, 15,
    5, 24, 48, 38, 37, 40, 39, 36, 35, 34, 44, 46, 16, 29, 50, 20, 23, 30, 2, 7, 42, 21, 17, 3, 18,
    31, 22
  };

  /** TSPLIB {@code eil51} (N. Christofides and S. Eilon 1969), from memory. */
  private static final int[][] EIL_51 =
      of(
          "37 52 49 49 52 64 20 26 40 30 21 47 17 63 31 62 52 33 51 21 42 41 31 32 5 25 12 42 36 16 52 41"
              + " 27 23 17 33 13 13 57 58 62 42 42 57 16 57 8 52 7 38 27 68 30 48 43 67 58 48 58 27 37 69 38 46"
              + " 46 10 61 33 62 63 63 69 32 22 45 35 59 15 5 6 10 17 21 10 5 64 30 15 39 10 32 39 25 32 25 55"
              + " 48 28 56 37 30 40");

  private static final int[] BEST_OF_EIL_51 = {
    1, 22, 8, 26, 31, 28, 3, 36, 35, 20, 2, 29, 21, 16, 50, 34, 30, 9, 49, 10, 39, 33, 45, 15, 44,
    42, 40, 19, 41, 13, 25, 14, 24, 43, 7, 23, 48, 6, 27, 51, 46, 12, 47, 18, 4, 17, 37, 5, 38, 11,
    32
  };

  private static int[][] of(String s) {
    int[] all = Arrays.stream(s.split(" ")).mapToInt(Integer::parseInt).toArray();
    int[][] out = new int[all.length / 2][];
    for (int i = 0; i < out.length; i++) out[i] = new int[] {all[2 * i], all[2 * i + 1]};
    return out;
  }

  /** TSPLIB's EUC_2D: planar, rounded to whole numbers. */
  private static VisitOrder.Distance rounded(int[][] at) {
    return (a, b) -> Math.rint(Math.hypot(at[a][0] - at[b][0], at[a][1] - at[b][1]));
  }

  private static double tour(int[] order, VisitOrder.Distance d) {
    double sum = d.between(order[order.length - 1], order[0]);
    for (int i = 1; i < order.length; i++) sum += d.between(order[i - 1], order[i]);
    return sum;
  }

  private static void isNearTheBest(int[][] at, int[] best, double length) {
    VisitOrder.Distance d = rounded(at);
    assertThat(tour(Arrays.stream(best).map(i -> i - 1).toArray(), d))
        .as("the places are those of the library: its best tour is as long as it says")
        .isEqualTo(length);
    int[] order = VisitOrder.of(at.length, d, 0, 0, VisitOrder.usual(at.length));
    assertThat(order).containsOnlyOnce(IntStream.range(0, at.length).toArray()).hasSize(at.length);
    assertThat(order[0]).isZero();
    assertThat(tour(order, d)).isBetween(length, length * 1.03);
  }

  @Test
  void publishedToursAreFoundWithinThreePercent() {
    isNearTheBest(BERLIN_52, BEST_OF_BERLIN_52, 7542);
    isNearTheBest(EIL_51, BEST_OF_EIL_51, 426);
  }

  private static List<Coordinate> random(int n, long seed) {
    Random r = new Random(seed);
    List<Coordinate> out = new ArrayList<>();
    for (int i = 0; i < n; i++)
      out.add(new Coordinate(-10.4 + r.nextDouble() * 0.3, 57.8 + r.nextDouble() * 0.15));
    return out;
  }

  private static double shortest(List<Coordinate> stops, Ends ends, List<Integer> begun) {
    if (begun.size() == stops.size()) return VisitOrder.lengthM(stops, begun, ends);
    double best = Double.MAX_VALUE;
    for (int i = 0; i < stops.size(); i++) {
      if (begun.contains(i)) continue;
      List<Integer> more = new ArrayList<>(begun);
      more.add(i);
      best = Math.min(best, shortest(stops, ends, more));
    }
    return best;
  }

  /** All orders of six stops against the one that is found, with all kinds of ends. */
  @Test
  void ofFewStopsTheShortestWayIsFound() {
    Coordinate a = new Coordinate(-10.5, 57.79);
    Coordinate b = new Coordinate(-10.1, 57.97);
    List<Ends> all =
        List.of(
            Ends.ANY,
            Ends.from(a),
            Ends.andBack(a),
            new Ends(Optional.of(a), Optional.of(b)),
            new Ends(Optional.empty(), Optional.of(b)));
    for (int seed = 0; seed < 4; seed++)
      for (Ends ends : all) {
        List<Coordinate> stops = random(6, seed);
        VisitOrder found = VisitOrder.of(stops, ends);
        assertThat(found.stops()).containsExactlyInAnyOrder(0, 1, 2, 3, 4, 5);
        assertThat(found.lengthM())
            .isCloseTo(VisitOrder.lengthM(stops, found.stops(), ends), within(1e-9));
        double best = shortest(stops, ends, List.of());
        assertThat(found.lengthM()).isCloseTo(best, within(1e-3));
      }
  }

  @Test
  void theWayIsTheSameEachTimeAndShorterThanFromNearestToNearest() {
    List<Coordinate> stops = random(200, 9);
    Ends ends = Ends.andBack(new Coordinate(-10.25, 57.87));
    VisitOrder one = VisitOrder.of(stops, ends);
    assertThat(VisitOrder.of(stops, ends)).isEqualTo(one);
    List<Integer> nearest = new ArrayList<>();
    Coordinate here = ends.start().get();
    while (nearest.size() < stops.size()) {
      int best = -1;
      for (int i = 0; i < stops.size(); i++)
        if (!nearest.contains(i)
            && (best < 0
                || Geodesy.distanceM(here, stops.get(i))
                    < Geodesy.distanceM(here, stops.get(best)))) best = i;
      nearest.add(best);
      here = stops.get(best);
    }
    assertThat(one.lengthM()).isLessThan(0.88 * VisitOrder.lengthM(stops, nearest, ends));
  }

  @Test
  void fewStopsOneSpotTheDateLineAndThePoleAreWaysToo() {
    assertThat(VisitOrder.of(List.of(), Ends.ANY).stops()).isEmpty();
    assertThat(VisitOrder.of(List.of(), Ends.andBack(new Coordinate(1, 2))).lengthM()).isZero();
    assertThat(VisitOrder.of(random(1, 1), Ends.ANY)).isEqualTo(new VisitOrder(List.of(0), 0));
    List<Coordinate> spot = new ArrayList<>();
    for (int i = 0; i < 40; i++) spot.add(new Coordinate(5, 5));
    assertThat(VisitOrder.of(spot, Ends.ANY).stops()).hasSize(40).doesNotHaveDuplicates();
    assertThat(VisitOrder.of(spot, Ends.ANY).lengthM()).isZero();
    List<Coordinate> line = new ArrayList<>();
    for (int i = 0; i < 20; i++) {
      double x = 179.9 + (i * 7 % 20) * 0.01;
      line.add(new Coordinate(x > 180 ? x - 360 : x, 10));
    }
    assertThat(VisitOrder.of(line, Ends.ANY).lengthM())
        .isCloseTo(Geodesy.distanceM(new Coordinate(0, 10), new Coordinate(0.19, 10)), within(1.0));
    List<Coordinate> pole = new ArrayList<>();
    for (int i = 0; i < 12; i++) pole.add(new Coordinate(i * 150 % 360 - 180.0, 89.9));
    double once = VisitOrder.of(pole, Ends.andBack(pole.get(0))).lengthM();
    assertThat(once).isCloseTo(2 * Math.PI * 11_169, within(1000.0));
  }
}
