package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletResponse;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

/** Hand-ins, merging and review through the addresses that devices and desks use. */
class HandInTest extends DeviceTest {
  @Test
  void theSameHandInSentTwiceIsOneVisitAndOneEdit() throws Exception {
    JsonObject v = visit("sent twice");
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(page(v)).doesNotContain("own run of the rules found");
    long before = now(v).version();
    assertThat(decide(v, "accept")).startsWith("Accepted: ");
    assertThat(sent(v).getString("state", "")).isEqualTo("accepted");
    assertThat(decide(v, "accept")).contains("already");
    assertThat(now(v).version()).isEqualTo(before + 1);
    assertThat(now(v).value("notes")).isEqualTo(Value.text("sent twice"));
    assertThat(layers.history(layer(), UUID.fromString(now(v).id())))
        .first()
        .satisfies(
            e -> {
              assertThat(e.cause()).isEqualTo("visit");
              assertThat(e.visitId()).hasValue(UUID.fromString(v.getString("id", "")));
              assertThat(English.of(e.summary()))
                  .isEqualTo("visit of inspector1, accepted by coordinator");
            });
  }

  @Test
  void aClashWaitsForADecisionAndTheRestMerges() throws Exception {
    JsonObject v = visit("from the field");
    meanwhile(v, "notes", Value.text("from the desk"));
    meanwhile(v, "material", Value.text("Slate"));
    assertThat(sent(v).getBoolean("clash", false)).isTrue();
    assertThat(decide(v, "accept")).contains("Choose a value for “Notes” first");
    assertThat(now(v).value("width_mm")).isNotEqualTo(Value.of(777));
    decide(v, "accept", "clash.notes", "layer");
    assertThat(now(v).value("notes")).isEqualTo(Value.text("from the desk"));
    assertThat(now(v).value("material")).isEqualTo(Value.text("Slate"));
    assertThat(now(v).value("width_mm")).isEqualTo(Value.of(777));
  }

  @Test
  void theMergeIsComputedAgainWhenTheVisitIsAccepted() throws Exception {
    JsonObject v = visit("mine");
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    meanwhile(v, "notes", Value.text("changed after the hand-in"));
    assertThat(decide(v, "accept")).contains("Choose a value");
    assertThat(decide(v, "accept", "clash.notes", "mine")).startsWith("Accepted");
    assertThat(now(v).value("notes")).isEqualTo(Value.text("mine"));
  }

  @Test
  void takingBackRestoresWhatNobodyHasChangedSince() throws Exception {
    JsonObject v = visit("to be taken back");
    Value width = now(v).value("width_mm");
    sent(v);
    decide(v, "accept");
    meanwhile(v, "notes", Value.text("later"));
    assertThat(decide(v, "take-back")).contains("except Notes");
    assertThat(now(v).value("width_mm")).isEqualTo(width);
    assertThat(now(v).value("notes")).isEqualTo(Value.text("later"));
    assertThat(layers.history(layer(), UUID.fromString(now(v).id())).get(0).cause())
        .isEqualTo("taken back");
  }

  @Test
  void sentBackNeedsANoteAndTheDeviceHearsIt() throws Exception {
    JsonObject v = visit("not good enough");
    sent(v);
    assertThat(decide(v, "send-back", "note", " ")).contains("Say what should be mended");
    decide(v, "send-back", "note", "Photograph the hinge");
    JsonObject heard =
        json("/api/day/me", INSPECTOR).get("visits").asArray().values().stream()
            .map(x -> x.asObject())
            .filter(x -> x.getString("id", "").equals(v.getString("id", "")))
            .findFirst()
            .orElseThrow();
    assertThat(heard.getString("state", "") + ": " + heard.getString("reason", ""))
        .isEqualTo("sent back: Photograph the hinge");
    JsonObject mended = Json.parse(v.toString()).asObject().set("endedAt", "2026-05-04T11:00:00Z");
    assertThat(sent(mended).getString("state", "")).isEqualTo("waiting");
  }

  @Test
  void whatTheServersRulesFindIsShownAndHoldsNothingBack() throws Exception {
    JsonObject v = visit("tampered");
    v.get("state")
        .asObject()
        .get("answers")
        .asObject()
        .get("silt_depth_mm")
        .asObject()
        .set("value", 5000);
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(page(v))
        .contains("own run of the rules found")
        .contains("Silt of 5000 mm")
        .contains("do not follow from the answers");
  }

  @Test
  void aTagThatAnotherFeatureOfTheWholeLayerHasIsFoundByTheServer() throws Exception {
    JsonObject v = visit("a new tag");
    String taken =
        part("features")
            .get("features")
            .asArray()
            .get(nextStop)
            .asObject()
            .get("properties")
            .asObject()
            .getString("tag", "");
    JsonObject tag = v.get("state").asObject().get("answers").asObject().get("tag").asObject();
    tag.set("from", "typed").set("value", taken);
    v.get("set").asObject().set("tag", taken);
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(page(v)).contains("another feature already has ‘" + taken + "’");
    JsonObject own = visit("its own tag");
    sent(own);
    assertThat(page(own)).doesNotContain("another feature already has");
  }

  @Test
  void oneBadVisitIsSetAsideWithItsTextAndTheOthersAreKept() throws Exception {
    JsonObject good = visit("the good one");
    JsonObject bad =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("round", "not an id")
            .add("precious", "my afternoon's <b>work</b>");
    JsonObject answer =
        Json.parse(
                send(handIn(UUID.randomUUID().toString(), bad, good), INSPECTOR)
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject();
    assertThat(answer.get("visits").asArray().get(0).asObject().getString("state", ""))
        .isEqualTo("set aside");
    assertThat(answer.get("visits").asArray().get(1).asObject().getString("state", ""))
        .isEqualTo("waiting");
    assertThat(html("/p/ostrey/hand-ins")).contains("set aside</a>");
    String list = html("/p/ostrey/hand-ins/set-aside");
    assertThat(list).contains("its round is not an id").doesNotContain("precious");
    String id = list.replaceAll("(?s).*?data-set-aside=\"([^\"]+)\".*", "$1");
    assertThat(html("/p/ostrey/hand-ins/set-aside/" + id + "/text"))
        .contains("my afternoon's <b>work");
  }

  private String html(String path) throws Exception {
    return mvc.perform(get(path).with(COORDINATOR))
        .andReturn()
        .getResponse()
        .getContentAsString(StandardCharsets.UTF_8);
  }

  @Test
  void otherPeoplesRoundsVisitsAndPhotosAreNotReached() throws Exception {
    JsonObject v = visit("mine alone");
    sent(v);
    assertThat(
            mvc.perform(get("/api/day/rounds/" + round() + "/manifest").with(OTHER))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    assertThat(json("/api/day/me", OTHER).get("visits").asArray()).isEmpty();
    MockHttpServletResponse r =
        send(handIn(UUID.randomUUID().toString(), v.set("endedAt", "2026-05-05T09:10:00Z")), OTHER);
    assertThat(r.getContentAsString()).contains("set aside").contains("belongs to somebody else");
    assertThat(page(v)).contains("mine alone");
    assertThat(
            mvc.perform(
                    get("/p/ostrey/hand-ins/" + UUID.randomUUID())
                        .with(COORDINATOR)
                        .accept("text/html"))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    assertThat(
            mvc.perform(
                    post("/p/ostrey/hand-ins/" + v.getString("id", "") + "/accept")
                        .with(OTHER)
                        .with(csrf()))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
    assertThat(mvc.perform(get("/api/day/me")).andReturn().getResponse().getStatus())
        .isEqualTo(401);
  }

  @Test
  void nonsenseIsAnsweredInWordsAndNeverBreaksTheServer() throws Exception {
    for (String body :
        new String[] {
          "", "null", "[]", "{", "{\"id\":7}", "{\"id\":\"" + UUID.randomUUID() + "\",\"visits\":7}"
        }) assertThat(send(body, INSPECTOR).getStatus()).as(body).isEqualTo(422);
    for (String visit :
        new String[] {
          "null",
          "7",
          "{}",
          "{\"id\":7}",
          "{\"id\":\"" + UUID.randomUUID() + "\",\"round\":null}",
          "{\"id\":\"" + UUID.randomUUID() + "\",\"photos\":{},\"start\":7}"
        }) {
      MockHttpServletResponse r =
          send("{\"id\":\"" + UUID.randomUUID() + "\",\"visits\":[" + visit + "]}", INSPECTOR);
      assertThat(r.getStatus()).isEqualTo(200);
      assertThat(r.getContentAsString()).contains("set aside");
    }
    for (String member :
        new String[] {
          "start", "state", "base", "set", "photos", "edition", "startedAt", "geometry", "feature"
        }) {
      JsonObject v = visit("broken");
      nextStop--;
      assertThat(
              send(handIn(UUID.randomUUID().toString(), v.set(member, "☃")), INSPECTOR).getStatus())
          .as(member)
          .isEqualTo(200);
    }
  }

  @Test
  void officeOnlyFieldsNeverTravelAndStayWhenAVisitIsAccepted() throws Exception {
    assertThat(part("features").toString() + part("form")).doesNotContain("cost_centre");
    JsonObject v = visit("office stays");
    Value cost = now(v).value("cost_centre");
    assertThat(cost.isEmpty()).isFalse();
    sent(v);
    decide(v, "accept");
    assertThat(now(v).value("cost_centre")).isEqualTo(cost);
  }
}
