package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * What is said to be impossible is impossible: random conditions are tried with every value that
 * could matter to them.
 */
class PossibleTest {
  private static final long SEED = 4711;
  private static final List<Value> NUMBERS = new ArrayList<>();
  private static final List<Value> KINDS =
      List.of(Value.text("flap"), Value.text("weir"), Value.text("an old one"), Value.EMPTY);
  private static final List<Value> TRUTHS = List.of(Value.YES, Value.NO, Value.EMPTY);

  static {
    for (double d = 0; d <= 10; d += 0.5) NUMBERS.add(Value.of(d)); // the range is 0 to 10
    NUMBERS.add(Value.EMPTY);
  }

  private final Random random = new Random(SEED);
  private final TestNames names = new TestNames();

  private static Possible.Domain domain(String name) {
    switch (name) {
      case "silt":
        return Possible.Domain.numbers(OptionalDouble.of(0), OptionalDouble.of(10)).orEmpty();
      case "kind":
        return Possible.Domain.codes(Set.of(Value.text("flap"), Value.text("weir"))).orEmpty();
      case "ok":
        return Possible.Domain.yesNo().orEmpty();
      default:
        return Possible.Domain.any();
    }
  }

  private String pick(String... from) {
    return from[random.nextInt(from.length)];
  }

  private String atom() {
    switch (random.nextInt(8)) {
      case 0:
        return "silt " + pick("=", "<>", "<", ">", "<=", ">=") + " " + random.nextInt(13);
      case 1:
        return random.nextInt(13) + " " + pick("=", "<", ">=") + " silt";
      case 2:
        return "silt"
            + pick("", " NOT")
            + " BETWEEN "
            + random.nextInt(12)
            + " AND "
            + random.nextInt(12);
      case 3:
        return "silt"
            + pick("", " NOT")
            + " IN ("
            + random.nextInt(12)
            + ", "
            + random.nextInt(12)
            + ")";
      case 4:
        return "kind " + pick("=", "<>") + " " + pick("'flap'", "'weir'");
      case 5:
        return pick("kind", "silt", "ok") + " IS" + pick("", " NOT") + " NULL";
      case 6:
        return pick("ok", "NOT ok", "ok = TRUE", "ok <> TRUE", "TRUE", "FALSE");
      default:
        return "kind" + pick("", " NOT") + " IN (" + pick("'flap'", "'weir', 'flap'") + ")";
    }
  }

  private String condition(int depth) {
    if (depth == 0) return atom();
    switch (random.nextInt(3)) {
      case 0:
        return "NOT (" + condition(depth - 1) + ")";
      case 1:
        return "(" + condition(depth - 1) + ") OR (" + condition(depth - 1) + ")";
      default:
        return "(" + condition(depth - 1) + ") AND (" + condition(depth - 1) + ")";
    }
  }

  @Test
  void nothingThatCanHoldIsCalledImpossible() {
    int never = 0;
    int found = 0;
    for (int i = 0; i < 4000; i++) {
      String text = condition(1 + i % 3);
      Rule rule = Rules.condition(text, names).rule().orElseThrow(() -> new AssertionError(text));
      boolean yes = false;
      boolean notNo = false;
      for (Value silt : NUMBERS)
        for (Value kind : KINDS)
          for (Value ok : TRUTHS) {
            names.with("silt", silt).with("kind", kind).with("ok", ok);
            Value v = rule.evaluate(names);
            yes |= v.equals(Value.YES);
            notNo |= !v.equals(Value.NO);
          }
      boolean mayBeYes = Possible.allYes(List.of(rule.tree()), PossibleTest::domain);
      boolean mayHold = Possible.notBroken(List.of(rule.tree()), PossibleTest::domain);
      if (yes) assertThat(mayBeYes).as("seed %d: %s can be yes", SEED, text).isTrue();
      if (notNo) assertThat(mayHold).as("seed %d: %s can hold", SEED, text).isTrue();
      if (!yes) never++;
      if (!mayBeYes) found++;
    }
    assertThat(never).as("some of them can never be yes").isGreaterThan(200);
    assertThat(found).as("and most of those are found").isGreaterThan(never * 8 / 10);
  }

  @Test
  void severalConditionsAreTakenTogether() {
    Node over = Rules.condition("silt > 5", names).rule().orElseThrow().tree();
    Node under = Rules.condition("silt < 5", names).rule().orElseThrow().tree();
    assertThat(Possible.allYes(List.of(over), PossibleTest::domain)).isTrue();
    assertThat(Possible.allYes(List.of(over, under), PossibleTest::domain)).isFalse();
    assertThat(Possible.notBroken(List.of(over, under), PossibleTest::domain))
        .as("both are unknown while there is no answer")
        .isTrue();
  }

  @Test
  void whatItDoesNotUnderstandItCallsPossible() {
    for (String text :
        List.of(
            "silt + 1 < 0",
            "silt < width",
            "abs(silt) < 0",
            "note LIKE 'a%' AND note LIKE 'b%'",
            "built < DATE('1900-01-01') AND built > DATE('2000-01-01')")) {
      Node n = Rules.formula(text, names, ValueType.YES_NO).rule().orElseThrow().tree();
      assertThat(Possible.allYes(List.of(n), PossibleTest::domain)).as(text).isTrue();
    }
  }
}
