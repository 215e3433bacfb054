package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

class RulesTest {
  private final TestNames names = new TestNames();

  /**
   * Three-valued logic as in SQL (ISO/IEC 9075-2, 6.35 boolean value expression; OGC 21-065, 6.4):
   * T, F and U for unknown.
   */
  @ParameterizedTest
  @CsvSource({
    "T,T,T,T", "T,F,F,T", "T,U,U,T", "F,F,F,F", "F,U,F,U", "U,U,U,U", "F,T,F,T", "U,T,U,T",
    "U,F,F,U"
  })
  void andAndOrFollowTheTruthTables(String a, String b, String and, String or) {
    assertThat(names.eval(word(a) + " AND " + word(b))).isEqualTo(truth(and));
    assertThat(names.eval(word(a) + " OR " + word(b))).isEqualTo(truth(or));
  }

  private static String word(String t) {
    return t.equals("T") ? "TRUE" : t.equals("F") ? "FALSE" : "unknown";
  }

  private static Value truth(String t) {
    return t.equals("U") ? Value.EMPTY : Value.of(t.equals("T"));
  }

  @Test
  void aComparisonWithAnEmptyAnswerIsUnknownSoThatChecksHoldAndQuestionsAreNotAsked() {
    Rule r = Rules.condition("width > 5", names).rule().orElseThrow();
    assertThat(r.evaluate(names)).isEqualTo(Value.EMPTY);
    assertThat(r.isNotBroken(names)).isTrue();
    assertThat(r.holds(names)).isFalse();
    assertThat(names.eval("NOT unknown")).isEqualTo(Value.EMPTY);
    assertThat(names.eval("silt NOT IN (1, width)")).isEqualTo(Value.EMPTY);
    assertThat(names.eval("silt IN (120, width)")).isEqualTo(Value.YES);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "2 + 3 * 4 | 14",
        "(2 + 3) * 4 | 20",
        "2 ^ 3 ^ 2 | 512",
        "-2 ^ 2 | 4",
        "7 div 2 | 3",
        "-7 div 2 | -3",
        "7 % 4 | 3",
        "10 - 4 - 3 | 3",
        "round(2.345, 2) | 2.35",
        "round(-0.5) | -1",
        "length('abc') | 3",
        "count(defects) | 2",
        "days_between(DATE('2024-02-28'), DATE('2024-03-01')) | 2",
        "years_between(built, today()) | 39",
        "max(3, silt, width) | 120"
      })
  void formulasGiveNumbers(String rule, double expected) {
    assertThat(names.eval(rule)).isEqualTo(Value.of(expected));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "1 / 0",
        "1 % 0",
        "1 div 0",
        "sqrt(-1)",
        "1e308 * 10",
        "width + 1",
        "substr('abc', 9)"
      })
  void whatIsNotFiniteOrNotThereIsEmpty(String rule) {
    assertThat(names.eval(rule)).isEqualTo(Value.EMPTY);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "kind = 'flap' AND silt BETWEEN 100 AND 200",
        "kind IN ('flap','weir') OR ok",
        "note LIKE 'It''s %'",
        "CASEI(note) LIKE CASEI('it''S %')",
        "ACCENTI(note) = 'It''s Lodz'",
        "width IS NULL",
        "built < DATE('2000-01-01')",
        "A_CONTAINS(defects, ('leak','crack'))",
        "A_OVERLAPS(defects, ('leak','x'))",
        "A_CONTAINEDBY(defects, ('leak','crack','x'))",
        "matches(note, '.*dź')",
        "S_WITHIN(POINT(1 1), POLYGON((0 0, 2 0, 2 2, 0 2, 0 0)))",
        "S_INTERSECTS(POINT(1 1), BBOX(0, 0, 1, 1))",
        "label(kind) = 'Tide flap'",
        "if(ok, 1, 2) = 1",
        "coalesce(width, 7) = 7",
        "NOT kind = 'weir'",
        "\"silt\" >= 1.2e2"
      })
  void conditionsThatHold(String rule) {
    assertThat(names.eval(rule)).as(rule).isEqualTo(Value.YES);
  }

  /**
   * Example expressions of OGC 21-065, annex B, in their shape (written from memory, with this
   * test's names).
   */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "silt = 10",
        "note <> 'x'",
        "built >= DATE('1969-07-16')",
        "silt * 5 > 2.0 + 3.0 ^ 3",
        "note LIKE '_t%'",
        "note NOT LIKE 'B%'",
        "silt BETWEEN 150 AND 180",
        "silt NOT BETWEEN 150 AND 180",
        "silt IN (1.0, 2.0, 3.0)",
        "kind NOT IN ('flap', 'weir')",
        "width IS NULL",
        "width IS NOT NULL",
        "NOT (silt > 5 OR ok)",
        "S_INTERSECTS(POINT(-10.2 57.9), POLYGON((43.5 23.3, 43.9 23.3, 43.9 24.1, 43.5 24.1, 43.5 23.3)))",
        "silt div 7 = 17",
        "CASEI(note) IN (CASEI('straße'), CASEI('Łódź'))",
        "A_EQUALS(defects, ('leak', 'crack'))",
        "S_CROSSES(LINESTRING(1 1, 2 2), MULTILINESTRING((0 0, 1 0), (5 5, 6 6)))",
        "MULTIPOINT((1 2), (3 4)) IS NULL",
        "built < TIMESTAMP('2020-01-01T00:00:00Z') OR TRUE",
        "-silt < - (3 - 5)",
        "2 - (3 - 4) = 3"
      })
  void printingAndReadingAgainGivesTheSameTree(String rule) {
    if (rule.contains("TIMESTAMP")) {
      assertThat(names.problem(rule).kind())
          .isEqualTo(RuleProblem.Kind.WRONG_TYPE); // a day and a moment are not compared
      return;
    }
    String once =
        Rules.formula(rule, names, ValueType.EMPTY)
            .rule()
            .orElseThrow(() -> new AssertionError(names.problem(rule)))
            .canonical();
    String twice = Rules.formula(once, names, ValueType.EMPTY).rule().orElseThrow().canonical();
    assertThat(twice).isEqualTo(once);
    assertThat(names.eval(once)).isEqualTo(names.eval(rule));
  }

  @Test
  void aMistypedNameIsPointedAtAndTheNearestIsOffered() {
    RuleProblem p = names.problem("ok AND slit > 3");
    assertThat(p.kind()).isEqualTo(RuleProblem.Kind.UNKNOWN_NAME);
    assertThat(p.at()).isEqualTo(new Span(7, 11));
    assertThat(p.fix()).isEqualTo("silt");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "kind = flap | UNKNOWN_NAME | 'flap'",
        "kind = 'sluce' | UNKNOWN_CODE | 'sluice'",
        "kind = 'Tide flap' | UNKNOWN_CODE | 'flap'",
        "silt = '12' | WRONG_TYPE | 12",
        "built > '2020-01-01' | WRONG_TYPE | DATE('2020-01-01')",
        "silt != 3 | BAD_CHARACTER | <>",
        "built = DATE('2025-02-30') | BAD_LITERAL | ",
        "silt > 1e999 | BAD_LITERAL | ",
        "rond(silt) | UNKNOWN_FUNCTION | ",
        "round() | ARGUMENTS | ",
        "note LIKE 'x | OPEN_QUOTE | ",
        "silt = = 3 | EXPECTED_OTHER | ",
        "kind BETWEEN 1 AND 2 | WRONG_TYPE | ",
        "matches(note, '(?=a)') | BAD_PATTERN | ",
        "ok > TRUE | WRONG_TYPE | ",
        "POINT(200 1) IS NULL | BAD_LITERAL | "
      })
  void problemsHaveAKindAndAFix(String rule, RuleProblem.Kind kind, String fix) {
    RuleProblem p = names.problem(rule);
    assertThat(p.kind()).as(rule + ": " + English.of(p.message())).isEqualTo(kind);
    if (fix != null) assertThat(p.fix().replace("'", "")).isEqualTo(fix.replace("'", ""));
    assertThat(p.at().from()).isBetween(0, rule.length());
    assertThat(p.at().to()).isBetween(p.at().from(), rule.length());
  }

  @Test
  void depthAndLengthAreBounded() {
    assertThat(names.problem("(".repeat(200) + "1" + ")".repeat(200)).kind())
        .isEqualTo(RuleProblem.Kind.TOO_DEEP);
    assertThat(names.problem("NOT ".repeat(100) + "ok").kind())
        .isEqualTo(RuleProblem.Kind.TOO_DEEP);
    assertThat(names.problem("ok OR ".repeat(900) + "ok").kind())
        .isEqualTo(RuleProblem.Kind.TOO_LONG);
    assertThat(names.eval("ok" + " AND ok".repeat(500))).isEqualTo(Value.YES);
  }

  @Test
  void sentencesUseLabels() {
    assertThat(sentence("kind IN ('flap','sluice') AND silt > 100"))
        .isEqualTo("kind is tide flap or sluice, and silt depth is over 100 mm");
    assertThat(sentence("(ok OR silt IS NULL) AND built < DATE('2000-01-01')"))
        .isEqualTo("(works is yes or silt depth is not answered) and built is before 2000-01-01");
  }

  private String sentence(String rule) {
    return English.of(Sentence.of(Rules.condition(rule, names).rule().orElseThrow(), names));
  }

  /** Whatever is typed, reading gives a rule or problems, never an exception. */
  @Test
  void noTextThrows() {
    long seed = 20260504;
    Random random = new Random(seed);
    String[] pieces = {
      "silt",
      "kind",
      "(",
      ")",
      "'",
      "\"",
      "=",
      "<",
      ">",
      " AND ",
      " OR ",
      "NOT ",
      "IN",
      " BETWEEN ",
      "LIKE",
      "IS NULL",
      "1",
      "2.5",
      "e",
      ",",
      "-",
      "^",
      "POINT(",
      "BBOX(",
      "DATE(",
      "'2020-01-01'",
      "S_WITHIN(",
      "round(",
      "%",
      "\\",
      "é",
      ".",
      "ok",
      "matches(note,'(a*)*b')"
    };
    for (int n = 0; n < 20_000; n++) {
      StringBuilder b = new StringBuilder();
      for (int k = random.nextInt(14); k >= 0; k--) b.append(pieces[random.nextInt(pieces.length)]);
      String text = b.toString();
      assertThatCode(
              () ->
                  Rules.formula(text, names, ValueType.EMPTY)
                      .rule()
                      .ifPresent(r -> r.evaluate(names)))
          .as("seed " + seed + ": " + text)
          .doesNotThrowAnyException();
    }
  }
}
