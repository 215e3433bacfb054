package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.whinridge.app.daybook.Visits;

/** Two people at the same thing in the same moment. */
class RacesTest extends DeviceTest {
  private final ExecutorService two = Executors.newFixedThreadPool(3);
  @Autowired Visits visits;
  @Autowired JdbcTemplate jdbc;

  @AfterEach
  void end() {
    two.shutdownNow();
  }

  /** Runs all at once and gives what each gave. */
  @SafeVarargs
  private <T> List<T> atOnce(Callable<T>... all) throws Exception {
    CyclicBarrier start = new CyclicBarrier(all.length);
    List<Future<T>> running = new ArrayList<>();
    for (Callable<T> c : all)
      running.add(
          two.submit(
              () -> {
                start.await();
                return c.call();
              }));
    List<T> out = new ArrayList<>();
    for (Future<T> f : running) out.add(f.get());
    return out;
  }

  /** The first stop again and again, as it is on the layer now. */
  private JsonObject again(String notes) throws Exception {
    JsonArray all = part("features").get("features").asArray();
    return visit(all.get(0).asObject(), notes);
  }

  private static JsonObject mended(JsonObject v, String word) {
    return Json.parse(v.toString()).asObject().set("mended", word);
  }

  @Test
  void aTextThatWasAcknowledgedIsThereWhoeverWasQuicker() throws Exception {
    for (int i = 0; i < 40; i++) {
      JsonObject v = again("first " + i);
      sent(v);
      String word = "mended-" + UUID.randomUUID();
      JsonObject newer = mended(v, word);
      List<String> said =
          atOnce(() -> decide(v, "accept"), () -> sent(newer).getString("state", ""));
      UUID id = UUID.fromString(v.getString("id", ""));
      boolean asVisit = visits.get(id).sent().text().contains(word);
      Long aside =
          jdbc.queryForObject(
              "select count(*) from set_aside where document like ?", Long.class, "%" + word + "%");
      assertThat(asVisit || aside == 1)
          .as("try %d: the desk heard %s, the device heard %s", i, said.get(0), said.get(1))
          .isTrue();
      if (said.get(1).equals("waiting"))
        assertThat(asVisit).as("try %d: called kept as a visit", i).isTrue();
    }
  }

  @Test
  void twoReviewersAcceptAVisitOnce() throws Exception {
    for (int i = 0; i < 30; i++) {
      JsonObject v = again("race " + i);
      sent(v);
      long before = now(v).version();
      List<String> said = atOnce(() -> decide(v, "accept"), () -> decide(v, "accept"));
      assertThat(said).as("try %d", i).anyMatch(s -> s.startsWith("Accepted"));
      assertThat(said).as("try %d", i).anyMatch(s -> s.contains("already"));
      assertThat(now(v).version()).isEqualTo(before + 1);
    }
  }

  @Test
  void theSameNewVisitTwiceAtOnceIsAnsweredLikeOnce() throws Exception {
    for (int i = 0; i < 40; i++) {
      JsonObject v = again("twice " + i);
      String body = handIn(UUID.randomUUID().toString(), v);
      List<Integer> statuses =
          atOnce(() -> send(body, INSPECTOR).getStatus(), () -> send(body, INSPECTOR).getStatus());
      assertThat(statuses).as("try %d", i).containsExactly(200, 200);
      assertThat(
              jdbc.queryForObject(
                  "select count(*) from set_aside where sent_id = ?",
                  Long.class,
                  v.getString("id", "")))
          .isZero();
    }
  }

  /** Accepting holds visit, layer, feature; a tidy holds the layer and then all its features. */
  @Test
  void acceptingWhileTheLayerIsTidiedNeverFails() throws Exception {
    UUID id = layer().id();
    for (int i = 0; i < 12; i++) {
      JsonObject v = again("tidied " + i);
      sent(v);
      String to = i % 2 == 0 ? "Brick" : "brick ";
      String from = i % 2 == 0 ? "brick " : "Brick";
      List<Integer> statuses =
          atOnce(
              () -> status("/p/ostrey/hand-ins/" + v.getString("id", "") + "/accept"),
              () ->
                  status(
                      "/p/ostrey/layers/" + id + "/values/material/merge",
                      "spelling",
                      from,
                      "good",
                      to,
                      "seen",
                      String.valueOf(layers.byId(id).revision())));
      assertThat(statuses).as("try %d", i).allMatch(s -> s == 302 || s == 409);
    }
  }

  private int status(String path, String... parameters) throws Exception {
    var q = post(path).with(COORDINATOR).with(csrf());
    for (int i = 0; i < parameters.length; i += 2) q = q.param(parameters[i], parameters[i + 1]);
    var r = mvc.perform(q).andReturn().getResponse();
    assertThat(r.getContentAsString(StandardCharsets.UTF_8)).doesNotContain("that should not");
    return r.getStatus();
  }
}
