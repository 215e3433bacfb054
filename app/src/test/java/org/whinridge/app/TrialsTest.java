package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.Forms;
import org.whinridge.core.access.Role;

/** Filled examples that are kept with a draft, and visits that came in, under the draft. */
class TrialsTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired Drafting drafting;
  private SmallProject.Held held;
  private String who;
  private String outdoors;
  private String home;

  @BeforeEach
  void aProjectOfItsOwn() throws Exception {
    int n = ++next;
    who = "trials-" + n;
    outdoors = "trials-out-" + n;
    held =
        small.make(
            "trials-" + n, "Trials " + n, Map.of(Role.COORDINATOR, who, Role.INSPECTOR, outdoors));
    home = "/api/p/" + held.project().key() + "/forms/" + held.form();
  }

  private MockHttpServletResponse send(MockHttpServletRequestBuilder r, String body)
      throws Exception {
    return mvc.perform(r.contentType("application/json").content(body).with(user(who)).with(csrf()))
        .andReturn()
        .getResponse();
  }

  private MockHttpServletResponse send(String what, String body) throws Exception {
    return send(post(home + what), body);
  }

  private static JsonObject sound(MockHttpServletResponse r) throws Exception {
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    return Json.parse(r.getContentAsString()).asObject();
  }

  private JsonObject told() throws Exception {
    return sound(mvc.perform(get(home + "/trials").with(user(who))).andReturn().getResponse());
  }

  private JsonObject page() throws Exception {
    return sound(mvc.perform(get(home).with(user(who))).andReturn().getResponse());
  }

  private static JsonObject typed(String question, String json) {
    return new JsonObject()
        .add(
            question,
            new JsonObject()
                .add("from", "typed")
                .add("confirmed", true)
                .add("value", Json.parse(json)));
  }

  /** Keeps the first feature with notes typed in as a trial; gives its id. */
  private String keep(String name) throws Exception {
    JsonObject body =
        new JsonObject()
            .add("name", name)
            .add("feature", page().get("proof").asArray().get(0))
            .add("start", new JsonObject().add("startedAt", "2026-05-04T09:00:00Z"))
            .add("saved", new JsonObject().add("answers", typed("notes", "\"silted\"")));
    JsonArray all = sound(send("/trials", body.toString())).get("trials").asArray();
    return all.get(all.size() - 1).asObject().getString("id", "");
  }

  private void edit(JsonObject edit) {
    drafting.edit(
        held.project().id(),
        held.form(),
        forms.get(held.project().id(), held.form()).revision(),
        edit,
        who);
  }

  private void set(String question, String property, String json) {
    edit(
        new JsonObject()
            .add("op", "set")
            .add("question", question)
            .add("property", property)
            .add("value", Json.parse(json)));
  }

  private List<String> differences(JsonObject told, int trial) {
    return told
        .get("trials")
        .asArray()
        .get(trial)
        .asObject()
        .get("differences")
        .asArray()
        .values()
        .stream()
        .map(d -> d.asObject().getString("question", "") + " " + d.asObject().getString("what", ""))
        .toList();
  }

  @Test
  void aTrialTellsWhatAChangeDoesUntilItIsMeantSo() throws Exception {
    String id = keep(" Silted ");
    JsonObject before = told();
    assertThat(before.getBoolean("ran", false)).isTrue();
    JsonObject trial = before.get("trials").asArray().get(0).asObject();
    assertThat(trial.getString("name", "")).isEqualTo("Silted");
    assertThat(trial.getString("feature", "")).isNotEmpty();
    assertThat(trial.getString("keptBy", "")).isEqualTo(who);
    assertThat(differences(before, 0)).isEmpty();
    set(
        "notes",
        "checks",
        "[{\"rule\":\"notes <> 'silted'\",\"message\":\"how deep?\",\"weight\":\"firm\"}]");
    assertThat(differences(told(), 0)).containsExactly("notes opens");
    set("notes", "askWhen", "\"nothing > 1\"");
    assertThat(told().getBoolean("ran", true)).as("an unsound draft").isFalse();
    assertThat(differences(told(), 0)).isEmpty();
    assertThat(send("/trials/" + id + "/expect", "{}").getStatus()).isEqualTo(409);
    set("notes", "askWhen", "\"\"");
    JsonObject meant = sound(send("/trials/" + id + "/expect", "{}"));
    assertThat(differences(meant, 0)).isEmpty();
    assertThat(meant.get("trials").asArray().get(0).asObject().getInt("holding", 0)).isEqualTo(1);
  }

  @Test
  void aTrialFollowsTheNamesOfQuestionsAndTheirUndoing() throws Exception {
    keep("Silted");
    edit(new JsonObject().add("op", "rename").add("question", "notes").add("value", "remarks"));
    assertThat(differences(told(), 0)).isEmpty();
    drafting.undo(held.project().id(), held.form(), who);
    assertThat(differences(told(), 0)).isEmpty();
    edit(new JsonObject().add("op", "remove").add("question", "notes"));
    assertThat(differences(told(), 0)).containsExactly("notes gone");
  }

  @Test
  void aTrialIsFilledAgainRenamedAndRemoved() throws Exception {
    String id = keep("Silted");
    JsonObject content =
        sound(mvc.perform(get(home + "/trials/" + id).with(user(who))).andReturn().getResponse());
    assertThat(content.get("saved").asObject().get("answers").asObject().names())
        .containsExactly("notes");
    assertThat(content.get("feature").asObject().getString("type", "")).isEqualTo("Feature");
    assertThat(
            sound(send("/trials/" + id + "/name", "{\"name\":\"Deep silt\"}"))
                .get("trials")
                .asArray()
                .get(0)
                .asObject()
                .getString("name", ""))
        .isEqualTo("Deep silt");
    assertThat(send("/trials/" + id + "/name", "{\"name\":\" \"}").getStatus()).isEqualTo(400);
    String other =
        "/api/p/" + held.project().key() + "/forms/" + UUID.randomUUID() + "/trials/" + id;
    assertThat(send(post(other + "/remove"), "{}").getStatus()).isEqualTo(404);
    assertThat(sound(send("/trials/" + id + "/remove", "{}")).get("trials").asArray()).isEmpty();
    assertThat(send("/trials/" + id + "/remove", "{}").getStatus()).isEqualTo(404);
  }

  @Test
  void nonsenseIsRefusedOrCostsItselfOnly() throws Exception {
    String nonsense =
        "{\"name\":\"x\",\"feature\":{\"id\":7,\"version\":\"a\",\"geometry\":{\"type\":3},\"properties\":[1]},"
            + "\"start\":{\"person\":1,\"last\":[],\"position\":{\"lon\":\"x\"}},"
            + "\"saved\":{\"answers\":{\"notes\":3,\"none\":{}},\"rows\":7,\"confirmed\":{},\"place\":[]}}";
    assertThat(send("/trials", nonsense).getStatus()).isIn(200, 400, 422);
    assertThat(send("/trials", "{\"name\":\"\"}").getStatus()).isEqualTo(400);
    String large =
        new JsonObject()
            .add("name", "large")
            .add(
                "saved",
                new JsonObject()
                    .add("answers", typed("notes", "\"" + "x".repeat(1_000_001) + "\"")))
            .toString();
    assertThat(send("/trials", large).getStatus()).isIn(413, 422);
    assertThat(told().get("trials").asArray().size()).isLessThan(2);
  }

  @Test
  void visitsThatCameInAreKeptAndRunUnderTheDraft() throws Exception {
    JsonObject feature = page().get("proof").asArray().get(0).asObject();
    JsonObject visit = SmallVisit.of(feature, held.round(), outdoors);
    visit.set("state", new JsonObject().add("answers", typed("notes", "\"seen\"")));
    MockHttpServletResponse r =
        mvc.perform(
                post("/api/day/hand-ins")
                    .contentType("application/json")
                    .content(
                        new JsonObject()
                            .add("id", UUID.randomUUID().toString())
                            .add("device", "phone")
                            .add("visits", new JsonArray().add(visit))
                            .toString())
                    .with(user(outdoors).roles("USER"))
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    JsonObject fared = sound(send("/dry-run/visits", "{\"below\":null}"));
    assertThat(fared.getInt("of", 0)).isEqualTo(1);
    assertThat(fared.get("report").asObject().getInt("features", 0)).isEqualTo(1);
    int passed = fared.get("report").asObject().getInt("passed", -1);
    set("notes", "checks", "[{\"rule\":\"notes <> 'seen'\",\"message\":\"and?\"}]");
    JsonObject now = sound(send("/dry-run/visits", "{\"below\":null}"));
    String id = visit.getString("id", "");
    assertThat(now.get("report").asObject().getInt("passed", -1)).isLessThanOrEqualTo(passed);
    assertThat(now.get("named").asObject().get(id).asObject().getString("person", ""))
        .isEqualTo(outdoors);
    assertThat(now.get("next").isNull()).isTrue();
    assertThat(
            sound(send("/dry-run/visits", "{\"below\":\"" + id + "\"}"))
                .get("report")
                .asObject()
                .getInt("features", -1))
        .isZero();
    assertThat(
            Json.parse(
                    mvc.perform(get(home + "/trials/visits").with(user(who)))
                        .andReturn()
                        .getResponse()
                        .getContentAsString())
                .asArray())
        .hasSize(1);
    JsonObject kept = sound(send("/trials", "{\"name\":\"As seen\",\"visit\":\"" + id + "\"}"));
    assertThat(kept.get("trials").asArray().get(0).asObject().getInt("holding", 0)).isPositive();
    set("notes", "checks", "[]");
    assertThat(differences(told(), 0)).contains("notes closes");
    assertThat(
            send("/trials", "{\"name\":\"x\",\"visit\":\"" + UUID.randomUUID() + "\"}").getStatus())
        .isEqualTo(404);
  }
}
