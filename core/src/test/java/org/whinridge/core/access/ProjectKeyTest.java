package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class ProjectKeyTest {
  @Test
  void aNameGivesAKeyThatMayBeOne() {
    assertThat(ProjectKey.from("Isle of Ostrey")).isEqualTo("isle-of-ostrey");
    assertThat(ProjectKey.from("  Düne & Meer, 2026! ")).isEqualTo("dune-meer-2026");
    assertThat(ProjectKey.from("2026")).isEqualTo("project");
    assertThat(ProjectKey.from("水门")).isEqualTo("project");
    for (String name : new String[] {"a".repeat(90), "b ".repeat(60), "x-", "É"})
      assertThat(ProjectKey.from(name)).matches(ProjectKey::isOne);
  }

  @Test
  void nothingElseStandsInAddresses() {
    for (String key :
        new String[] {"", "Ostrey", "a b", "a/b", "../x", "-a", "a-", "1a", "é", "a".repeat(41)})
      assertThat(ProjectKey.isOne(key)).as(key).isFalse();
  }
}
