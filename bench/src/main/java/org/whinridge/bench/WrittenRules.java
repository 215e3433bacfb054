package org.whinridge.bench;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
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
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.RulePlace;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;
import org.whinridge.core.visit.RuleTally;
import org.whinridge.core.visit.VisitStart;

/**
 * A rule while it is written in a form of 300 questions: gone on with, read, counted visit by
 * visit.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class WrittenRules {
  private static final int QUESTIONS = 300;
  private static final int FEATURES = 10_000;
  private static final String RULE = "f7 > 20 AND f30 <= f31 + 2";
  private final List<Feature> features = new ArrayList<>();
  private final List<String> names = new ArrayList<>();
  private Schema schema;
  private Form form;
  private RulePlace place;

  /** Each question is prefilled from the asset; every tenth is asked when the first is positive. */
  @Setup
  public void make() {
    List<Field> fields = new ArrayList<>();
    StringBuilder qs = new StringBuilder();
    for (int i = 0; i < QUESTIONS; i++) {
      names.add("f" + i);
      fields.add(Field.of("f" + i, "F" + i, FieldType.DECIMAL));
      qs.append(i == 0 ? "" : ",")
          .append("{\"name\":\"f" + i + "\",\"type\":\"decimal\",\"writesTo\":\"f" + i + "\"")
          .append(i % 10 == 7 ? ",\"askWhen\":\"f0 > 1\"" : "")
          .append(",\"prefill\":[{\"from\":\"asset\"}]}");
    }
    schema = new Schema(GeometryKind.POINT, fields, "", List.of());
    form = Form.read("{\"title\":\"W\",\"sections\":[{\"questions\":[" + qs + "]}]}");
    place = new RulePlace(form, schema, "");
    Random random = new Random(7);
    for (int i = 0; i < FEATURES; i++) {
      Map<String, Value> values = new LinkedHashMap<>();
      for (String name : names) values.put(name, Value.of(random.nextInt(100)));
      features.add(new Feature("f" + i, Optional.empty(), values, 1));
    }
  }

  /** What could be written at the cursor. */
  @Benchmark
  public JsonObject completion() {
    return place.completion("f7 > 20 AND f3", 14);
  }

  /** The baseline: the names that begin so. */
  @Benchmark
  public List<String> namesThatBegin() {
    return names.stream().filter(n -> n.startsWith("f3")).toList();
  }

  /** The rule read, checked, said and taken apart. */
  @Benchmark
  public JsonObject view() {
    return place.view(RULE, ValueType.YES_NO);
  }

  /** For how many of 10,000 features it holds, each visited. */
  @Benchmark
  public int tally() {
    RuleTally t =
        RuleTally.of(
                form,
                schema,
                RULE,
                f ->
                    VisitStart.read(
                        new JsonObject(), Optional.empty(), Map.of(), Optional.empty(), f))
            .orElseThrow();
    features.forEach(t::add);
    return t.holds();
  }

  /** The baseline: the same condition by hand. */
  @Benchmark
  public int byHand() {
    int holds = 0;
    for (Feature f : features)
      if (number(f, "f0") > 1 && number(f, "f7") > 20 && number(f, "f30") <= number(f, "f31") + 2)
        holds++;
    return holds;
  }

  private static double number(Feature f, String name) {
    return ((Value.Num) f.value(name)).value();
  }
}
