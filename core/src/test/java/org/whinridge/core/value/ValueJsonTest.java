package org.whinridge.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.place.GeometryJson;

class ValueJsonTest {
  private static Value back(Value v) {
    return ValueJson.read(Json.parse(ValueJson.write(v).toString()), v.type());
  }

  @Test
  void everyKindComesBack() {
    for (Value v :
        List.of(
            Value.EMPTY,
            Value.of(0.1),
            Value.of(-3),
            Value.text("ü \"x\""),
            Value.YES,
            Value.NO,
            new Value.Day(LocalDate.of(2024, 2, 29)),
            new Value.Moment(Instant.parse("2026-05-04T09:30:00.250Z")),
            Value.many(List.of(Value.text("a"), Value.text("b"))),
            new Value.Place(GeometryJson.WGS84.createPoint(new Coordinate(-10.2, 57.9)))))
      assertThat(back(v)).isEqualTo(v);
  }

  @ParameterizedTest
  @CsvSource({
    "12,NUMBER,NUMBER",
    "twelve,NUMBER,TEXT",
    "true,YES_NO,YES_NO",
    "maybe,YES_NO,TEXT",
    "2024-02-29,DATE,DATE",
    "2023-02-29,DATE,TEXT",
    "2024-02-29,DATE_TIME,TEXT",
    "x,LIST,LIST",
    "12,TEXT,TEXT"
  })
  void textIsReadByTheTypeWantedOrStaysText(String text, ValueType wanted, ValueType got) {
    assertThat(ValueJson.readText(text, wanted).type()).isEqualTo(got);
    assertThat(ValueJson.readText(text, wanted).plain()).isIn(text, "yes");
  }

  @Test
  void aNumberForATextFieldIsItsText() {
    assertThat(ValueJson.read(Json.value(7), ValueType.TEXT)).isEqualTo(Value.text("7"));
    assertThat(ValueJson.read(Json.parse("1e999"), ValueType.NUMBER)).isEqualTo(Value.EMPTY);
    assertThat(ValueJson.read(null, ValueType.TEXT)).isEqualTo(Value.EMPTY);
    assertThat(ValueJson.read(Json.parse("{\"a\":1}"), ValueType.TEXT))
        .isEqualTo(Value.text("{\"a\":1}"));
    assertThat(ValueJson.read(Json.parse("[]"), ValueType.LIST)).isEqualTo(Value.EMPTY);
  }

  @Test
  void typesFitWhenTheyAreOneOrUnknown() {
    assertThat(ValueType.NUMBER.fits(ValueType.NUMBER)).isTrue();
    assertThat(ValueType.NUMBER.fits(ValueType.EMPTY)).isTrue();
    assertThat(ValueType.NUMBER.fits(ValueType.TEXT)).isFalse();
  }
}
