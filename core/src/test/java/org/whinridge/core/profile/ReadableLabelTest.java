package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReadableLabelTest {
  @ParameterizedTest
  @CsvSource({
    "WidthMm, true, Width, mm",
    "WidthMm, false, Width mm, ''",
    "KindOfGate, false, Kind of gate, ''",
    "silt_depth_m, true, Silt depth, m",
    "silt_depth, true, Silt depth, ''",
    "Width (mm), true, Width, mm",
    "GPSAccuracy, true, GPS accuracy, ''",
    "LAST_SEEN, false, Last seen, ''",
    "LastInspec, false, Last inspected?, ''",
    "REMARKS, false, Remarks, ''",
    "OS-Nr, false, OS-Nr, ''",
    "Material, false, Material, ''",
    "condition1, true, Condition1, ''",
    "mm, true, Mm, ''",
    "_, true, Field, ''",
  })
  void namesBecomeLabels(String source, boolean number, String label, String unit) {
    assertThat(ReadableLabel.of(source, number, List.of()))
        .isEqualTo(new ReadableLabel(label, unit));
  }

  @Test
  void cutNamesAreCompletedFromTheWordsOfTheHouseFirst() {
    assertThat(ReadableLabel.of("main_penst", false, List.of("penstock")).label())
        .isEqualTo("Main penstock?");
    assertThat(ReadableLabel.of("main_penst", false, List.of()).label()).isEqualTo("Main penst");
    // not cut: shorter than a Shapefile's ten characters
    assertThat(ReadableLabel.of("LastInsp", false, List.of()).label()).isEqualTo("Last insp");
  }
}
