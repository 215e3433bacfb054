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
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.VisitStart;

/**
 * One answer in a form of 300 questions and 150 rules, against the same rules written by hand as
 * Java over arrays.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class OneAnswer {
  static final int QUESTIONS = 300;
  private static final String[] NAMES = new String[30];

  static {
    for (int i = 0; i < 30; i++) NAMES[i] = "q" + i * 10;
  }

  private Filling filling;
  private final double[] hand = new double[QUESTIONS];
  private final boolean[] asked = new boolean[QUESTIONS];
  private final List<String> open = new ArrayList<>();
  private int n;

  /**
   * Every tenth question is answered by hand. Of the nine after it, some are asked only when it is
   * positive (75 in all), some are worked out from it (45), some have a check (30).
   */
  static String form() {
    StringBuilder qs = new StringBuilder();
    for (int i = 0; i < QUESTIONS; i++) {
      int head = i / 10 * 10;
      qs.append(i == 0 ? "" : ",")
          .append("{\"name\":\"q")
          .append(i)
          .append("\",\"label\":\"Question ")
          .append(i)
          .append("\",\"type\":\"decimal\",\"hint\":\"as it is\"");
      if (isChecked(i)) qs.append(",\"checks\":[{\"rule\":\"q").append(i).append(" < 1000000\"}]");
      if (isConditional(i)) qs.append(",\"askWhen\":\"q").append(head).append(" > 0\"");
      if (isWorkedOut(i))
        qs.append(",\"workOut\":\"q").append(head).append(" * ").append(i).append(" + 1\"");
      qs.append('}');
    }
    return "{\"title\":\"B\",\"sections\":[{\"title\":\"S\",\"questions\":[" + qs + "]}]}";
  }

  static boolean isConditional(int i) {
    return i % 10 == 1 || i % 10 == 2 || (i % 20 == 3);
  }

  static boolean isWorkedOut(int i) {
    return i % 10 == 4 || i % 20 == 5;
  }

  static boolean isChecked(int i) {
    return i % 10 == 4;
  }

  /** Compiles the form and opens a visit. */
  @Setup
  public void open() {
    ExecutableForm form =
        FormCompiler.compile(
                Form.read(form()), new Schema(GeometryKind.POINT, List.of(), "", List.of()))
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
    return filling.set(NAMES[n % 30], Value.of(n % 50));
  }

  /** The same, and the whole sheet view as JSON text: what a screen needs after an answer. */
  @Benchmark
  public int engineWithSheetView() {
    engine();
    return filling.viewText().length();
  }

  /** The baseline: the same rules as plain Java over arrays, every question evaluated. */
  @Benchmark
  public int byHand() {
    n++;
    hand[n % 30 * 10] = n % 50;
    open.clear();
    for (int i = 0; i < QUESTIONS; i++) {
      double head = hand[i / 10 * 10];
      asked[i] = !isConditional(i) || head > 0;
      if (isWorkedOut(i)) hand[i] = head * i + 1;
      if (isChecked(i) && asked[i] && !(hand[i] < 1000000)) open.add(NAMES[i / 10]);
    }
    return open.size();
  }
}
