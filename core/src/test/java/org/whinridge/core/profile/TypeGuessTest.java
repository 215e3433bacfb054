package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.layer.FieldType;
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
        "1e5|WHOLE",
        "1;2|TEXT"
      })
  void typesComeFromAllValues(String values, FieldType type) {
    assertThat(of(List.of(values.split(","))).type()).isEqualTo(type);
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
              assertThat(g.evidence()).isEqualTo("99 of 100 dates");
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
    assertThat(of(List.of("1", "2")).evidence())
        .isEqualTo("2 of 2 whole numbers kept as text, 1 to 2");
  }

  @Test
  void nothingIsText() {
    assertThat(new TypeGuess().guess().type()).isEqualTo(FieldType.TEXT);
  }
}
