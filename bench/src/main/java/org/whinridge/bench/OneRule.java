package org.whinridge.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.rules.Rules;

/** Reading and checking a rule of 200 characters. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class OneRule {
  private static final String RULE =
      "kind IN ('tide_flap', 'sluice', 'penstock') AND (silt_depth > 100 OR silt_depth IS NULL)"
          + " AND NOT (condition BETWEEN 1 AND 2) AND years_between(installed, today()) >= 20 AND notes NOT LIKE '%ok%'";
  private final LayerScope scope =
      new LayerScope(
          new Schema(
              GeometryKind.POINT,
              List.of(
                  Field.of("kind", "Kind", FieldType.CODE)
                      .with(
                          List.of(
                              Code.of("tide_flap", "Tide flap"),
                              Code.of("sluice", "Sluice"),
                              Code.of("penstock", "Penstock"))),
                  Field.of("silt_depth", "Silt depth", FieldType.WHOLE),
                  Field.of("condition", "Condition", FieldType.WHOLE),
                  Field.of("installed", "Installed", FieldType.DATE),
                  Field.of("notes", "Notes", FieldType.TEXT)),
              "",
              List.of()));

  /** Text to a checked rule, its steps made ready. */
  @Benchmark
  public Rules.Outcome parseAndCheck() {
    return Rules.condition(RULE, scope);
  }
}
