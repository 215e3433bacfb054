package org.whinridge.engine;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class GoldenOnTheJvmTest {
  @Test
  void coreGivesTheGoldenResults() throws Exception {
    var vectors = GoldenVectors.all();
    assertThat(vectors).hasSizeGreaterThan(600);
    for (var v : vectors) {
      String got = Golden.run(v.kind(), v.input());
      assertThat(v.agrees(got))
          .as("%s %s%nwanted %s%ngot    %s", v.kind(), v.input(), v.result(), got)
          .isTrue();
    }
  }
}
