package org.whinridge.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.value.Value;

class NumbersTest {
  @Test
  void plainTextReadsBackAsTheSameDouble() {
    Random r = new Random(9);
    for (int i = 0; i < 20_000; i++) {
      double d = Double.longBitsToDouble(r.nextLong());
      if (Double.isNaN(d) || Double.isInfinite(d) || Math.abs(d) > 1e30 || Math.abs(d) < 1e-30)
        continue;
      assertThat(Double.parseDouble(Numbers.plain(d))).isEqualTo(d);
      assertThat(Numbers.plain(d)).doesNotContain("E");
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "abc",
        "1,5",
        "1.2.3",
        "NaN",
        "Infinity",
        "0x10",
        "1e",
        "e5",
        "--1",
        "1-2",
        "5 mm",
        "1e999",
        "1d",
        "."
      })
  void whatIsNoNumberIsNone(String s) {
    assertThat(Numbers.read(s)).isEmpty();
  }

  @Test
  void whatIsANumberIsRead() {
    assertThat(Numbers.read(" -1.5e3 ")).hasValue(-1500);
    assertThat(Numbers.read("+.5")).hasValue(0.5);
  }

  @Test
  void notANumberCanNotBecomeAValue() {
    assertThatIllegalArgumentException().isThrownBy(() -> new Value.Num(Double.NaN));
    assertThat(Value.of(1.0 / 0)).isEqualTo(Value.EMPTY);
    assertThat(new Value.Num(-0.0)).isEqualTo(new Value.Num(0.0));
  }

  @Test
  void accentsAndCaseFoldByTheOwnTable() {
    assertThat(Fold.accents("Łąka Straße Æ ÿ")).isEqualTo("Laka Strasse AE y");
    assertThat(Fold.lower("ÉŁ")).isEqualTo("éł");
  }
}
