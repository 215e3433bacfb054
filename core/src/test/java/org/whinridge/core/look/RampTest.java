package org.whinridge.core.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RampTest {
  private static final Colour INK = Colour.of("#1f2a30");
  private static final Colour LAND = Colour.of("#f1eddf");

  /** Source: WCAG 2.2, contrast ratio; 4.54 for #767676 on white is from memory. */
  @Test
  void contrastIsThatOfTheGuidelines() {
    Colour white = Colour.of("#fff");
    assertThat(Colour.contrast(Colour.of("#000000"), white)).isCloseTo(21, within(1e-9));
    assertThat(Colour.contrast(white, white)).isEqualTo(1);
    assertThat(Colour.contrast(Colour.of("#767676"), white)).isCloseTo(4.54, within(0.005));
  }

  @Test
  void oklabGoesThereAndBack() {
    for (String s : List.of("#000000", "#ffffff", "#94451f", "#6a3d7c", "#00ff00")) {
      double[] p = Seen.oklab(Colour.of(s));
      assertThat(Seen.ofOklab(p[0], p[1], p[2]).hex()).isEqualTo(s);
    }
    // Source: the reference table beside Ottosson's definition, from memory: sRGB white is (1, 0,
    // 0)
    assertThat(Seen.oklab(Colour.of("#ffffff")))
        .containsExactly(new double[] {1, 0, 0}, within(1e-4));
  }

  /** Neighbours of five classes and all pairs of codes stay apart for everybody. */
  @ParameterizedTest
  @EnumSource(Ramp.class)
  void coloursStayApart(Ramp ramp) {
    for (Seen.Sight sight : Seen.Sight.values()) {
      double nearest = 1000;
      List<Colour> cs = ramp.colours(ramp.kind() == Ramp.Kind.CODES ? 9 : 5);
      for (int i = 0; i < cs.size(); i++)
        for (int k = i + 1; k < cs.size(); k++)
          nearest = Math.min(nearest, Seen.distance(sight, cs.get(i), cs.get(k)));
      System.out.printf(
          java.util.Locale.ROOT,
          "%-9s %-12s nearest two %.1f apart, on land %.1f to %.1f : 1%n",
          ramp.id(),
          sight,
          nearest,
          cs.stream().mapToDouble(c -> Colour.contrast(c, LAND)).min().orElseThrow(),
          cs.stream().mapToDouble(c -> Colour.contrast(c, LAND)).max().orElseThrow());
      assertThat(nearest)
          .as("%s for %s", ramp.id(), sight)
          .isGreaterThan(ramp.kind() == Ramp.Kind.CODES ? 5 : 8);
    }
  }

  @ParameterizedTest
  @EnumSource(Ramp.class)
  void anyNumberOfColoursCanBeHad(Ramp ramp) {
    for (int n = 1; n <= 30; n++) assertThat(ramp.colours(n)).hasSize(n);
    if (ramp.kind() == Ramp.Kind.RISING)
      assertThat(ramp.colours(9).stream().map(c -> -c.luminance()).toList())
          .as("gets darker")
          .isSorted();
  }

  @Test
  void anInkOutlineIsSeenOnLand() {
    assertThat(Colour.contrast(INK, LAND)).isGreaterThan(Drowning.LEAST);
  }
}
