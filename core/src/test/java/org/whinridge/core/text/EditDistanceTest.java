package org.whinridge.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EditDistanceTest {
  @ParameterizedTest
  @CsvSource({
    "silt,silt,0",
    "siltt,silt,1",
    "brcik,brick,1",
    "kitten,sitting,3",
    "ab,ba,1",
    "ca,abc,2", // the unrestricted distance; the restricted one says 3
    "'',abc,3",
    "revetement,revetment,1"
  })
  void mistakesAreCounted(String a, String b, int distance) {
    assertThat(EditDistance.between(a, b, 9)).isEqualTo(distance);
    assertThat(EditDistance.between(b, a, 9)).isEqualTo(distance);
  }

  @Test
  void beyondWhatIsOfInterestItIsOneMore() {
    assertThat(EditDistance.between("abcdefgh", "xy", 2)).isEqualTo(3);
    assertThat(EditDistance.between("abcd", "wxyz", 2)).isEqualTo(3);
  }

  @Test
  void itIsAMetricOnRandomWords() {
    long seed = 5;
    Random r = new Random(seed);
    for (int i = 0; i < 2_000; i++) {
      String a = word(r);
      String b = word(r);
      String c = word(r);
      int ab = EditDistance.between(a, b, 99);
      assertThat(ab).as("seed %d: %s %s", seed, a, b).isEqualTo(EditDistance.between(b, a, 99));
      assertThat(EditDistance.between(a, c, 99))
          .as("seed %d: %s %s %s", seed, a, b, c)
          .isLessThanOrEqualTo(ab + EditDistance.between(b, c, 99));
      assertThat(ab == 0).isEqualTo(a.equals(b));
    }
  }

  private static String word(Random r) {
    StringBuilder b = new StringBuilder();
    for (int i = r.nextInt(7); i > 0; i--) b.append((char) ('a' + r.nextInt(3)));
    return b.toString();
  }
}
