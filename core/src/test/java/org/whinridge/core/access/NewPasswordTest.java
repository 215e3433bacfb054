package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.whinridge.core.said.English;

class NewPasswordTest {
  private static Optional<String> fault(String password) {
    return NewPassword.fault(password, "Asta of the Beats", "correcthorse"::equals)
        .map(English::of);
  }

  @Test
  void longEnoughAndNotOneThatManyUse() {
    assertThat(fault("a long way round")).isEmpty();
    assertThat(fault("\ud83c\udf0a".repeat(10))).as("characters, not units").isEmpty();
    assertThat(fault("123456789")).hasValueSatisfying(s -> assertThat(s).contains("10"));
    assertThat(fault("x".repeat(73))).isPresent();
    assertThat(fault("CorrectHorse")).isPresent();
    assertThat(fault("asta of the beats")).isPresent();
  }
}
