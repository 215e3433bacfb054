package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** Rules of {@link RuleGenerator}: printed and read again they are the same and mean the same. */
class RandomRulesTest {
  private static final long SEED = 210_65;
  private final Random random = new Random(SEED);
  private final RuleGenerator rules = new RuleGenerator(SEED);
  private final TestNames names = new TestNames().generated();

  @Test
  void printedAndReadAgainARuleIsTheSame() {
    for (int i = 0; i < 5_000; i++) {
      String text = rules.condition(4);
      Rule once = read(text);
      Rule twice = read(once.canonical());
      assertThat(twice.canonical())
          .as("seed %d, rule %d: %s", SEED, i, text)
          .isEqualTo(once.canonical());
      assertThat(twice.evaluate(names)).as(text).isEqualTo(once.evaluate(names));
      assertThat(twice.names()).as(text).isEqualTo(once.names());
    }
  }

  /** De Morgan and double negation hold in three-valued logic too (Kleene). */
  @Test
  void theLawsOfThreeValuedLogicHold() {
    for (int i = 0; i < 2_000; i++) {
      String a = rules.condition(2);
      String b = rules.condition(2);
      assertThat(names.eval("NOT ((" + a + ") AND (" + b + "))"))
          .as(a + " / " + b)
          .isEqualTo(names.eval("(NOT (" + a + ")) OR (NOT (" + b + "))"));
      assertThat(names.eval("NOT (NOT (" + a + "))")).as(a).isEqualTo(names.eval(a));
      assertThat(names.eval("(" + a + ") AND (" + b + ")"))
          .isEqualTo(names.eval("(" + b + ") AND (" + a + ")"));
    }
  }

  @Test
  void betweenAndInAreWhatTheyStandFor() {
    for (int i = 0; i < 2_000; i++) {
      String x = rules.number(2);
      String low = rules.number(1);
      String high = rules.number(1);
      assertThat(names.eval("(" + x + ") BETWEEN (" + low + ") AND (" + high + ")"))
          .as(x)
          .isEqualTo(names.eval("(" + x + ") >= (" + low + ") AND (" + x + ") <= (" + high + ")"));
      assertThat(names.eval("(" + x + ") IN (" + low + ", " + high + ")"))
          .as(x)
          .isEqualTo(names.eval("(" + x + ") = (" + low + ") OR (" + x + ") = (" + high + ")"));
    }
  }

  private Rule read(String text) {
    Rules.Outcome o = Rules.formula(text, names, ValueType.EMPTY);
    return o.rule()
        .orElseThrow(() -> new AssertionError("seed " + SEED + ": " + text + " " + o.problems()));
  }

  /** LIKE against a plain regular expression made of the same pattern. */
  @Test
  void likeAgreesWithARegularExpression() {
    for (int i = 0; i < 20_000; i++) {
      String pattern =
          random
              .ints(random.nextInt(7), 0, 5)
              .mapToObj(k -> List.of("a", "b", "%", "_", "\\%").get(k))
              .collect(Collectors.joining());
      String text =
          random
              .ints(random.nextInt(8), 0, 4)
              .mapToObj(k -> List.of("a", "b", "%", "_").get(k))
              .collect(Collectors.joining());
      StringBuilder regex = new StringBuilder();
      for (int k = 0; k < pattern.length(); k++) {
        char c = pattern.charAt(k);
        if (c == '\\')
          regex.append(java.util.regex.Pattern.quote(String.valueOf(pattern.charAt(++k))));
        else
          regex.append(
              c == '%' ? ".*" : c == '_' ? "." : java.util.regex.Pattern.quote(String.valueOf(c)));
      }
      assertThat(LikePattern.matches(pattern, text))
          .as("seed %d: %s on %s", SEED, pattern, text)
          .isEqualTo(text.matches(regex.toString()));
    }
  }

  @Test
  void numbersInRulesKeepTheirValue() {
    for (int i = 0; i < 5_000; i++) {
      double d = (random.nextDouble() - 0.5) * Math.pow(10, random.nextInt(30) - 15);
      assertThat(names.eval(Numbers.plain(d))).isEqualTo(Value.of(d));
    }
  }
}
