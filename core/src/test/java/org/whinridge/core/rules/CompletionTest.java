package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is offered while a rule is typed, and how its words are told apart. */
class CompletionTest {
  private final TestNames names = new TestNames().generated();

  private Completion.Offer at(String marked) {
    int at = marked.indexOf('|');
    return Completion.of(marked.substring(0, at) + marked.substring(at + 1), at, names);
  }

  /** The text with the first of what is offered put in its place. */
  private String taken(String marked) {
    Completion.Offer o = at(marked);
    if (o.options().isEmpty()) return "nothing";
    String text = marked.replace("|", "");
    return text.substring(0, o.from()) + o.options().get(0).text() + text.substring(o.to());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "si|; silt",
        "depth|; silt", // by its label, Silt depth
        "ok AND wi|; ok AND width",
        "kind = |; kind = 'flap'",
        "kind = 'sl|; kind = 'sluice'",
        "kind = 'sl|' AND ok; kind = 'sluice' AND ok",
        "kind <> gate|; nothing",
        "kind IN ('flap', |; kind IN ('flap', 'flap'",
        "kind NOT IN (we|; kind NOT IN ('weir'",
        "kind = tide|; kind = 'flap'", // a code by its label
        "silt > 1 an|; silt > 1 AND",
        "years|; years_between(",
        "si|lt > 1; silt > 1",
        "note = 'it''s |; nothing",
        "‘x’ = |; ‘x’ = kind"
      })
  void whatIsTypedIsGoneOnWith(String marked, String wanted) {
    assertThat(taken(marked)).isEqualTo(wanted);
  }

  @Test
  void beyondTheTextNothingIsOffered() {
    assertThat(Completion.of("silt", 9, names).options()).isEmpty();
    assertThat(Completion.of("x".repeat(Rules.MAX_LENGTH + 1), 3, names).options()).isEmpty();
    assertThat(at("|").options()).hasSize(Completion.MOST);
  }

  @Test
  void wordsAreToldApartAlsoBeforeTheyAreARule() {
    List<String> kinds =
        RuleWords.of("round(silt, 1) > 2 and \"kind\" = 'flap' ≥").stream()
            .map(w -> w.kind().id())
            .toList();
    assertThat(String.join(" ", kinds))
        .isEqualTo("function sign name sign number sign sign number keyword name sign text unread");
    assertThat(RuleWords.of("kind = 'open").stream().map(w -> w.kind().id()).toList())
        .containsExactly("name", "sign", "unread");
    assertThat(RuleWords.of("")).isEmpty();
  }
}
