package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import org.junit.jupiter.api.Test;

class BoxTest {
  @Test
  void isReadAsItIsWritten() {
    Box ostrey = new Box(-10.4, 57.75, -10, 58.05);
    assertThat(ostrey.text()).isEqualTo("-10.4, 57.75, -10, 58.05");
    assertThat(Box.typed(ostrey.text())).contains(ostrey);
    assertThat(Box.typed(" \u221210.4;57.75;-10 ; 58.05 ")).contains(ostrey);
    assertThat(Box.typed("-10.4 57.75 -10 58.05")).contains(ostrey);
  }

  @Test
  void whatIsNoneIsNotTakenForOne() {
    for (String s :
        new String[] {
          "",
          "1,2,3",
          "1,2,3,4,5",
          "a,2,3,4",
          "1,4,3,2", // south above north
          "1,2,1,4", // no width
          "1,2,3,2", // no height
          "1,2,181,4",
          "1,-91,3,4",
          "1e1,2,3,4",
          "NaN,2,3,4",
          "1,2,3,Infinity"
        }) assertThat(Box.typed(s)).as(s).isEqualTo(Optional.empty());
    assertThatThrownBy(() -> new Box(0, 5, 1, 4)).isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void acrossTheDateLineItIsTwoPolygons() {
    Box b = new Box(170, -48, -176, -33);
    assertThat(b.isCut()).isTrue();
    assertThat(b.holds(175, -40)).isTrue();
    assertThat(b.holds(-177, -40)).isTrue();
    assertThat(b.holds(0, -40)).isFalse();
    assertThat(b.geometry().getNumGeometries()).isEqualTo(2);
    assertThat(Box.around(b.geometry())).isEqualTo(b);
    Box plain = new Box(-10.4, 57.75, -10, 58.05);
    assertThat(Box.around(plain.geometry())).isEqualTo(plain);
  }

  /** The whole sphere of radius 6371.0088 km: 4 pi r squared. */
  @Test
  void sizesAreThoseOfASphere() {
    assertThat(new Box(-180, -90, 180, 90).squareKm())
        .isCloseTo(4 * Math.PI * 6371.0088 * 6371.0088, within(1.0));
    assertThat(new Box(170, 0, -170, 10).squareKm())
        .isCloseTo(new Box(0, 0, 20, 10).squareKm(), within(0.001));
  }
}
