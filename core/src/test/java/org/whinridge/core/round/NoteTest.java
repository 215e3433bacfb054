package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class NoteTest {
  @Test
  void isReadAsItWasKept() {
    Note n = new Note(" park at the pump house\n", List.of("b", "a", "b"));
    assertThat(n.text()).isEqualTo("park at the pump house");
    assertThat(n.pictures()).containsExactly("b", "a");
    assertThat(Note.read(n.text(), n.pictureList())).isEqualTo(n);
  }

  @Test
  void withoutAnythingIsEmpty() {
    assertThat(Note.read("", "")).isEqualTo(Note.NONE);
    assertThat(Note.of(" \t").isEmpty()).isTrue();
    assertThat(new Note("", List.of("a")).isEmpty()).isFalse();
  }
}
