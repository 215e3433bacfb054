package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * Rules made by a seeded generator, well typed by construction: printed and read again they are the
 * same and mean the same.
 */
class RandomRulesTest {
  private static final long SEED = 210_65;
  private final Random random = new Random(SEED);
  private final TestNames names = new TestNames();

  @Test
  void printedAndReadAgainARuleIsTheSame() {
    for (int i = 0; i < 5_000; i++) {
      String text = condition(4);
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
      String a = condition(2);
      String b = condition(2);
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
      String x = number(2);
      String low = number(1);
      String high = number(1);
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

  private String pick(String... from) {
    return from[random.nextInt(from.length)];
  }

  private String condition(int depth) {
    if (depth == 0)
      return pick(
          "ok", "unknown", "TRUE", "FALSE", "kind = 'flap'", "width IS NULL", "note LIKE '%ó%'");
    switch (random.nextInt(9)) {
      case 0:
        return "(" + condition(depth - 1) + ") AND (" + condition(depth - 1) + ")";
      case 1:
        return "(" + condition(depth - 1) + ") OR (" + condition(depth - 1) + ")";
      case 2:
        return "NOT (" + condition(depth - 1) + ")";
      case 3:
        return number(depth - 1)
            + pick(" = ", " <> ", " < ", " > ", " <= ", " >= ")
            + number(depth - 1);
      case 4:
        return text(depth - 1)
            + pick("", " NOT")
            + " LIKE "
            + pick("'%a_'", "'it''s%'", "'\\%'", "note");
      case 5:
        return "(" + number(depth - 1) + ")" + pick("", " NOT") + " IN (" + list(depth - 1) + ")";
      case 6:
        return "(" + number(depth - 1) + ") IS" + pick("", " NOT") + " NULL";
      case 7:
        return "("
            + number(depth - 1)
            + ")"
            + pick("", " NOT")
            + " BETWEEN "
            + number(0)
            + " AND "
            + number(0);
      default:
        return pick("A_CONTAINS", "A_OVERLAPS", "A_EQUALS") + "(defects, ('leak', 'x'))";
    }
  }

  private String list(int depth) {
    return IntStream.rangeClosed(0, random.nextInt(3))
        .mapToObj(i -> number(depth))
        .collect(Collectors.joining(", "));
  }

  private String number(int depth) {
    if (depth == 0) return pick("silt", "width", "3", "-2", "0.5", "1e3", "0");
    switch (random.nextInt(6)) {
      case 0:
        return "-(" + number(depth - 1) + ")";
      case 1:
        return "("
            + number(depth - 1)
            + ")"
            + pick(" + ", " - ", " * ", " / ", " % ", " div ", " ^ ")
            + "("
            + number(depth - 1)
            + ")";
      case 2:
        return pick("abs", "floor", "round") + "(" + number(depth - 1) + ")";
      case 3:
        return "if("
            + condition(depth - 1)
            + ", "
            + number(depth - 1)
            + ", "
            + number(depth - 1)
            + ")";
      case 4:
        return "coalesce(" + number(depth - 1) + ", 7)";
      default:
        return "length(" + text(depth - 1) + ")";
    }
  }

  private String text(int depth) {
    if (depth == 0) return pick("note", "kind", "'plain'", "'it''s'", "'%'");
    return pick("upper", "lower", "trim", "CASEI", "ACCENTI") + "(" + text(depth - 1) + ")";
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
