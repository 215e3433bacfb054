package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.context.TestPropertySource;

/** A morning: thirty devices take their round out at once, from a server of four connections. */
@TestPropertySource(
    properties = {
      "spring.datasource.hikari.maximum-pool-size=4",
      "spring.datasource.hikari.connection-timeout=4000"
    })
class ManyPacksTest extends DeviceTest {
  @Test
  void thirtyPacksAtOnceComeThroughAPoolOfFour() throws Exception {
    String round = round();
    ExecutorService devices = Executors.newFixedThreadPool(30);
    try {
      List<Future<String>> all = new ArrayList<>();
      for (int i = 0; i < 30; i++) all.add(devices.submit(() -> pack(round)));
      for (Future<String> f : all) assertThat(f.get()).isEqualTo(all.get(0).get());
    } finally {
      devices.shutdownNow();
    }
  }

  /** Takes a whole pack; gives its hashes. */
  private String pack(String round) throws Exception {
    JsonObject manifest =
        Json.parse(get200("/api/day/rounds/" + round + "/manifest").getContentAsString())
            .asObject();
    StringBuilder hashes = new StringBuilder();
    for (var p : manifest.get("parts").asArray()) {
      String name = p.asObject().getString("name", "");
      String hash = p.asObject().getString("hash", "");
      byte[] bytes =
          get200("/api/day/rounds/" + round + "/parts/" + name + "?hash=" + hash)
              .getContentAsByteArray();
      assertThat(org.whinridge.app.shell.Sha256.of(bytes)).isEqualTo(hash);
      hashes.append(hash);
    }
    return hashes.toString();
  }

  private MockHttpServletResponse get200(String path) throws Exception {
    MockHttpServletResponse r = mvc.perform(get(path).with(INSPECTOR)).andReturn().getResponse();
    assertThat(r.getStatus()).as(path).isEqualTo(200);
    return r;
  }
}
