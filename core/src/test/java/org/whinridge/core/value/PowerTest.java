package org.whinridge.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.whinridge.core.text.Composed;
import org.whinridge.core.text.Fold;

/**
 * What is worked out by core itself, so that every engine gives the same, against the JDK's own.
 */
class PowerTest {
  private static void same(double x, double y) {
    double expected = StrictMath.pow(x, y);
    double got = Power.of(x, y);
    assertThat(Double.compare(got, expected) == 0 || got == expected)
        .as("%s ^ %s: %s, not %s", x, y, got, expected)
        .isTrue();
  }

  @Test
  void powersAreThoseOfStrictMathToTheLastDigit() {
    Random random = new Random(3);
    for (int i = 0; i < 400_000; i++) {
      same(random.nextDouble() * 100, random.nextDouble() * 40 - 20);
      same(random.nextInt(2000) - 1000, random.nextInt(40) - 20);
      same(Double.longBitsToDouble(random.nextLong()), random.nextDouble() * 8 - 4);
      same(1 + random.nextGaussian() * 1e-9, random.nextDouble() * 1e11);
    }
    double[] odd = {
      0,
      -0.0,
      1,
      -1,
      0.5,
      -0.5,
      2,
      3,
      -3,
      1e308,
      -1e308,
      1e-308,
      4.9e-324,
      10,
      15.3,
      0.1,
      1023.5,
      -1074.2,
      9007199254740993.0,
      Double.POSITIVE_INFINITY,
      Double.NEGATIVE_INFINITY,
      Double.NaN
    };
    for (double x : odd) for (double y : odd) same(x, y);
    assertThat(Power.of(10, 15.3)).isEqualTo(StrictMath.pow(10, 15.3));
  }

  /** Sums and products of decimals, against the decimals themselves. */
  @Test
  void decimalsAreAddedAndMultipliedAsDecimals() {
    assertThat(Decimals.add(0.1, 0.2)).isEqualTo(0.3);
    assertThat(Decimals.subtract(1000000.1, 1000000)).isEqualTo(0.1);
    assertThat(Decimals.multiply(1.1, 1.1)).isEqualTo(1.21);
    assertThat(Decimals.add(1 / 3.0, 1 / 3.0)).isEqualTo(2 / 3.0);
    Random random = new Random(8);
    for (int i = 0; i < 200_000; i++) {
      BigDecimal a = BigDecimal.valueOf(random.nextInt(2_000_000) - 1_000_000, random.nextInt(6));
      BigDecimal b = BigDecimal.valueOf(random.nextInt(2_000_000) - 1_000_000, random.nextInt(6));
      assertThat(Decimals.add(a.doubleValue(), b.doubleValue()))
          .isEqualTo(a.add(b).doubleValue() + 0.0);
      assertThat(Decimals.multiply(a.doubleValue(), b.doubleValue()) + 0.0)
          .isEqualTo(a.multiply(b).doubleValue() + 0.0);
    }
  }

  /** Printed: how many of 2,000 splits into parts with one decimal do not add up to 100. */
  @Test
  void partsWithOneDecimalAddUp() {
    Random random = new Random(100);
    int wrong = 0;
    for (int i = 0; i < 2000; i++) {
      int left = 1000;
      double sum = 0;
      for (int k = 0; k < 6; k++) {
        int part = random.nextInt(left + 1);
        left -= part;
        sum = Decimals.add(sum, part / 10.0);
      }
      if (Decimals.add(sum, left / 10.0) != 100) wrong++;
    }
    System.out.println("sums wrong: " + wrong + " of 2,000");
    assertThat(wrong).isZero();
  }

  /** Composed letters against the platform's normal form C, every letter of the basic plane. */
  @Test
  void whatTheMarksMakeIsNormalFormC() {
    int composed = 0;
    for (int c = 0x80; c < 0x10000; c++) {
      if (c >= 0xD800 && c < 0xE000) continue;
      String whole = Character.toString(c);
      String apart = Normalizer.normalize(whole, Normalizer.Form.NFD);
      if (!Normalizer.isNormalized(whole, Normalizer.Form.NFC) || apart.equals(whole)) continue;
      char mark = apart.charAt(apart.length() - 1);
      boolean ours = mark >= 0x300 && mark <= 0x36F || mark >= 0x1161 && mark <= 0x11C2;
      if (!ours && mark != 0x3099 && mark != 0x309A) continue;
      composed++;
      assertThat(Composed.of(apart)).as(whole).isEqualTo(whole);
      assertThat(Composed.of(whole)).isSameAs(whole);
    }
    assertThat(composed).isGreaterThan(12_000);
  }

  /** Case folding against the platform's mappings: upper case, then lower, sign by sign. */
  @Test
  void casesAreFoldedInFull() {
    for (int c = 0; c < 0x1E900 + 0x50; c++) {
      if (c >= 0xD800 && c < 0xE000 || c == 'İ' || c == 'ı' || c == 'ẞ') continue;
      StringBuilder expected = new StringBuilder();
      Character.toString(c)
          .toUpperCase(Locale.ROOT)
          .codePoints()
          .forEach(u -> expected.appendCodePoint(Character.toLowerCase(u)));
      assertThat(Fold.cases(Character.toString(c))).as("U+%04X", c).isEqualTo(expected.toString());
    }
    assertThat(Fold.cases("STRAẞE")).isEqualTo(Fold.cases("straße")).isEqualTo("strasse");
    assertThat(Fold.cases("İ")).isEqualTo("i\u0307");
    assertThat(Fold.cases("ı")).isEqualTo("ı");
    assertThat(Fold.cases("ΣΑΣ")).isEqualTo(Fold.cases("σας"));
  }
}
