package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.whinridge.core.profile.Neediest.Case;

class NeediestTest {
  @Test
  void whatDoesNotFitComesBeforeWhatIsSpelledInSeveralWays() {
    assertThat(Neediest.of(List.of(new Case("a", 0, 9), new Case("b", 1, 0), new Case("c", 1, 2))))
        .contains(new Case("c", 1, 2));
    assertThat(Neediest.of(List.of(new Case("a", 0, 1), new Case("b", 0, 3), new Case("c", 0, 3))))
        .as("the first of those that are alike")
        .contains(new Case("b", 0, 3));
  }

  @Test
  void aSoundLayerNeedsNobody() {
    assertThat(Neediest.of(List.of(new Case("a", 0, 0)))).isEmpty();
    assertThat(Neediest.of(List.of())).isEmpty();
  }
}
