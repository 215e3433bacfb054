package org.whinridge.bench;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/** Runs all benchmarks and prints each beside its baseline of the same run. */
public final class Benchmarks {
  private static final Map<String, String> BASELINES =
      Map.of(
          "OneAnswer.engine",
          "OneAnswer.byHand",
          "OneAnswer.engineWithSheetView",
          "OneAnswer.byHand",
          "OneLookUp.lookUp",
          "OneLookUp.plain",
          "OneLookUp.nearest",
          "OneLookUp.plainNearest",
          "OneLookUp.nearestOfIdentical",
          "OneLookUp.plainNearestOfIdentical",
          "WrittenRules.completion",
          "WrittenRules.namesThatBegin",
          "WrittenRules.tally",
          "WrittenRules.byHand");
  private static final List<String> ALONE =
      List.of("OneRule.parseAndCheck", "DryRuns.features", "WrittenRules.view");

  private Benchmarks() {}

  /** Runs them; a pattern as first argument picks some. */
  public static void main(String[] args) throws Exception {
    Collection<RunResult> results =
        new Runner(
                new OptionsBuilder()
                    .include(args.length > 0 ? args[0] : "org.whinridge.bench")
                    .build())
            .run();
    Map<String, Double> scores = new TreeMap<>();
    for (RunResult r : results)
      scores.put(
          r.getParams().getBenchmark().replaceAll("^.*\\.(\\w+\\.\\w+)$", "$1"),
          r.getPrimaryResult().getScore());
    System.out.println();
    BASELINES.forEach(
        (name, base) -> {
          if (scores.containsKey(name) && scores.containsKey(base))
            System.out.printf(
                java.util.Locale.ROOT,
                "%-32s %9.2f µs   %-20s %9.2f µs   ratio %.2f%n",
                name,
                scores.get(name),
                base,
                scores.get(base),
                scores.get(name) / scores.get(base));
        });
    for (String name : ALONE)
      if (scores.containsKey(name))
        System.out.printf(java.util.Locale.ROOT, "%-32s %9.2f µs%n", name, scores.get(name));
  }
}
