package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
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
import org.whinridge.app.project.Members;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.RoundMaking;
import org.whinridge.app.round.Rounds;
import org.whinridge.core.access.Role;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.StopState;
import org.whinridge.core.round.Travel;

/** Rounds that are out: several forms and people, any asset, stops that are moved, closing. */
class RoundsOutTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired Rounds rounds;
  @Autowired RoundMaking making;
  @Autowired Members members;
  private SmallProject.Held held;
  private String coordinator;
  private String inspector;
  private String second;

  @BeforeEach
  void another() throws Exception {
    int n = ++next;
    coordinator = "out-coordinator-" + n;
    inspector = "out-inspector-" + n;
    second = "out-second-" + n;
    held =
        small.make(
            "out-" + n,
            "Out " + n,
            Map.of(Role.COORDINATOR, coordinator, Role.INSPECTOR, inspector, Role.READER, second));
    members.set(held.project().id(), second, java.util.Set.of(Role.INSPECTOR));
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

  private List<UUID> features() {
    return rounds.get(held.project().id(), held.round()).stops().stream()
        .map(Round.Stop::featureId)
        .toList();
  }

  /** A round of the first stops of the project. */
  private UUID round(List<UUID> of, List<String> people, RoundAllows allows, int stops) {
    return making
        .make(
            held.project().id(),
            new RoundMaking.Plan(
                "Round",
                Note.NONE,
                new Round.When(Optional.empty(), Optional.empty(), 0),
                of,
                allows,
                Optional.empty(),
                Travel.USUAL,
                false,
                List.of(
                    new RoundMaking.Part(
                        people,
                        features().subList(0, stops).stream()
                            .map(f -> new RoundMaking.Stop(f, Note.NONE))
                            .toList()))),
            coordinator)
        .rounds()
        .get(0);
  }

  private UUID secondForm() {
    UUID form = forms.fromLayer(held.project().id(), held.layer());
    forms.publish(held.project().id(), form, coordinator);
    return form;
  }

  private JsonArray pack(UUID round, String who) throws Exception {
    return json(get("/api/day/rounds/" + round + "/parts/features-" + held.layer()), who)
        .get("features")
        .asArray();
  }

  private JsonObject visit(UUID round, UUID form, int feature, String who) throws Exception {
    JsonObject of = pack(round, who).get(feature).asObject();
    JsonObject v = SmallVisit.of(of, round, who);
    return form == null ? v : v.add("form", form.toString());
  }

  private JsonObject sent(JsonObject visit, String who) throws Exception {
    JsonObject handIn =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("device", "phone")
            .add("person", who)
            .add("visits", new JsonArray().add(visit));
    return json(
            post("/api/day/hand-ins").contentType("application/json").content(handIn.toString()),
            who)
        .get("visits")
        .asArray()
        .get(0)
        .asObject();
  }

  private StopState state(UUID round, int stop) {
    return rounds.get(held.project().id(), round).stops().get(stop).state();
  }

  private List<String> mine(String who) throws Exception {
    return json(get("/api/day/me"), who).get("rounds").asArray().values().stream()
        .map(r -> r.asObject().getString("id", ""))
        .toList();
  }

  private void move(UUID round, int stop, String to) throws Exception {
    JsonObject body =
        new JsonObject()
            .add("stops", new JsonArray().add(features().get(stop).toString()))
            .add("person", to);
    json(
        post("/api/p/" + held.project().key() + "/rounds/" + round + "/move")
            .contentType("application/json")
            .content(body.toString()),
        coordinator);
  }

  @Test
  void aStopIsDoneWhenItWasVisitedWithEachOfItsForms() throws Exception {
    UUID other = secondForm();
    UUID round = round(List.of(held.form(), other), List.of(inspector), RoundAllows.STOPS, 2);
    JsonObject plan = json(get("/api/day/rounds/" + round + "/parts/round"), inspector);
    assertThat(plan.get("forms").asArray()).hasSize(2);
    for (UUID form : List.of(held.form(), other))
      assertThat(
              json(get("/api/day/rounds/" + round + "/parts/form-" + form), inspector)
                  .getString("id", ""))
          .isEqualTo(form.toString());
    assertThat(sent(visit(round, held.form(), 0, inspector), inspector).getString("state", ""))
        .isEqualTo("waiting");
    assertThat(state(round, 0)).isEqualTo(StopState.STARTED);
    sent(visit(round, other, 0, inspector), inspector);
    assertThat(state(round, 0)).isEqualTo(StopState.DONE);
    assertThat(state(round, 1)).isEqualTo(StopState.TO_DO);
    JsonObject unsaid = sent(visit(round, null, 1, inspector), inspector);
    assertThat(unsaid.getString("state", "")).isEqualTo("set aside");
    assertThat(unsaid.getString("reason", "")).contains("with which of the round's forms");
    assertThat(
            sent(visit(round, UUID.randomUUID(), 1, inspector), inspector).getString("reason", ""))
        .contains("none of this round");
  }

  /** Devices that took a round out when each had one form don't say with which one. */
  @Test
  void aDeviceThatDoesNotSayWithWhichFormIsUnderstoodInARoundOfOne() throws Exception {
    assertThat(sent(visit(held.round(), null, 0, inspector), inspector).getString("state", ""))
        .isEqualTo("waiting");
    assertThat(state(held.round(), 0)).isEqualTo(StopState.DONE);
  }

  @Test
  void anyAssetIsVisitedWhereTheRoundAllowsItAndOnlyThere() throws Exception {
    UUID stops = round(List.of(held.form()), List.of(inspector), RoundAllows.STOPS, 1);
    UUID any = round(List.of(held.form()), List.of(inspector), RoundAllows.ANY, 0);
    assertThat(pack(stops, inspector)).hasSize(1);
    assertThat(pack(any, inspector)).hasSize(5);
    JsonObject visit = visit(any, held.form(), 3, inspector);
    assertThat(
            sent(new JsonObject(visit).set("round", stops.toString()), inspector)
                .getString("reason", ""))
        .contains("no stop of this round");
    visit.set("id", UUID.randomUUID().toString());
    assertThat(sent(visit, inspector).getString("state", "")).isEqualTo("waiting");
  }

  @Test
  void aRoundWithoutPeopleIsForAnyoneWhoGoesOut() throws Exception {
    UUID round = round(List.of(held.form()), List.of(), RoundAllows.STOPS, 2);
    assertThat(mine(inspector)).contains(round.toString());
    assertThat(mine(second)).contains(round.toString()).doesNotContain(held.round().toString());
    members.set(held.project().id(), second, java.util.Set.of(Role.READER));
    assertThat(done(get("/api/day/rounds/" + round + "/manifest"), second).getStatus())
        .isIn(403, 404);
    String stranger = "out-inspector-0";
    small.make(
        "out-other-" + next,
        "Other " + next,
        Map.of(Role.COORDINATOR, coordinator + "x", Role.INSPECTOR, stranger + "-" + next));
    assertThat(
            done(get("/api/day/rounds/" + round + "/manifest"), stranger + "-" + next).getStatus())
        .isEqualTo(404);
  }

  /** Both visits survive when two people were at a stop. */
  @Test
  void twoPeopleWhoShareARoundMayBothVisitAStop() throws Exception {
    UUID round = round(List.of(held.form()), List.of(inspector, second), RoundAllows.STOPS, 2);
    JsonObject first = visit(round, held.form(), 0, inspector);
    JsonObject other = visit(round, held.form(), 0, second);
    assertThat(sent(first, inspector).getString("state", "")).isEqualTo("waiting");
    assertThat(sent(other, second).getString("state", "")).isEqualTo("waiting");
    JsonObject now =
        json(get("/api/p/" + held.project().key() + "/rounds/" + round + "/live"), coordinator);
    JsonObject stop = now.get("stops").asArray().get(0).asObject();
    assertThat(stop.getString("state", "")).isEqualTo("done");
    assertThat(now.get("people").asArray()).hasSize(2);
    assertThat(now.getString("end", "")).isNotEmpty();
  }

  @Test
  void stopsAreMovedWhileTheyAreOutAndTheOneThatWasVisitedStays() throws Exception {
    JsonObject begun = visit(held.round(), held.form(), 1, inspector);
    sent(visit(held.round(), held.form(), 0, inspector), inspector);
    assertThat(mine(second)).doesNotContain(held.round().toString());
    move(held.round(), 0, second);
    move(held.round(), 1, second);
    List<Round.Stop> stops = rounds.get(held.project().id(), held.round()).stops();
    assertThat(stops.get(0).person()).as("it is done").isEmpty();
    assertThat(stops.get(1).person()).contains(second);
    assertThat(mine(second)).contains(held.round().toString());
    for (JsonValue r : json(get("/api/day/me"), inspector).get("rounds").asArray())
      if (r.asObject().getString("id", "").equals(held.round().toString()))
        assertThat(r.asObject().get("stops").asArray().get(1).asObject().getString("person", ""))
            .isEqualTo(second);
    assertThat(sent(begun, inspector).getString("state", ""))
        .as("a visit that was begun before")
        .isEqualTo("waiting");
    move(held.round(), 2, "");
    JsonObject nobody =
        new JsonObject()
            .add("stops", new JsonArray().add(features().get(2).toString()))
            .add("person", "nobody");
    assertThat(
            done(
                    post("/api/p/" + held.project().key() + "/rounds/" + held.round() + "/move")
                        .contentType("application/json")
                        .content(nobody.toString()),
                    coordinator)
                .getStatus())
        .isEqualTo(422);
  }

  @Test
  void aRoundThatIsClosedLeavesTheDevicesAndWhatWasBegunIsStillTaken() throws Exception {
    JsonObject begun = visit(held.round(), null, 0, inspector);
    String page = "/p/" + held.project().key() + "/rounds/" + held.round();
    assertThat(done(post(page + "/close").param("closed", "true"), coordinator).getStatus())
        .isEqualTo(302);
    assertThat(mine(inspector)).doesNotContain(held.round().toString());
    assertThat(done(get("/api/day/rounds/" + held.round() + "/manifest"), inspector).getStatus())
        .isEqualTo(404);
    assertThat(sent(begun, inspector).getString("state", "")).isEqualTo("waiting");
    assertThat(done(get(page), coordinator).getContentAsString()).contains("is closed");
    done(post(page + "/close").param("closed", "false"), coordinator);
    assertThat(mine(inspector)).contains(held.round().toString());
  }
}
