package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class TypeGuessTest {
  private static TypeGuess.Guess of(List<String> values) {
    TypeGuess g = new TypeGuess();
    values.forEach(v -> g.see(Value.text(v)));
    return g.guess();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "1,2,3|WHOLE",
        "1,2.5|DECIMAL",
        "2026-01-02,2025-12-31|DATE",
        "2026-05-04T09:30:00Z|DATE_TIME",
        "a,b|TEXT",
        "007,008|TEXT",
        "1,x|TEXT",
        "-0.41,1.00|DECIMAL",
        "2025-02-30|TEXT",
        "1.5e3|WHOLE",
        "2E2,1E5|TEXT",
        "01,02,10,11,20|TEXT",
        "01067,20095,99998|TEXT",
        "0,1,2|WHOLE",
        "0.5,1|DECIMAL",
        "+4930123456,+442079460000|TEXT",
        "+0.5,-0.3|DECIMAL",
        "yes,no,Yes|YES_NO",
        "TRUE,false|YES_NO",
        "Y,N,Y|YES_NO",
        "N,N|TEXT",
        "N,S,Y|TEXT",
        "0,1,0|WHOLE",
        "2024/01/02,2024/1/3|DATE",
        "2024.01.02|DATE",
        "6 May 2024,31 Dec 2023|DATE",
        "Sept 6 2024|DATE",
        "1.2.24,31.12.23|DATE",
        "6/5/2024 3:30 PM,6/28/2024 11:05 am|DATE_TIME",
        "B12,C7|TEXT",
        "1;2|TEXT"
      })
  void typesComeFromAllValues(String values, FieldType type) {
    assertThat(of(List.of(values.split(","))).type()).isEqualTo(type);
  }

  @ParameterizedTest
  @CsvSource({"is_open,YES_NO", "hasLid,YES_NO", "Locked?,YES_NO", "count,WHOLE", "island,WHOLE"})
  void noughtAndOneAreYesAndNoWhereTheNameAsks(String name, FieldType type) {
    TypeGuess g = new TypeGuess();
    List.of("0", "1", "1").forEach(v -> g.see(Value.text(v)));
    assertThat(g.guess(name).type()).isEqualTo(type);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "PLAIN|2024/1/2|2024-01-02",
        "PLAIN|2 January 2024|2024-01-02",
        "PLAIN|Jan 2, 2024|2024-01-02",
        "PLAIN|2024-13-01|",
        "DAY_FIRST|6.5.2024|2024-05-06",
        "DAY_FIRST|1.2.24|2024-02-01",
        "DAY_FIRST|1.2.68|1968-02-01",
        "MONTH_FIRST|12/31/2023|2023-12-31",
        "DAY_FIRST|12/31/2023|",
        "DAY_FIRST|1.2.2024.3|",
        "DAY_FIRST|192.168.2024|"
      })
  void datesOfManyStylesAreRead(Reading reading, String text, LocalDate day) {
    assertThat(reading.date(text)).isEqualTo(day);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "6/5/2024 3:30 PM|2024-06-05T15:30:00Z",
        "6/5/2024 12:05 am|2024-06-05T00:05:00Z",
        "6/5/2024 12:05PM|2024-06-05T12:05:00Z",
        "6/5/2024 13:30 PM|"
      })
  void halfDaysAreRead(String text, Instant at) {
    assertThat(Reading.MONTH_FIRST.moment(text)).isEqualTo(at);
  }

  @Test
  void oneBadDateInAHundredDoesNotTurnTheOthersIntoText() {
    List<String> dates =
        IntStream.range(0, 100)
            .mapToObj(i -> i == 7 ? "2025-02-30" : "2025-01-" + (10 + i % 20))
            .collect(Collectors.toList());
    assertThat(of(dates))
        .satisfies(
            g -> {
              assertThat(g.type()).isEqualTo(FieldType.DATE);
              assertThat(English.of(g.evidence())).isEqualTo("99 of 100 dates");
            });
  }

  @Test
  void fewWordsManyTimesAreACodeList() {
    List<String> words =
        IntStream.range(0, 60).mapToObj(i -> List.of("weir", "sluice", "pump").get(i % 3)).toList();
    assertThat(of(words))
        .satisfies(
            g -> {
              assertThat(g.type()).isEqualTo(FieldType.CODE);
              assertThat(g.codes())
                  .extracting(c -> c.code())
                  .containsExactly("pump", "sluice", "weir");
            });
    assertThat(of(IntStream.range(0, 60).mapToObj(i -> "word " + i).toList()).type())
        .isEqualTo(FieldType.TEXT);
  }

  @Test
  void numbersKeptAsTextAreSaid() {
    assertThat(English.of(of(List.of("1", "2")).evidence()))
        .isEqualTo("2 of 2 whole numbers kept as text, 1 to 2");
  }

  @Test
  void nothingIsText() {
    assertThat(new TypeGuess().guess().type()).isEqualTo(FieldType.TEXT);
  }
}
