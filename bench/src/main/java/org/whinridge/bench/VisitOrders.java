package org.whinridge.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.locationtech.jts.geom.Coordinate;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.whinridge.core.round.RoundSplit;
import org.whinridge.core.round.VisitOrder;

/** The order of 1,000 stops and their split over 6 people, beside exchanges alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2)
@Measurement(iterations = 5)
@Fork(1)
public class VisitOrders {
  private static final int STOPS = 1000;
  private final List<Coordinate> stops = new ArrayList<>();
  private final double[] minutes = new double[STOPS];
  private final VisitOrder.Ends ends = VisitOrder.Ends.andBack(new Coordinate(-10.25, 57.88));

  /** Stops all over the island, each with 4 to 25 minutes of work. */
  @Setup
  public void make() {
    Random random = new Random(31);
    for (int i = 0; i < STOPS; i++) {
      stops.add(
          new Coordinate(-10.4 + random.nextDouble() * 0.3, 57.8 + random.nextDouble() * 0.15));
      minutes[i] = 4 + random.nextInt(22);
    }
  }

  /** The baseline: from nearest to nearest, with exchanges until none gains. */
  @Benchmark
  public VisitOrder exchangesAlone() {
    return VisitOrder.of(stops, ends, 0);
  }

  /** As rounds are ordered. */
  @Benchmark
  public VisitOrder order() {
    return VisitOrder.of(stops, ends);
  }

  /** Over six people. */
  @Benchmark
  public List<RoundSplit.Part> split() {
    return RoundSplit.of(stops, minutes, new RoundSplit.How(6, 4000, ends));
  }
}
