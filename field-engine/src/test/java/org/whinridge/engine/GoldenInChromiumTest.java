package org.whinridge.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The compiled engine in a real browser gives what core gives on the JVM. */
class GoldenInChromiumTest {
  /** How many expressions both sides are tried with; ./test --long asks for 10,000. */
  private static final int FUZZ = Integer.getInteger("whinridge.fuzz", 1000);

  @Test
  void theCompiledEngineGivesTheGoldenResults() throws Exception {
    try (EngineInChromium engine = new EngineInChromium()) {
      List<List<String>> inputs = new ArrayList<>();
      var vectors = GoldenVectors.all();
      for (var v : vectors) inputs.add(List.of(v.kind(), v.input()));
      List<String> got = engine.run(inputs);
      List<String> wrong = new ArrayList<>();
      for (int i = 0; i < vectors.size(); i++)
        if (!vectors.get(i).agrees(got.get(i)))
          wrong.add(
              told(
                  vectors.get(i).kind(),
                  vectors.get(i).input(),
                  vectors.get(i).result(),
                  got.get(i)));
      assertThat(wrong).isEmpty();
    }
  }

  private static String told(String kind, String input, String jvm, String chromium) {
    return kind + " " + input + "\n  JVM      " + jvm + "\n  Chromium " + chromium;
  }

  /**
   * Expressions at random, sound and unsound, with odd values. Printed: how many come out apart.
   */
  @Test
  void bothSidesAgreeOnWhatNobodyThoughtOf() throws Exception {
    OddExpressions odd = new OddExpressions(20261129);
    List<List<String>> inputs = new ArrayList<>();
    List<String> expected = new ArrayList<>();
    for (int i = 0; i < FUZZ; i++) {
      String text = odd.next();
      for (String kind : new String[] {"rule", "problem", "json"}) {
        inputs.add(List.of(kind, text));
        expected.add(onTheJvm(kind, text));
      }
    }
    List<String> apart = new ArrayList<>();
    try (EngineInChromium engine = new EngineInChromium()) {
      List<String> got = engine.run(inputs);
      for (int i = 0; i < inputs.size(); i++)
        if (!agree(inputs.get(i).get(1), expected.get(i), got.get(i)))
          apart.add(told(inputs.get(i).get(0), inputs.get(i).get(1), expected.get(i), got.get(i)));
    }
    System.out.println("expressions that come out apart: " + apart.size() + " of " + FUZZ);
    assertThat(apart).isEmpty();
    assertThat(expected).as("nothing is thrown").noneMatch(s -> s.startsWith("thrown"));
  }

  private static String onTheJvm(String kind, String text) {
    try {
      return Golden.run(kind, text);
    } catch (RuntimeException e) {
      return "thrown: " + e;
    }
  }

  /** Measures on the ellipsoid may differ in their last digits, nothing else may. */
  private static boolean agree(String text, String a, String b) {
    if (a.equals(b)) return true;
    boolean measured =
        text.matches(
            "(?s).*(length_m|area_m2|area_ha|distance_m|bearing_deg|chainage_m|easting|northing).*");
    if (!measured) return false;
    try {
      double x = Double.parseDouble(a);
      double y = Double.parseDouble(b);
      return Math.abs(x - y) <= 1e-9 * Math.max(1, Math.abs(x));
    } catch (NumberFormatException e) {
      return false;
    }
  }
}
