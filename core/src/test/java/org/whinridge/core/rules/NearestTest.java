package org.whinridge.core.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class NearestTest {
  @Test
  void onlyWhatIsNearIsOffered() {
    List<String> known = List.of("silt_depth", "width", "kind");
    assertThat(Nearest.of("silt_dept", known)).contains("silt_depth");
    assertThat(Nearest.of("SILT_DEPTH", known)).contains("silt_depth");
    assertThat(Nearest.of("knd", known)).contains("kind");
    assertThat(Nearest.of("colour", known)).isEmpty();
    assertThat(Nearest.of("c", known)).isEmpty();
  }
}
