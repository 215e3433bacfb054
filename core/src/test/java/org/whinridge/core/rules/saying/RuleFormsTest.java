package org.whinridge.core.rules.saying;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.TestNames;
import org.whinridge.core.said.English;
import org.whinridge.core.value.ValueType;

/** One rule in its other forms: CQL2 JSON, a sentence, parts of a sentence, under a new name. */
class RuleFormsTest {
  private final TestNames names = new TestNames().generated();

  private Rule rule(String text) {
    Rules.Outcome o = Rules.formula(text, names, ValueType.EMPTY);
    return o.rule().orElseThrow(() -> new AssertionError(text + ": " + o.problems()));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "kind = 'flap' AND silt > 100 AND ok",
        "NOT ok OR width IS NOT NULL",
        "kind NOT IN ('flap', 'weir') AND note NOT LIKE '%a%'",
        "silt NOT BETWEEN 1 AND 2",
        "round(silt / 3, 1) = 40",
        "T_DURING(built, INTERVAL('1980-01-01', '..'))",
        "S_INTERSECTS(POINT(1 2), POLYGON((0 0, 3 0, 3 3, 0 0)))",
        "A_CONTAINS(defects, ('leak', 'crack'))",
        "built < today() AND built > DATE('1950-01-01')",
        "CASEI(note) = 'x'"
      })
  void cql2JsonSaysTheSame(String text) {
    Rule once = rule(text);
    Rule back = CqlJson.read(CqlJson.write(once), names, ValueType.EMPTY).rule().orElseThrow();
    assertThat(CqlJson.write(back)).isEqualTo(CqlJson.write(once));
    assertThat(back.evaluate(names)).isEqualTo(once.evaluate(names));
    assertThat(back.canonical()).isEqualTo(once.canonical());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ | this is not JSON",
        "null | no null",
        "{\"op\":\"and\",\"args\":[true]} | at least two",
        "{\"op\":\"not\",\"args\":[true,true]} | takes 1 argument",
        "{\"op\":\"in\",\"args\":[{\"property\":\"silt\"},[]]} | at least one item",
        "{\"op\":\"=\",\"args\":7} | args takes an array",
        "{\"date\":\"2026-02-30\"} | not a date",
        "{\"property\":3} | property takes a text",
        "{\"x\":1} | expected op",
        "{\"op\":\"=\",\"args\":[{\"property\":\"slit\"},3]} | did you mean silt",
        "{\"bbox\":[1,2,3]} | four numbers",
        "1e999 | can't be kept"
      })
  void brokenCql2JsonGetsAProblem(String json, String message) {
    Rules.Outcome o = CqlJson.read(json, names, ValueType.EMPTY);
    assertThat(o.rule()).isEmpty();
    assertThat(English.of(o.problems().get(0).message())).contains(message);
  }

  /** Printed with its blanks such a rule is longer than a rule may be. */
  @Test
  void aRuleNearItsLimitComesBackFromJson() {
    StringBuilder b = new StringBuilder("silt=0");
    while (b.length() < 3980) b.append(b.length() % 2 == 0 ? "OR silt=1 " : "OR silt<2 ");
    String text = b.toString().replace("=0OR", "=0 OR").strip();
    Rule once = rule(text);
    assertThat(once.canonical().length()).isGreaterThan(Rules.MAX_LENGTH);
    Rule back = CqlJson.read(CqlJson.write(once), names, ValueType.EMPTY).rule().orElseThrow();
    assertThat(back.canonical()).isEqualTo(once.canonical());
    assertThat(back.text().length()).isLessThanOrEqualTo(Rules.MAX_LENGTH);
  }

  @Test
  void deepCql2JsonIsRefusedInWords() {
    String deep = "{\"op\":\"not\",\"args\":[".repeat(200) + "true" + "]}".repeat(200);
    assertThat(CqlJson.read(deep, names, ValueType.EMPTY).problems().get(0).kind())
        .isEqualTo(RuleProblem.Kind.TOO_DEEP);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "kind IN ('flap','sluice') AND silt > 100 | kind is tide flap or sluice, and silt depth is over 100 mm",
        "NOT ok | works is no",
        "ok = FALSE | works is no",
        "built < DATE('1990-01-01') | built is before 1990-01-01",
        "A_CONTAINS(defects, ('crack','leak')) | defects has all of “crack” and “leak”",
        "count(defects) >= 2 | the number of defects is at least 2",
        "silt - 5 * width > 3 | silt depth − (5 × width) is over 3",
        "(kind = 'weir' OR ok) AND silt IS NULL | (kind is weir or works is yes) and silt depth is not answered",
        "T_AFTER(built, DATE('1999-01-01')) | built is after 1999-01-01",
        "matches(note, '[A-Z]+') | note has the form “[A-Z]+”",
        "years_between(built, today()) > 30 | the years from built to today is over 30"
      })
  void aRuleIsSaidInPlainEnglish(String text, String sentence) {
    assertThat(English.of(Sentence.of(rule(text), names))).isEqualTo(sentence);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "kind IN ('flap', 'sluice') AND silt > 100",
        "kind = 'weir' OR width IS NULL OR NOT ok",
        "silt BETWEEN 1 AND width",
        "built <= today() AND ok",
        "A_OVERLAPS(defects, ('crack', 'leak')) AND note NOT LIKE 'a%' AND kind NOT IN ('weir')",
        "silt + width + silt = 100",
        "silt >= width + 2 AND silt > width - 0.5",
        "count(defects) BETWEEN 1 AND 3",
        "round(100 * silt / width, 1) > 20",
        "built <= add_days(today(), -30)",
        "years_between(built, today()) > 30",
        "length_m(place) > 100 OR area_ha(place) > 0.25",
        "silt - width < -5 AND width * silt > 1 AND silt / width < 2"
      })
  void partsOfASentenceGiveTheRuleBack(String text) {
    SentenceParts parts = SentenceParts.of(rule(text)).orElseThrow();
    assertThat(parts.text()).isEqualTo(text);
    assertThat(SentenceParts.read(Json.parse(parts.json().toString()).asObject())).isEqualTo(parts);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "ok AND (silt > 1 OR width > 2)",
        "silt * 2 > 2",
        "1 < silt",
        "abs(silt) > 1",
        "silt - width - 1 > 2",
        "ok = TRUE"
      })
  void whatIsTooRichForPartsStaysText(String text) {
    assertThat(SentenceParts.of(rule(text))).isEmpty();
  }

  @Test
  void brokenPartsAreRefusedInWords() {
    String part =
        "{\"join\":\"all\",\"parts\":[{\"left\":{\"kind\":\"name\",\"names\":[\"silt\"]},\"comparison\":\"%s\"}]}";
    assertThatThrownBy(() -> SentenceParts.read(Json.parse(part.replace("%s", "over")).asObject()))
        .satisfies(English.says("‘is over’ takes 1 value"));
    assertThatThrownBy(() -> SentenceParts.read(Json.parse(part.replace("%s", "beats")).asObject()))
        .satisfies(English.says("no comparison ‘beats’"));
    assertThatThrownBy(() -> SentenceParts.read(Json.parse("{}").asObject()))
        .satisfies(English.says("no parts of a sentence"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "silt>3   AND   note = 'silt' | depth>3   AND   note = 'silt'",
        "\"silt\" > last.silt + silty | depth > last.silt + silty",
        "silt > ( | silt > (",
        "abs(silt) IN (silt, 3) | abs(depth) IN (depth, 3)"
      })
  void aNewNameIsWrittenIntoTheRuleAndNothingElseChanges(String text, String expected) {
    assertThat(Rules.rename(text, n -> n.equals("silt") ? "depth" : n)).isEqualTo(expected);
  }

  @Test
  void twoEqualSignsAreMendedByTheFix() {
    RuleProblem p = names.problem("silt == 3");
    String text = "silt == 3";
    String mended = text.substring(0, p.at().from()) + p.fix() + text.substring(p.at().to());
    assertThat(mended).isEqualTo("silt = 3");
  }

  @Test
  void whatIsNotFiniteIsTold() {
    int[] told = {0};
    TestNames counting =
        new TestNames() {
          @Override
          public void notFinite() {
            told[0]++;
          }
        };
    for (String text : new String[] {"silt / 0", "sqrt(-1)", "9 ^ 999", "silt % 0", "silt div 0"})
      assertThat(counting.eval(text).isEmpty()).as(text).isTrue();
    assertThat(told[0]).isEqualTo(5);
    counting.eval("width / 2"); // an empty answer is no fault
    assertThat(told[0]).isEqualTo(5);
  }
}
