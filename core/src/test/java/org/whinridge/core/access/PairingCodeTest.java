package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class PairingCodeTest {
  @Test
  void aCodeIsReadAsItIsShown() {
    long bits = 0b11111_00000_10101_01010_00001_10000_11110_01111L;
    String code = PairingCode.of(bits);
    assertThat(code).isEqualTo("FYG1AN0Z").hasSize(PairingCode.LENGTH);
    assertThat(PairingCode.shown(code)).isEqualTo("FYG1-AN0Z");
    assertThat(PairingCode.typed(PairingCode.shown(code))).contains(code);
    assertThat(PairingCode.of(bits | 1L << 40)).isEqualTo(code);
  }

  @Test
  void whatIsTakenForOneAnotherIsOne() {
    assertThat(PairingCode.typed(" fyGl-anOz ")).contains("FYG1AN0Z");
    assertThat(PairingCode.typed("fyGi anoz")).contains("FYG1AN0Z");
  }

  @Test
  void otherTextsAreNone() {
    assertThat(PairingCode.typed("")).isEmpty();
    assertThat(PairingCode.typed("FYG1AN0")).isEmpty();
    assertThat(PairingCode.typed("FYG1AN0ZZ")).isEmpty();
    assertThat(PairingCode.typed("FYG1AN0U")).isEmpty();
    assertThat(PairingCode.typed("ФYG1AN0Z")).isEmpty();
  }
}
