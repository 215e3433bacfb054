package org.whinridge.app.shell;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import java.io.IOException;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.whinridge.core.said.Said;
import tools.jackson.databind.json.JsonMapper;

class CatalogueToldTest {
  private final Catalogue catalogue;

  CatalogueToldTest() throws IOException {
    catalogue = new Catalogue(JsonMapper.builder().build(), "");
  }

  /** A field may be named "say", and its value is no key. */
  @Test
  void valuesThatLookLikeAKeyStay() {
    String values = "[{\"say\":\"hello\"},{\"say\":\"told.sentBack\",\"width\":3}]";
    assertThat(catalogue.worded(Json.parse(values))).hasToString(values);
    assertThat(catalogue.worded(Json.parse("[{\"say\":\"told.sentBack\"}]")).toString())
        .doesNotContain("told.sentBack");
  }

  /** An entry of a store whose arguments are not those of today does not take its page away. */
  @Test
  void argumentsThatDoNotFitAreToldAsTheyStand() {
    Said odd = Said.of("told.accepted", "n", "many");
    assertThat(catalogue.say(Locale.ENGLISH, odd)).isEqualTo(odd.toString());
    assertThat(catalogue.say(Locale.ENGLISH, Said.of("told.accepted", "n", 2)))
        .doesNotContain("say");
  }
}
