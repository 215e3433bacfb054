package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.RoundMaking;
import org.whinridge.core.access.Role;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.Travel;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Assets that nobody knew: visits of open rounds make them. */
class NewAssetsTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired Layers layers;
  @Autowired LayerChanges changes;
  @Autowired LayerMaking layerMaking;
  @Autowired RoundMaking making;
  private SmallProject.Held held;
  private String coordinator;
  private String inspector;

  @BeforeEach
  void another() throws Exception {
    int n = ++next;
    coordinator = "new-coordinator-" + n;
    inspector = "new-inspector-" + n;
    held =
        small.make(
            "new-" + n,
            "New " + n,
            Map.of(Role.COORDINATOR, coordinator, Role.INSPECTOR, inspector));
  }

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q, String who)
      throws Exception {
    return mvc.perform(q.with(user(who)).with(csrf())).andReturn().getResponse();
  }

  private JsonObject json(MockHttpServletRequestBuilder q, String who) throws Exception {
    MockHttpServletResponse r = done(q, who);
    String text = r.getContentAsString(StandardCharsets.UTF_8);
    assertThat(r.getStatus()).as(text).isEqualTo(200);
    return Json.parse(text).asObject();
  }

  private UUID round(RoundAllows allows, UUID... of) {
    return making
        .make(
            held.project().id(),
            new RoundMaking.Plan(
                "Open",
                Note.NONE,
                new Round.When(Optional.empty(), Optional.empty(), 40),
                List.of(of),
                allows,
                Optional.empty(),
                Travel.USUAL,
                false,
                List.of(
                    new RoundMaking.Part(
                        List.of(inspector),
                        allows == RoundAllows.STOPS
                            ? List.of(new RoundMaking.Stop(held.feature(), Note.NONE))
                            : List.of()))),
            coordinator)
        .rounds()
        .get(0);
  }

  private JsonObject visit(UUID round, UUID form, UUID feature, String set) {
    JsonObject like =
        new JsonObject()
            .add("id", feature.toString())
            .add("version", 0)
            .add("properties", new JsonObject())
            .add("geometry", Json.NULL);
    JsonObject v = SmallVisit.of(like, round, inspector).add("form", form.toString());
    v.get("start").asObject().add("new", new JsonObject());
    return v.set("set", Json.parse(set))
        .add(
            "geometry", Json.parse("{\"type\":\"Point\",\"coordinates\":[-10.2,57.9]}").asObject());
  }

  private JsonObject sent(JsonObject visit) throws Exception {
    JsonObject handIn =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("device", "phone")
            .add("person", inspector)
            .add("visits", new JsonArray().add(visit));
    return json(
            post("/api/day/hand-ins").contentType("application/json").content(handIn.toString()),
            inspector)
        .get("visits")
        .asArray()
        .get(0)
        .asObject();
  }

  private String at(JsonObject visit) {
    return "/p/" + held.project().key() + "/hand-ins/" + visit.getString("id", "");
  }

  private String decide(JsonObject visit, String how) throws Exception {
    var told =
        mvc.perform(post(at(visit) + "/" + how).with(user(coordinator)).with(csrf()))
            .andReturn()
            .getFlashMap();
    Object said = told.containsKey("done") ? told.get("done") : told.get("problem");
    return English.of((Said) said);
  }

  private Optional<Feature> feature(UUID id) {
    return layers.feature(layers.byId(held.layer()), id);
  }

  @Test
  void aVisitMakesItsFeatureWhenItIsAcceptedAndTakesItAwayAgain() throws Exception {
    UUID round = round(RoundAllows.NEW, held.form());
    UUID id = UUID.randomUUID();
    JsonObject v = visit(round, held.form(), id, "{\"notes\":\"found under brambles\"}");
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(done(get(at(v)), coordinator).getContentAsString())
        .contains("id=\"makes-feature\"")
        .contains("Add it to Control structures")
        .doesNotContain("has no place");
    assertThat(feature(id)).isEmpty();
    int before = layers.byId(held.layer()).count();

    decide(v, "accept");
    assertThat(feature(id).orElseThrow().value("notes"))
        .isEqualTo(Value.text("found under brambles"));
    assertThat(feature(id).orElseThrow().geometry()).isPresent();
    assertThat(layers.byId(held.layer()).count()).isEqualTo(before + 1);
    assertThat(json(get(base() + "/rounds/" + round + "/live"), coordinator).toString())
        .contains("\"besides\":1")
        .contains("\"makes\":true");

    decide(v, "take-back");
    assertThat(feature(id)).isEmpty();
    assertThat(layers.byId(held.layer()).count()).isEqualTo(before);
    decide(v, "accept");
    assertThat(feature(id).orElseThrow().value("notes"))
        .isEqualTo(Value.text("found under brambles"));
    assertThat(layers.byId(held.layer()).count()).isEqualTo(before + 1);
  }

  private String base() {
    return "/api/p/" + held.project().key();
  }

  /** What others have written to it since would go with it, so that it stays. */
  @Test
  void aNewFeatureThatWasChangedSinceStays() throws Exception {
    UUID round = round(RoundAllows.NEW, held.form());
    UUID id = UUID.randomUUID();
    JsonObject first = visit(round, held.form(), id, "{\"notes\":\"first\"}");
    sent(first);
    decide(first, "accept");
    UUID second = forms.fromLayer(held.project().id(), held.layer());
    forms.publish(held.project().id(), second, coordinator);
    UUID both = round(RoundAllows.NEW, held.form(), second);
    // made offline, before the device knew that the feature is on the layer
    JsonObject more = visit(both, second, id, "{\"condition\":\"3\"}");
    assertThat(sent(more).getBoolean("clash", false)).isFalse();
    decide(more, "accept");
    assertThat(feature(id).orElseThrow().value("notes")).isEqualTo(Value.text("first"));
    assertThat(decide(first, "take-back")).contains("changed since and stays");
    assertThat(feature(id)).isPresent();
  }

  /** What somebody has removed at the desk is not made anew by a visit that is accepted later. */
  @Test
  void aNewFeatureThatWasRemovedIsNotMadeAnew() throws Exception {
    UUID round = round(RoundAllows.NEW, held.form());
    UUID id = UUID.randomUUID();
    JsonObject first = visit(round, held.form(), id, "{\"notes\":\"first\"}");
    sent(first);
    decide(first, "accept");
    JsonObject later = visit(round, held.form(), id, "{\"condition\":\"4\"}");
    sent(later);
    changes.write(
        layers.byId(held.layer()),
        "desk",
        Said.text("removed"),
        coordinator,
        batch -> batch.remove(id));
    assertThat(decide(later, "accept")).contains("not on the layer");
    assertThat(feature(id)).isEmpty();
  }

  @Test
  void aRoundThatAllowsNoneSetsItAside() throws Exception {
    for (RoundAllows a : List.of(RoundAllows.STOPS, RoundAllows.ANY)) {
      JsonObject v = visit(round(a, held.form()), held.form(), UUID.randomUUID(), "{}");
      assertThat(sent(v).getString("state", "")).isEqualTo("set aside");
    }
  }

  /** What is on another layer, or in another project, is never made over. */
  @Test
  void anotherLayersFeatureIsNotMadeOver() throws Exception {
    SmallProject.Held other =
        small.make(
            held.project().key() + "-other",
            "Other " + held.project().key(),
            Map.of(Role.COORDINATOR, coordinator + "-o", Role.INSPECTOR, inspector + "-o"));
    UUID round = round(RoundAllows.NEW, held.form());
    JsonObject v = visit(round, held.form(), other.feature(), "{\"notes\":\"mine\"}");
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(decide(v, "accept")).contains("already");
    assertThat(
            layers
                .feature(layers.byId(other.layer()), other.feature())
                .orElseThrow()
                .value("notes"))
        .isNotEqualTo(Value.text("mine"));
  }

  /** A form that has no place belongs to a table; each visit is a row of it. */
  @Test
  void aFormWithoutAPlaceMakesRows() throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.TABLE,
            List.of(Field.of("what", "What", FieldType.TEXT), Field.of("n", "n", FieldType.WHOLE)),
            "what",
            List.of("what"));
    UUID table =
        layerMaking.make(
            held.project().id(), "Day log", schema, Said.text("made"), coordinator, take -> {});
    UUID form = forms.fromLayer(held.project().id(), table);
    forms.publish(held.project().id(), form, coordinator);
    UUID round = round(RoundAllows.NEW, form);
    JsonObject manifest = json(get("/api/day/rounds/" + round + "/manifest"), inspector);
    for (var p : manifest.get("parts").asArray())
      assertThat(
              done(
                      get(
                          "/api/day/rounds/"
                              + round
                              + "/parts/"
                              + p.asObject().getString("name", "")),
                      inspector)
                  .getStatus())
          .as(p.toString())
          .isEqualTo(200);
    UUID id = UUID.randomUUID();
    JsonObject v = visit(round, form, id, "{\"what\":\"Gate key lost\",\"n\":2}");
    v.remove("geometry");
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    decide(v, "accept");
    assertThat(layers.feature(layers.byId(table), id).orElseThrow().value("what"))
        .isEqualTo(Value.text("Gate key lost"));
  }
}
