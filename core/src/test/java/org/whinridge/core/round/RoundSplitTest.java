package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.VisitOrder.Ends;

class RoundSplitTest {
  private static final double WALKING = 4000;

  private static List<Coordinate> random(int n) {
    Random r = new Random(31);
    List<Coordinate> out = new ArrayList<>();
    for (int i = 0; i < n; i++)
      out.add(new Coordinate(-10.4 + r.nextDouble() * 0.3, 57.8 + r.nextDouble() * 0.15));
    return out;
  }

  private static double[] minutes(int n) {
    Random r = new Random(8);
    return r.doubles(n, 4, 25).toArray();
  }

  private static void isSplit(
      List<RoundSplit.Part> parts, List<Coordinate> stops, double[] minutes, RoundSplit.How how) {
    assertThat(parts.stream().flatMap(p -> p.order().stops().stream()))
        .as("each stop is somebody's, and one person's")
        .containsExactlyInAnyOrderElementsOf(IntStream.range(0, stops.size()).boxed().toList());
    for (RoundSplit.Part p : parts) {
      double work = p.order().stops().stream().mapToDouble(i -> minutes[i]).sum() / 60;
      double way = VisitOrder.lengthM(stops, p.order().stops(), how.ends());
      assertThat(p.order().lengthM()).isCloseTo(way, within(1e-6));
      assertThat(p.hours()).isCloseTo(work + way / how.metresPerHour(), within(1e-9));
    }
  }

  /** Hours within 10 %, and each part within a hull that is little more than its share. */
  @Test
  void hoursAreAlikeAndPartsLieCloseTogether() {
    List<Coordinate> stops = random(240);
    double[] minutes = minutes(240);
    for (int people : new int[] {2, 3, 6})
      for (Ends ends : List.of(Ends.ANY, Ends.andBack(new Coordinate(-10.25, 57.88)))) {
        RoundSplit.How how = new RoundSplit.How(people, WALKING, ends);
        List<RoundSplit.Part> parts = RoundSplit.of(stops, minutes, how);
        assertThat(parts).hasSize(people);
        isSplit(parts, stops, minutes, how);
        assertThat(RoundSplit.spread(parts)).as(people + " " + ends).isLessThan(0.1);
        double hulls = 0;
        for (RoundSplit.Part p : parts)
          hulls +=
              GeometryJson.WGS84
                  .createMultiPointFromCoords(
                      p.order().stops().stream().map(stops::get).toArray(Coordinate[]::new))
                  .convexHull()
                  .getArea();
        assertThat(hulls / (0.3 * 0.15)).as("hulls of " + people).isLessThan(1.6);
      }
  }

  @Test
  void fewStopsManyPeopleAndNoWork() {
    List<Coordinate> three = random(3);
    RoundSplit.How five = new RoundSplit.How(5, WALKING, Ends.ANY);
    double[] none = new double[3];
    assertThat(RoundSplit.of(three, none, five)).hasSize(3);
    isSplit(RoundSplit.of(three, none, five), three, none, five);
    assertThat(RoundSplit.of(List.of(), new double[0], five)).isEmpty();
    RoundSplit.How one = new RoundSplit.How(1, WALKING, Ends.ANY);
    assertThat(RoundSplit.of(three, none, one)).hasSize(1);
    List<Coordinate> spot = new ArrayList<>();
    for (int i = 0; i < 30; i++) spot.add(new Coordinate(3, 3));
    double[] ten = new double[30];
    Arrays.fill(ten, 10);
    List<RoundSplit.Part> parts = RoundSplit.of(spot, ten, five);
    assertThat(parts).allSatisfy(p -> assertThat(p.hours()).isCloseTo(1, within(1e-9)));
    assertThatThrownBy(() -> new RoundSplit.How(0, WALKING, Ends.ANY))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> new RoundSplit.How(2, 0, Ends.ANY))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
