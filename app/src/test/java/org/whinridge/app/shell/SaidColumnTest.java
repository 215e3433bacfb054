package org.whinridge.app.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.said.Said;

class SaidColumnTest {
  @Test
  void whatIsKeptIsReadAgain() {
    Said said = Said.of("ledger.takenBack", "what", Said.of("ledger.importOf", "file", "a.csv"));
    assertThat(SaidColumn.read(SaidColumn.written(said))).isEqualTo(said);
    assertThat(SaidColumn.read(SaidColumn.written(Said.NONE))).isEqualTo(Said.NONE);
  }

  /** Older stores kept words, and people write what they like. */
  @Test
  void wordsStandAsTheyAre() {
    for (String kept :
        List.of(
            "import of a.csv", "", "{\"say\":", "{\"say\":1}", "{\"say\":\"a\",\"b\":1,\"c\":2}"))
      assertThat(SaidColumn.read(kept)).isEqualTo(Said.text(kept));
  }

  /** What somebody wrote comes back as written, whatever it looks like. */
  @Test
  void nobodysOwnWordsBecomeAKey() {
    for (String own :
        List.of(
            "{\"say\":\"told.accepted\",\"with\":{\"n\":\"x\"}}",
            "{\"say\":\"told.sentBack\"}",
            "{\"say\":"))
      assertThat(SaidColumn.read(SaidColumn.written(Said.text(own)))).isEqualTo(Said.text(own));
    assertThat(SaidColumn.written(Said.text("{\"say\":" + "\"".repeat(4000))))
        .hasSizeLessThanOrEqualTo(4000);
  }

  @Test
  void itAlwaysFits() {
    assertThat(SaidColumn.written(Said.of("claim.fault", "field", "x".repeat(9000), "why", "y")))
        .hasSizeLessThan(400);
    List<Said> many =
        IntStream.range(0, 1000).mapToObj(i -> Said.of("amount.ROW", "n", i)).toList();
    assertThat(SaidColumn.written(Said.inARow(many, "list.then"))).hasSizeLessThanOrEqualTo(4000);
    assertThat(SaidColumn.written(Said.text("x".repeat(9000)))).hasSize(4000);
  }
}
