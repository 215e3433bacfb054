package org.whinridge.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.whinridge.core.merge.Standing.Written;

class StandingTest {
  private static Written wrote(String act, String... fields) {
    return new Written(act, Set.of(fields), "");
  }

  private static Written back(String act, String of, String... fields) {
    return new Written(act, Set.of(fields), of);
  }

  @Test
  void aFieldIsItsLastWritersAlsoWhenTheValueIsTheSame() {
    assertThat(Standing.of("visit", List.of(wrote("visit", "a", "b"), wrote("desk", "a"))))
        .containsExactly("b");
  }

  /** Accepted, taken back, set by another person, accepted again without writing, taken back. */
  @Test
  void whatAnotherPersonSetAfterTakingBackIsTheirs() {
    List<Written> ledger =
        List.of(wrote("visit", "a"), back("undo", "visit", "a"), wrote("desk", "a"));
    assertThat(Standing.of("visit", ledger)).isEmpty();
    assertThat(Standing.of("desk", ledger)).containsExactly("a");
  }

  @Test
  void takingALaterActBackGivesTheFieldToTheEarlierOneAgain() {
    List<Written> ledger =
        List.of(wrote("import", "a"), wrote("tidy", "a"), back("undo", "tidy", "a"));
    assertThat(Standing.of("import", ledger)).containsExactly("a");
    assertThat(Standing.of("tidy", ledger)).isEmpty();
  }

  @Test
  void takingBackWhatIsNotOnTopIsAWriteOfItsOwn() {
    List<Written> ledger =
        List.of(wrote("visit", "a"), wrote("desk", "a"), back("undo", "visit", "a"));
    assertThat(Standing.of("desk", ledger)).isEmpty();
    assertThat(Standing.of("undo", ledger)).containsExactly("a");
  }

  @Test
  void anActThatWroteAFieldTwiceIsTakenBackTwice() {
    List<Written> ledger =
        List.of(
            wrote("first", "a"),
            wrote("act", "a"),
            wrote("act", "a"),
            back("undo", "act", "a"),
            back("undo", "act", "a"));
    assertThat(Standing.of("first", ledger)).containsExactly("a");
  }
}
