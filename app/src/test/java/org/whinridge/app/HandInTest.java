package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.patch;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.layer.FeatureChange;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.value.Value;
import org.whinridge.demo.DemoPhoto;

/**
 * Hand-ins, photos, merging and review through the addresses that devices and desks use. Each test
 * takes a stop of its own.
 */
class HandInTest extends ServerTest {
  private static final UserRequestPostProcessor INSPECTOR = user("inspector1").roles("inspector");
  private static final UserRequestPostProcessor OTHER = user("inspector2").roles("inspector");
  private static final UserRequestPostProcessor COORDINATOR =
      user("coordinator").roles("coordinator");
  private static int nextStop;
  @Autowired MockMvc mvc;
  @Autowired Layers layers;
  @Autowired Projects projects;

  private JsonObject json(String path, UserRequestPostProcessor who) throws Exception {
    return Json.parse(
            mvc.perform(get(path).with(who))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject();
  }

  private String round() throws Exception {
    return json("/api/day/me", INSPECTOR)
        .get("rounds")
        .asArray()
        .get(0)
        .asObject()
        .getString("id", "");
  }

  private Layer layer() {
    return layers.list(projects.byKey("ostrey").id()).stream()
        .filter(l -> l.name().equals("Control structures"))
        .findFirst()
        .orElseThrow();
  }

  private JsonObject part(String name) throws Exception {
    return json("/api/day/rounds/" + round() + "/parts/" + name, INSPECTOR);
  }

  /** A visit of the next stop that sets the notes, as a device would send it. */
  private JsonObject visit(String notes) throws Exception {
    JsonArray all = part("features").get("features").asArray();
    JsonObject feature = all.get(nextStop++).asObject();
    return visit(feature, notes);
  }

  private JsonObject visit(JsonObject feature, String notes) throws Exception {
    JsonObject values = feature.get("properties").asObject();
    JsonObject answers = new JsonObject();
    for (JsonObject.Member m : values)
      if (!m.getName().equals("last_inspected"))
        answers.add(
            m.getName(),
            new JsonObject()
                .add("from", "asset")
                .add("confirmed", true)
                .add("value", m.getValue()));
    answers.set(
        "notes", new JsonObject().add("from", "typed").add("confirmed", true).add("value", notes));
    answers.set(
        "condition", new JsonObject().add("from", "typed").add("confirmed", true).add("value", 3));
    answers.set(
        "silt_depth_mm",
        new JsonObject().add("from", "typed").add("confirmed", true).add("value", 10));
    answers.set(
        "width_mm", new JsonObject().add("from", "typed").add("confirmed", true).add("value", 777));
    answers.set(
        "kind",
        new JsonObject().add("from", "typed").add("confirmed", true).add("value", "sluice"));
    JsonObject set = new JsonObject();
    for (var f : layer().schema().fields()) {
      var a = answers.get(f.name());
      if (f.name().equals("last_inspected")) set.add("last_inspected", "2026-05-04");
      else if (a != null && !a.asObject().get("value").equals(values.get(f.name())))
        set.add(f.name(), a.asObject().get("value"));
    }
    return new JsonObject()
        .add("id", UUID.randomUUID().toString())
        .add("round", round())
        .add("edition", 1)
        .add("feature", feature.get("id"))
        .add("startedAt", "2026-05-04T09:00:00Z")
        .add("endedAt", "2026-05-04T09:10:00Z")
        .add(
            "start",
            new JsonObject()
                .add("person", "inspector1")
                .add("startedAt", "2026-05-04T09:00:00Z")
                .add("offset", 60)
                .add("edition", 1))
        .add("state", new JsonObject().add("answers", answers))
        .add(
            "base",
            new JsonObject()
                .add("version", feature.get("version"))
                .add("values", values)
                .add("geometry", feature.get("geometry")))
        .add("set", set)
        .add("kept", new JsonObject())
        .add("photos", new JsonArray());
  }

  private static String handIn(String id, JsonObject... visits) {
    JsonArray list = new JsonArray();
    for (JsonObject v : visits) list.add(v);
    return new JsonObject().add("id", id).add("device", "phone").add("visits", list).toString();
  }

  private MockHttpServletResponse send(String body, UserRequestPostProcessor who) throws Exception {
    return mvc.perform(
            post("/api/day/hand-ins")
                .content(body)
                .contentType("application/json")
                .with(who)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private JsonObject sent(JsonObject visit) throws Exception {
    MockHttpServletResponse r = send(handIn(UUID.randomUUID().toString(), visit), INSPECTOR);
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8))
        .asObject()
        .get("visits")
        .asArray()
        .get(0)
        .asObject();
  }

  private String decide(JsonObject visit, String deed, String... parameters) throws Exception {
    var q =
        post("/p/ostrey/hand-ins/" + visit.getString("id", "") + "/" + deed)
            .with(COORDINATOR)
            .with(csrf());
    for (int i = 0; i < parameters.length; i += 2) q = q.param(parameters[i], parameters[i + 1]);
    Map<String, Object> flash =
        new java.util.LinkedHashMap<>(mvc.perform(q).andReturn().getFlashMap());
    return String.valueOf(flash.getOrDefault("done", flash.get("problem")));
  }

  private Feature now(JsonObject visit) {
    return layers.feature(layer(), UUID.fromString(visit.getString("feature", ""))).orElseThrow();
  }

  private void meanwhile(JsonObject visit, String field, Value value) {
    layers.write(
        new FeatureChange(
            layer().id(),
            UUID.fromString(visit.getString("feature", "")),
            false,
            Map.of(field, value),
            Optional.empty(),
            "coordinator",
            "desk",
            Optional.empty(),
            "changed at the desk",
            Layers.now()));
  }

  private String page(JsonObject visit) throws Exception {
    return mvc.perform(get("/p/ostrey/hand-ins/" + visit.getString("id", "")).with(COORDINATOR))
        .andReturn()
        .getResponse()
        .getContentAsString(StandardCharsets.UTF_8);
  }

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
              assertThat(e.summary()).isEqualTo("visit of inspector1, accepted by coordinator");
            });
  }

  @Test
  void aClashWaitsForADecisionAndTheRestMerges() throws Exception {
    JsonObject v = visit("from the field");
    meanwhile(v, "notes", Value.text("from the desk"));
    meanwhile(v, "material", Value.text("Slate"));
    assertThat(sent(v).getString("state", "")).isEqualTo("clash");
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
    String list =
        mvc.perform(get("/p/ostrey/hand-ins").with(COORDINATOR))
            .andReturn()
            .getResponse()
            .getContentAsString(StandardCharsets.UTF_8);
    assertThat(list).contains("my afternoon&#39;s &lt;b&gt;work");
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
    assertThat(part("features").toString() + part("work")).doesNotContain("cost_centre");
    JsonObject v = visit("office stays");
    Value cost = now(v).value("cost_centre");
    assertThat(cost.isEmpty()).isFalse();
    sent(v);
    decide(v, "accept");
    assertThat(now(v).value("cost_centre")).isEqualTo(cost);
  }

  @Test
  void aPhotoArrivesInPiecesAndOnlyWhole() throws Exception {
    byte[] photo = DemoPhoto.jpeg("OS-7", "weir", "2026-05-04");
    String sha = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(photo));
    JsonObject v = visit("with a photo");
    String id = UUID.randomUUID().toString();
    v.set(
        "photos",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("id", id)
                    .add("question", "photo")
                    .add("sha256", sha)
                    .add("bytes", photo.length)
                    .add(
                        "geotag",
                        new JsonObject().add("lat", 57.9).add("lon", -10.2).add("accuracy", 4))));
    sent(v);
    String place = create(id, photo.length, INSPECTOR).getHeader("Location");
    assertThat(create(UUID.randomUUID().toString(), 10, INSPECTOR).getStatus()).isEqualTo(404);
    assertThat(create(id, photo.length + 1, INSPECTOR).getStatus()).isEqualTo(409);
    assertThat(append(place, 0, java.util.Arrays.copyOf(photo, 1000)).getHeader("Upload-Offset"))
        .isEqualTo("1000");
    assertThat(append(place, 0, photo).getStatus()).as("an old offset").isEqualTo(409);
    assertThat(
            mvc.perform(head(place).header("Tus-Resumable", "1.0.0").with(INSPECTOR))
                .andReturn()
                .getResponse()
                .getHeader("Upload-Offset"))
        .isEqualTo("1000");
    assertThat(
            mvc.perform(head(place).header("Tus-Resumable", "1.0.0").with(OTHER))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    assertThat(page(v)).contains("still on the device");
    assertThat(
            append(place, 1000, java.util.Arrays.copyOfRange(photo, 1000, photo.length))
                .getStatus())
        .isEqualTo(204);
    assertThat(page(v))
        .doesNotContain("still on the device")
        .contains("57.90000°, -10.20000°, ±4 m");
    assertThat(
            mvc.perform(get("/api/p/ostrey/photos/" + id + "?whole=true").with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsByteArray())
        .isEqualTo(photo);

    JsonObject w = visit("with a damaged photo");
    String other = UUID.randomUUID().toString();
    byte[] damaged = photo.clone();
    damaged[500] ^= 1;
    w.set(
        "photos",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("id", other)
                    .add("question", "photo")
                    .add("sha256", sha.replace(sha.charAt(0), sha.charAt(0) == 'a' ? 'b' : 'a'))
                    .add("bytes", photo.length)));
    sent(w);
    assertThat(
            append(create(other, photo.length, INSPECTOR).getHeader("Location"), 0, damaged)
                .getStatus())
        .isEqualTo(422);
    assertThat(page(w)).contains("still on the device");
  }

  private MockHttpServletResponse create(String photo, long length, UserRequestPostProcessor who)
      throws Exception {
    return mvc.perform(
            post("/api/day/uploads")
                .header("Tus-Resumable", "1.0.0")
                .header("Upload-Length", length)
                .header(
                    "Upload-Metadata",
                    "photo "
                        + Base64.getEncoder()
                            .encodeToString(photo.getBytes(StandardCharsets.UTF_8)))
                .with(who)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private MockHttpServletResponse append(String place, long offset, byte[] bytes) throws Exception {
    return mvc.perform(
            patch(place)
                .header("Tus-Resumable", "1.0.0")
                .header("Upload-Offset", offset)
                .contentType("application/offset+octet-stream")
                .content(bytes)
                .with(INSPECTOR)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }
}
