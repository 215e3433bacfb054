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
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;
import org.whinridge.core.visit.DryRun;
import org.whinridge.core.visit.VisitStart;

/** A dry run of a form with 25 questions and 50 rules over 100,000 features, on one core. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 2)
@Measurement(iterations = 5)
@Fork(1)
public class DryRuns {
  private static final int FEATURES = 100_000;
  private static final int QUESTIONS = 25;
  private final List<Feature> features = new ArrayList<>();
  private ExecutableForm form;

  /** Each question is prefilled from the asset, asked when the first is positive, and checked. */
  @Setup
  public void make() {
    List<Field> fields = new ArrayList<>();
    StringBuilder qs = new StringBuilder();
    for (int i = 0; i < QUESTIONS; i++) {
      fields.add(Field.of("f" + i, "F" + i, FieldType.DECIMAL));
      qs.append(i == 0 ? "" : ",")
          .append("{\"name\":\"f")
          .append(i)
          .append("\",\"type\":\"decimal\",\"writesTo\":\"f")
          .append(i)
          .append("\",\"prefill\":[{\"from\":\"asset\"}],\"checks\":[{\"rule\":\"f")
          .append(i)
          .append(" < 95\"}");
      if (i == 0) qs.append(",{\"rule\":\"f0 <> 50\"}]}");
      else qs.append("],\"askWhen\":\"f0 > 1\"}");
    }
    Schema schema = new Schema(GeometryKind.POINT, fields, "", List.of());
    form =
        FormCompiler.compile(
                Form.read("{\"title\":\"D\",\"sections\":[{\"questions\":[" + qs + "]}]}"), schema)
            .form()
            .orElseThrow();
    Random random = new Random(7);
    for (int i = 0; i < FEATURES; i++) {
      Map<String, Value> values = new LinkedHashMap<>();
      for (int k = 0; k < QUESTIONS; k++) values.put("f" + k, Value.of(random.nextInt(100)));
      features.add(new Feature("f" + i, Optional.empty(), values, 1));
    }
  }

  /** All features; features per second = 100,000 over the time. */
  @Benchmark
  public DryRun.Report features() {
    DryRun run =
        new DryRun(
            form,
            VisitStart.read(new JsonObject(), Optional.empty(), Map.of(), Optional.empty(), form));
    for (Feature f : features) run.add(f);
    return run.report();
  }
}
