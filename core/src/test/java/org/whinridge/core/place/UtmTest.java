package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Zones by NGA.STND.0037 (limits from memory). */
class UtmTest {
  @Test
  void zonesAreSixDegreesWideFromTheDateLineOn() {
    assertThat(Utm.zone(-180, 0)).contains(1);
    assertThat(Utm.zone(-10.2, 57.9)).contains(29);
    assertThat(Utm.zone(-0.001, 51)).contains(30);
    assertThat(Utm.zone(0, 51)).contains(31);
    assertThat(Utm.zone(179.999, 0)).contains(60);
    assertThat(Utm.zone(180, 0)).contains(1);
  }

  @Test
  void norwayAndSvalbardHaveTheirOwn() {
    assertThat(Utm.zone(5.3, 60.4)).contains(32);
    assertThat(Utm.zone(2.9, 60.4)).contains(31);
    assertThat(Utm.zone(5.3, 55.9)).contains(31);
    assertThat(Utm.zone(5.3, 64)).contains(31);
    assertThat(Utm.zone(15.6, 78.2)).contains(33);
    assertThat(Utm.zone(8.9, 78)).contains(31);
    assertThat(Utm.zone(21, 78)).contains(35);
    assertThat(Utm.zone(33, 78)).contains(37);
    assertThat(Utm.zone(42, 78)).contains(38);
  }

  @Test
  void thereIsNoneAtThePolesOrOffTheEarth() {
    assertThat(Utm.zone(0, 84)).isPresent();
    assertThat(Utm.zone(0, 84.1)).isEmpty();
    assertThat(Utm.zone(0, -80.1)).isEmpty();
    assertThat(Utm.zone(181, 0)).isEmpty();
    assertThat(Utm.zone(Double.NaN, 0)).isEmpty();
  }

  @Test
  void theSystemIsThatOfTheHalf() {
    assertThat(Utm.at(-10.2, 57.9).orElseThrow().code()).isEqualTo("EPSG:32629");
    assertThat(Utm.at(174, -40).orElseThrow().code()).isEqualTo("EPSG:32760");
    assertThat(Utm.at(0, 89)).isEmpty();
  }
}
