package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.LayerUse;
import org.whinridge.app.layer.Layers;
import org.whinridge.core.access.Role;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** A draft, and single conditions, over the features of its layer. */
class DraftRunsTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired Drafting drafting;
  @Autowired Layers layers;
  @Autowired LayerMaking making;
  @Autowired List<LayerUse> uses;
  private SmallProject.Held held;
  private String who;
  private String home;

  @BeforeEach
  void aProjectOfItsOwn() throws Exception {
    int n = ++next;
    who = "runs-" + n;
    held =
        small.make(
            "runs-" + n, "Runs " + n, Map.of(Role.COORDINATOR, who, Role.INSPECTOR, "r-" + n));
    home = "/api/p/" + held.project().key() + "/forms/" + held.form();
  }

  private MockHttpServletResponse send(String what, String body, String person) throws Exception {
    return mvc.perform(
            post(home + what)
                .contentType("application/json")
                .content(body)
                .with(user(person))
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private JsonObject told(String what, String body) throws Exception {
    MockHttpServletResponse r = send(what, body, who);
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    return Json.parse(r.getContentAsString()).asObject();
  }

  private JsonObject tally(String rule) throws Exception {
    return told("/tally", new JsonObject().add("rule", rule).toString());
  }

  private void set(String question, String property, String json) {
    drafting.edit(
        held.project().id(),
        held.form(),
        forms.get(held.project().id(), held.form()).revision(),
        new JsonObject()
            .add("op", "set")
            .add("question", question)
            .add("property", property)
            .add("value", Json.parse(json)),
        who);
  }

  private long holding(java.util.function.Predicate<Feature> test) {
    return layers.first(layers.byId(held.layer()), 10).stream().filter(test).count();
  }

  @Test
  void aConditionIsCountedOnTheLayerOrVisitByVisit() throws Exception {
    long poor = holding(f -> f.value("condition") instanceof Value.Num n && n.value() >= 3);
    JsonObject onLayer = tally("condition >= 3");
    assertThat(onLayer.getInt("holds", -1)).isEqualTo((int) poor);
    assertThat(onLayer.getString("filter", "")).isEqualTo("condition >= 3");
    assertThat(onLayer.getInt("of", 0)).isEqualTo(5);
    assertThat(onLayer.get("first").asArray()).hasSize((int) poor);
    set("condition", "askWhen", "\"notes IS NULL OR notes IS NOT NULL\"");
    JsonObject byVisit = tally("condition >= 3");
    assertThat(byVisit.getString("filter", "")).isEmpty();
    assertThat(byVisit.getInt("holds", -1)).isEqualTo((int) poor);
    assertThat(byVisit.getInt("fails", -1)).isEqualTo(onLayer.getInt("fails", -2));
  }

  /** A layer that is only looked up in is not taken from under a form either, nor its field. */
  @Test
  void aLayerThatAFormLooksUpInIsInUse() throws Exception {
    UUID other =
        making
            .makeEmpty(
                List.of(
                    new LayerMaking.NewLayer(
                        held.project().id(),
                        "Soils",
                        new Schema(
                            GeometryKind.POLYGON,
                            List.of(
                                Field.of("soil", "Soil", FieldType.TEXT),
                                Field.of("depth", "Depth", FieldType.DECIMAL)),
                            "",
                            List.of()),
                        Said.of("ledger.madeAtTheDesk"),
                        "",
                        List.of(),
                        "EPSG:4326",
                        "")),
                who)
            .get(0);
    assertThat(uses.stream().flatMap(u -> u.of(other).stream())).isEmpty();
    set(
        "notes",
        "prefill",
        "[{\"from\":\"place\",\"layer\":\""
            + other
            + "\",\"layerName\":\"Soils\",\"field\":\"soil\"}]");
    assertThat(uses.stream().flatMap(u -> u.of(other).stream())).hasSize(1);
    assertThat(uses.stream().flatMap(u -> u.of(other, "soil").stream())).hasSize(1);
    assertThat(uses.stream().flatMap(u -> u.of(other, "depth").stream())).isEmpty();
  }

  @Test
  void whatCantBeRunIsSaidToBeSo() throws Exception {
    assertThat(tally("condition >=").getBoolean("counted", true)).isFalse();
    assertThat(tally("nothing > 1").getBoolean("counted", true)).isFalse();
    assertThat(send("/tally", "{}", who).getStatus()).isEqualTo(400);
    assertThat(send("/dry-run", "{\"from\":-1}", who).getStatus()).isEqualTo(400);
    assertThat(send("/dry-run", "{\"from\":0}", "r-" + next).getStatus()).isEqualTo(403);
    set("notes", "askWhen", "\"nothing > 1\"");
    assertThat(told("/dry-run", "{\"from\":0}").get("report").isNull()).isTrue();
  }

  @Test
  void theDraftIsRunBesideTheEditionInUse() throws Exception {
    long without = holding(f -> f.value("notes").isEmpty());
    JsonObject as = told("/dry-run", "{\"from\":0}");
    assertThat(as.getInt("better", -1) + as.getInt("worse", -1)).isZero();
    int passed = as.get("report").asObject().getInt("passed", -1);
    set("notes", "need", "\"needed\"");
    JsonObject now = told("/dry-run", "{\"from\":0}");
    JsonObject report = now.get("report").asObject();
    assertThat(report.getInt("features", 0)).isEqualTo(5);
    assertThat(now.get("next").isNull()).isTrue();
    assertThat(told("/dry-run", "{\"from\":9}").get("next").isNull()).as("beyond the end").isTrue();
    assertThat(now.getInt("worse", -1)).isEqualTo(passed - report.getInt("passed", -1));
    JsonObject failing =
        report.get("failing").asArray().values().stream()
            .map(v -> v.asObject())
            .filter(f -> f.getString("question", "").equals("notes"))
            .findFirst()
            .orElseThrow();
    assertThat(failing.getInt("count", 0)).isEqualTo((int) without);
    String first = failing.get("features").asArray().get(0).asString();
    JsonObject named = now.get("named").asObject().get(first).asObject();
    assertThat(named.getString("caption", "")).isNotEmpty();
    assertThat(named.get("at").asArray()).hasSize(2);
    MockHttpServletResponse at =
        mvc.perform(get(home + "/proof/" + first).with(user(who))).andReturn().getResponse();
    assertThat(Json.parse(at.getContentAsString()).asObject().getInt("at", -1)).isBetween(0, 4);
    assertThat(
            mvc.perform(get(home + "/proof/" + UUID.randomUUID()).with(user(who)))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
  }
}
