package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** Each group of functions: its meaning, its empty arguments, its edges. */
class FunctionsTest {
  private final TestNames names = new TestNames();

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "upper('straße') | STRAßE",
        "lower('ÉŁ') | éł",
        "trim('  a b ') | a b",
        "concat('a', 1, TRUE, width) | a1yes",
        "substr('abcdef', 2, 3) | bcd",
        "substr('abcdef', 5) | ef",
        "substr('abc', 0, 2) | a",
        "joined(defects, ' / ') | crack / leak",
        "label(kind) | Tide flap",
        "if(silt > 100, 'deep', 'shallow') | deep",
        "if(width > 100, 'wide', 'narrow') | narrow",
        "coalesce(label(kind), 'none') | Tide flap"
      })
  void textComesOut(String rule, String expected) {
    assertThat(names.eval(rule)).isEqualTo(Value.text(expected));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "upper(concat(''))",
        "abs(width)",
        "round(width, 2)",
        "min(width)",
        "round(1.5, 99)",
        "round(1.5, 0.5)",
        "add_days(built, 1e9)",
        "substr('abc', 3, 0)",
        "years_between(built, add_days(built, width))"
      })
  void anEmptyOrImpossibleArgumentGivesNothing(String rule) {
    assertThat(names.eval(rule)).isEqualTo(Value.EMPTY);
  }

  @Test
  void aListWithoutRowsHasACountOfZeroAndNoSum() {
    TestNames without = new TestNames().with("defects", Value.EMPTY);
    assertThat(without.eval("count(defects)")).isEqualTo(Value.of(0));
    assertThat(without.eval("sum(defects)")).isEqualTo(Value.EMPTY);
    assertThat(without.eval("mean(defects)")).isEqualTo(Value.EMPTY);
  }

  @Test
  void sumsSkipWhatIsEmptyInARow() {
    TestNames rows =
        new TestNames().with("defects", Value.many(List.of(Value.of(2), Value.EMPTY, Value.of(4))));
    assertThat(rows.eval("count(defects)")).isEqualTo(Value.of(2));
    assertThat(rows.eval("sum(defects)")).isEqualTo(Value.of(6));
    assertThat(rows.eval("mean(defects)")).isEqualTo(Value.of(3));
    assertThat(rows.eval("max(defects)")).isEqualTo(Value.of(4));
  }

  /** The parts of a count cannot exceed the whole: common practice, no source. */
  @Test
  void thePartsOfACountCannotExceedTheWhole() {
    TestNames parts =
        new TestNames().with("defects", Value.many(List.of(Value.of(70), Value.of(40))));
    Rule whole = Rules.condition("sum(defects) <= silt", parts).rule().orElseThrow();
    assertThat(whole.isNotBroken(parts)).as("110 of 120").isTrue();
    assertThat(whole.isNotBroken(parts.with("silt", Value.of(100)))).as("110 of 100").isFalse();
  }

  @Test
  void aValueKeptFromOlderDataThatHasAnotherTypeCountsAsUnknown() {
    TestNames old =
        new TestNames().with("silt", Value.text("deep")).with("built", Value.text("2025-02-30"));
    assertThat(old.eval("silt > 100")).isEqualTo(Value.EMPTY);
    assertThat(old.eval("abs(silt)")).isEqualTo(Value.EMPTY);
    assertThat(old.eval("year(built)")).isEqualTo(Value.EMPTY);
    assertThat(old.eval("silt IS NULL")).isEqualTo(Value.NO);
  }

  @Test
  void everyFunctionSaysHowItIsWrittenWhenItsArgumentsAreWrong() {
    for (String name : Functions.names()) {
      RuleProblem p =
          names.problem(name + "(1,2,3,4,5,6,7,8,9,10,11,12,13,14,15,16,17,18,19,20,21)");
      assertThat(p.kind()).as(name).isEqualTo(RuleProblem.Kind.ARGUMENTS);
      assertThat(English.of(p.message())).contains("is written " + name + "(");
    }
    assertThat(Rules.formula("today()", names, ValueType.DATE).problems()).isEmpty();
  }
}
