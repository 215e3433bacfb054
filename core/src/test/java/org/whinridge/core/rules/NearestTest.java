package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NearestTest {
  /** A swap, a missing, an extra and a wrong letter each count one (optimal string alignment). */
  @ParameterizedTest
  @CsvSource({
    "silt,silt,0",
    "slit,silt,1",
    "sit,silt,1",
    "siltt,silt,1",
    "sint,silt,1",
    "brcik,brick,1",
    "kitten,sitting,3",
    "ab,ba,1",
    "'',abc,3"
  })
  void distances(String a, String b, int distance) {
    assertThat(Nearest.distance(a, b)).isEqualTo(distance);
    assertThat(Nearest.distance(b, a)).isEqualTo(distance);
  }

  @Test
  void onlyWhatIsNearIsOffered() {
    List<String> known = List.of("silt_depth", "width", "kind");
    assertThat(Nearest.of("silt_dept", known)).contains("silt_depth");
    assertThat(Nearest.of("SILT_DEPTH", known)).contains("silt_depth");
    assertThat(Nearest.of("knd", known)).contains("kind");
    assertThat(Nearest.of("colour", known)).isEmpty();
    assertThat(Nearest.of("c", known)).isEmpty();
  }
}
