package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.round.RoundWay.Stop;

class RoundWayTest {
  private static final double WALKING = 4000;

  private static Stop at(double lon, double lat, double minutes) {
    return new Stop(Optional.of(new Coordinate(lon, lat)), minutes);
  }

  private static Stop nowhere(double minutes) {
    return new Stop(Optional.empty(), minutes);
  }

  private static RoundSplit.How how(int people) {
    return new RoundSplit.How(people, WALKING, VisitOrder.Ends.ANY);
  }

  /**
   * A degree of longitude on the equator of WGS 84 is 111,319.4908 m: a 6,378,137 m times pi by
   * 180.
   */
  @Test
  void theWayAsItIsGivenCountsGeodesicMetresAndTheTimeAtEachStop() {
    List<Stop> stops = List.of(at(0, 0, 30), nowhere(15), at(2, 0, 0), at(1, 0, 15));
    RoundWay way = RoundWay.asGiven(stops, how(1));
    assertThat(way.stops()).containsExactly(0, 1, 2, 3);
    assertThat(way.lengthM()).isCloseTo(3 * 111_319.4908, within(0.001));
    assertThat(way.hours()).isCloseTo(1 + way.lengthM() / WALKING, within(1e-9));
  }

  @Test
  void theBestWayIsShorterAndWhatHasNoPlaceComesLast() {
    List<Stop> stops = List.of(at(0, 0, 1), nowhere(15), at(2, 0, 1), at(1, 0, 1));
    RoundWay way = RoundWay.best(stops, how(1)).get(0);
    assertThat(way.stops()).isIn(List.of(0, 3, 2, 1), List.of(2, 3, 0, 1));
    assertThat(way.lengthM()).isCloseTo(2 * 111_319.4908, within(0.001));
    assertThat(way.hours()).isCloseTo(0.3 + way.lengthM() / WALKING, within(1e-9));
  }

  @Test
  void stopsWithoutAPlaceAreSpreadOverThosePeopleWhoHaveLessToDo() {
    List<Stop> stops = new ArrayList<>();
    for (int i = 0; i < 9; i++) stops.add(nowhere(20));
    List<RoundWay> ways = RoundWay.best(stops, how(3));
    assertThat(ways).extracting(w -> w.stops().size()).containsExactly(3, 3, 3);
    assertThat(ways).allSatisfy(w -> assertThat(w.hours()).isCloseTo(1, within(1e-9)));
    for (int i = 0; i < 4; i++) stops.add(at(-10 - i * 0.001, 57.9, 60));
    ways = RoundWay.best(stops, how(2));
    assertThat(ways.stream().flatMap(w -> w.stops().stream()))
        .containsExactlyInAnyOrderElementsOf(IntStream.range(0, 13).boxed().toList());
    assertThat(Math.abs(ways.get(0).hours() - ways.get(1).hours())).isLessThan(0.4);
  }

  @Test
  void thereAreNoMoreWaysThanStopsAndNoneOfNothing() {
    assertThat(RoundWay.best(List.of(), how(3))).isEmpty();
    assertThat(RoundWay.best(List.of(nowhere(5)), how(3))).hasSize(1);
    assertThat(RoundWay.best(List.of(at(1, 1, 5), nowhere(5)), how(3)))
        .extracting(RoundWay::stops)
        .containsExactlyInAnyOrder(List.of(0), List.of(1));
    RoundWay none = RoundWay.asGiven(List.of(), how(1));
    assertThat(none.hours()).isZero();
    assertThat(none.lengthM()).isZero();
  }
}
