package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class NamesTest {
  @Test
  void aNameIsKeptWithoutStrayBlanks() {
    assertThat(Names.of("  Asta   of Ostrey ")).contains("Asta of Ostrey");
    assertThat(Names.of("A\u0301sta")).contains("\u00c1sta");
    for (String no : new String[] {"", "  ", "x".repeat(41), "a\u0000b"})
      assertThat(Names.of(no)).as(no).isEmpty();
  }

  @Test
  void aColumnOrARowOfNamesIsPasted() {
    assertThat(Names.pasted("Asta\r\nBeke, Cato;Dag\tAsta\n\n"))
        .containsExactly("Asta", "Beke", "Cato", "Dag");
    assertThat(Names.pasted(" \n,")).isEmpty();
  }
}
