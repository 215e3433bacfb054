package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.value.Value;

/**
 * However a visit came to be as it is, it is the same: evaluated step by step, only what depends,
 * and evaluated as a whole from what was kept; and every step taken back leads to the beginning.
 */
class IncrementalTest {
  private static final long SEED = 90125;

  private static void step(Filling f, Random random, int n) {
    String row = f.rows("defects").isEmpty() ? "" : pick(f.rows("defects"), random);
    switch (random.nextInt(12)) {
      case 0:
        f.set(
            "kind",
            random.nextInt(5) == 0
                ? Value.EMPTY
                : Value.text(random.nextBoolean() ? "bank" : "drain"));
        break;
      case 1:
        f.set("wet", random.nextInt(3) == 0 ? Value.EMPTY : Value.of(random.nextBoolean()));
        break;
      case 2:
        f.set(
            "lining",
            Value.many(
                List.of(
                    Value.text(pick(List.of("brick", "clay", "boards", "none", "old"), random)))));
        break;
      case 3:
        f.addRow("defects", "n" + n);
        break;
      case 4:
        f.removeRow(row);
        break;
      case 5:
        f.markRow(row, pick(List.of("still there", "mended", "gone"), random));
        break;
      case 6:
        f.set("severity", row, Value.of(random.nextInt(7)));
        break;
      case 7:
        f.set(
            "length_m",
            row,
            random.nextInt(4) == 0 ? Value.EMPTY : Value.of(random.nextInt(400) / 10.0));
        break;
      case 8:
        f.set("action", row, Value.text("a" + n));
        break;
      case 9:
        f.set("report", Value.text("r" + n));
        break;
      case 10:
        f.confirmSection(random.nextInt(3));
        break;
      default:
        f.moveTo(new Coordinate(random.nextDouble() * 2, random.nextDouble()));
    }
  }

  private static <T> T pick(List<T> from, Random random) {
    return from.get(random.nextInt(from.size()));
  }

  private static VisitStart start() {
    return WalkFixture.start(WalkFixture.last("a", 4, 12), WalkFixture.last("b", 2, 3));
  }

  private static String drawn(Filling f) {
    // what can be taken back is not kept on the device
    return f.viewText().replace("\"canUndo\":true", "\"canUndo\":false");
  }

  @Test
  void stepByStepAndAsAWholeAreTheSame() {
    ExecutableForm form = WalkFixture.compiled();
    for (int visit = 0; visit < 60; visit++) {
      Random random = new Random(SEED + visit);
      Filling f = Filling.open(form, start());
      for (int n = 0; n < 40; n++) {
        step(f, random, n);
        JsonObject saved = WalkFixture.again(f.saved());
        Filling whole = Filling.resume(form, start(), saved);
        assertThat(drawn(whole)).as("seed %d, step %d", SEED + visit, n).isEqualTo(drawn(f));
        assertThat(whole.result()).isEqualTo(WalkFixture.again(f.result()));
        assertThat(whole.saved()).isEqualTo(saved);
      }
    }
  }

  @Test
  void everyStepTakenBackLeadsToTheBeginning() {
    ExecutableForm form = WalkFixture.compiled();
    for (int visit = 0; visit < 60; visit++) {
      Random random = new Random(SEED - visit);
      Filling f = Filling.open(form, start());
      List<String> before = new ArrayList<>();
      for (int n = 0; n < 40; n++) {
        String now = f.viewText();
        int kept = f.undoSteps();
        step(f, random, n);
        if (f.undoSteps() > kept) before.add(now);
      }
      for (int n = before.size() - 1; n >= 0; n--) {
        assertThat(f.undo()).isTrue();
        assertThat(drawn(f))
            .as("seed %d, step %d", SEED - visit, n)
            .isEqualTo(before.get(n).replace("\"canUndo\":true", "\"canUndo\":false"));
      }
      assertThat(f.undo()).isFalse();
    }
  }
}
