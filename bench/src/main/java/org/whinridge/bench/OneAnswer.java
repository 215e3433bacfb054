package org.whinridge.bench;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
import org.whinridge.core.form.ExecutableForm;
import org.whinridge.core.form.Filling;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormCompiler;
import org.whinridge.core.form.VisitStart;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/**
 * One answer in a form of 100 questions and 100 rules, against the same rules written by hand as
 * Java over an array.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class OneAnswer {
  private static final int QUESTIONS = 100;
  private Filling filling;
  private final double[] hand = new double[QUESTIONS];
  private final boolean[] asked = new boolean[QUESTIONS];
  private final List<String> open = new ArrayList<>();
  private int n;

  /**
   * Every tenth question is answered by hand; the others are worked out from it, asked when it is
   * positive, and checked.
   */
  @Setup
  public void form() {
    StringBuilder qs = new StringBuilder();
    for (int i = 0; i < QUESTIONS; i++) {
      int head = i / 10 * 10;
      qs.append(i == 0 ? "" : ",")
          .append("{\"name\":\"q")
          .append(i)
          .append("\",\"label\":\"Q")
          .append(i)
          .append("\",\"type\":\"decimal\",\"checks\":[{\"rule\":\"q")
          .append(i)
          .append(" < 1000000\"}]");
      if (i != head)
        qs.append(",\"askWhen\":\"q")
            .append(head)
            .append(" > 0\",\"workOut\":\"q")
            .append(head)
            .append(" * ")
            .append(i)
            .append(" + 1\"");
      qs.append('}');
    }
    Form f =
        Form.read("{\"title\":\"B\",\"sections\":[{\"title\":\"S\",\"questions\":[" + qs + "]}]}");
    ExecutableForm form =
        FormCompiler.compile(f, new Schema(GeometryKind.POINT, List.of(), "", List.of()))
            .form()
            .orElseThrow();
    filling =
        Filling.open(
            form,
            VisitStart.read(new JsonObject(), Optional.empty(), Map.of(), Optional.empty(), form));
  }

  /** The answer is set; what depends on it is evaluated, its checks too. */
  @Benchmark
  public boolean engine() {
    n++;
    return filling.set("q" + n % 10 * 10, Value.of(n % 50));
  }

  /** The same by hand, with the sheet as JSON on top: what a screen needs after an answer. */
  @Benchmark
  public int engineWithSheetView() {
    engine();
    return filling.viewText().length();
  }

  /** The baseline: the same rules as plain Java over arrays, every question evaluated. */
  @Benchmark
  public int byHand() {
    n++;
    hand[n % 10 * 10] = n % 50;
    open.clear();
    for (int i = 0; i < QUESTIONS; i++) {
      int head = i / 10 * 10;
      asked[i] = i == head || hand[head] > 0;
      if (i != head) hand[i] = asked[i] ? hand[head] * i + 1 : 0;
      if (asked[i] && !(hand[i] < 1000000)) open.add("q" + i);
    }
    return open.size();
  }
}
