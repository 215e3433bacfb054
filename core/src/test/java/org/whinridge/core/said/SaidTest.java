package org.whinridge.core.said;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class SaidTest {
  private static final Said NESTED =
      Said.of("point.offStep", "expected", Said.of("point.inSteps", "step", "0.5"), "found", 3);

  @Test
  void itIsTheSameOutOfItsJson() {
    for (Said s :
        List.of(
            NESTED,
            Said.NONE,
            Said.text("{\"say\":\"x\"}"),
            Said.number(0.1),
            Said.ofState("handed in")))
      assertThat(Said.read(Json.parse(s.json().toString()))).isEqualTo(s);
    assertThat(NESTED.json())
        .hasToString(
            "{\"say\":\"point.offStep\",\"with\":{\"expected\":{\"say\":\"point.inSteps\",\"with\":{\"step\":\"0.5\"}},\"found\":3}}");
  }

  @Test
  void whatIsNoneIsNothing() {
    for (String json : List.of("null", "7", "[]", "{}", "{\"say\":1}", "{\"with\":{}}"))
      assertThat(Said.read(Json.parse(json)).isEmpty()).as(json).isTrue();
    assertThat(Said.read(null)).isEqualTo(Said.NONE);
    assertThat(Said.isSaid(Json.parse("{\"say\":\"a\",\"with\":{},\"more\":1}"))).isFalse();
    assertThat(Said.isSaid(Json.parse("{\"say\":\"a\",\"width\":3}"))).isFalse();
    assertThat(Said.isSaid(Json.parse("{\"say\":\"a\",\"with\":\"b\"}"))).isFalse();
  }

  @Test
  void aRowReadsAsOneAndIsNotNestedAsDeeplyAsItIsLong() {
    assertThat(English.of(Said.row(List.of(), "list.or"))).isEmpty();
    assertThat(English.of(Said.row(said(1), "list.or"))).isEqualTo("0");
    assertThat(English.of(Said.row(said(2), "list.or"))).isEqualTo("0 or 1");
    assertThat(English.of(Said.row(said(4), "list.or"))).isEqualTo("0, 1, 2 or 3");
    Said many = Said.inARow(said(10_000), "list.then");
    assertThat(English.of(many)).startsWith("0, 1, 2").endsWith("9998, 9999");
  }

  private static List<Said> said(int n) {
    return IntStream.range(0, n).mapToObj(i -> Said.text("" + i)).toList();
  }

  @Test
  void numbersThatCantBeWrittenAreADash() {
    assertThat(Said.number(Double.NaN).json().toString()).contains("–");
    assertThat(English.of(Said.number(0.000123))).isEqualTo("0.000123");
    assertThat(English.of(Said.number(1234567))).isEqualTo("1234567");
  }

  @Test
  void textsThatArePutInAreCut() {
    Said wide = Said.of("point.isNot", "found", "x".repeat(500), "expected", NESTED);
    assertThat((String) wide.cut(20).args().get("found")).hasSize(20).endsWith("…");
    assertThat(wide.cut(20).args().get("expected")).isEqualTo(NESTED);
  }

  @Test
  void withinPlainTextOwnWordsNeverComeBackAsAKey() {
    Said day = Said.day(java.time.LocalDate.of(2026, 11, 4));
    assertThat(Said.ofText(day.inText())).isEqualTo(day);
    for (String own : List.of("", "Culvert 7", "{\"say\":", "{\"say\":\"row.nothing\"}"))
      assertThat(Said.ofText(Said.text(own).inText())).isEqualTo(Said.text(own));
  }
}
