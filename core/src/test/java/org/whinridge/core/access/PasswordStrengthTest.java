package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class PasswordStrengthTest {
  @Test
  void theWordFollowsTheGuesses() {
    assertThat(PasswordStrength.of(0)).isEqualTo(PasswordStrength.WEAK);
    assertThat(PasswordStrength.of(5.99)).isEqualTo(PasswordStrength.WEAK);
    assertThat(PasswordStrength.of(6)).isEqualTo(PasswordStrength.FAIR);
    assertThat(PasswordStrength.of(8)).isEqualTo(PasswordStrength.GOOD);
    assertThat(PasswordStrength.of(10)).isEqualTo(PasswordStrength.STRONG);
    assertThat(PasswordStrength.of(300)).isEqualTo(PasswordStrength.STRONG);
  }
}
