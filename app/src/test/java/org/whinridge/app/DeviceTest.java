package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.patch;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.BeforeAll;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.layer.FeatureChange;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * What tests of hand-ins share: a demo server, a device's visits as JSON, and the desk that decides
 * them. Each visit takes a stop of its own.
 */
abstract class DeviceTest extends DemoServerTest {
  static final UserRequestPostProcessor INSPECTOR = user("inspector1");
  static final UserRequestPostProcessor OTHER = user("inspector2");
  static final UserRequestPostProcessor COORDINATOR = user("coordinator");
  static int nextStop;
  @Autowired MockMvc mvc;
  @Autowired Layers layers;
  @Autowired Projects projects;

  @BeforeAll
  static void fromTheFirstStop() {
    nextStop = 0; // each class has a server of its own
  }

  JsonObject json(String path, UserRequestPostProcessor who) throws Exception {
    return Json.parse(
            mvc.perform(get(path).with(who))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject();
  }

  String round() throws Exception {
    return json("/api/day/me", INSPECTOR)
        .get("rounds")
        .asArray()
        .get(0)
        .asObject()
        .getString("id", "");
  }

  Layer layer() {
    return layers.list(projects.byKey("ostrey").id()).stream()
        .filter(l -> l.name().equals("Control structures"))
        .findFirst()
        .orElseThrow();
  }

  /** A part of the round's pack; "features", "form" and "last" are those of its one form. */
  JsonObject part(String name) throws Exception {
    String parts = "/api/day/rounds/" + round() + "/parts/";
    String of =
        switch (name) {
          case "features" -> "-" + layer().id();
          case "form", "last" ->
              "-"
                  + json(parts + "round", INSPECTOR)
                      .get("forms")
                      .asArray()
                      .get(0)
                      .asObject()
                      .getString("id", "");
          default -> "";
        };
    return json(parts + name + of, INSPECTOR);
  }

  /** A visit of the next stop that sets the notes, as a device would send it. */
  JsonObject visit(String notes) throws Exception {
    JsonArray all = part("features").get("features").asArray();
    JsonObject feature = all.get(nextStop++).asObject();
    return visit(feature, notes);
  }

  JsonObject visit(JsonObject feature, String notes) throws Exception {
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

  static String handIn(String id, JsonObject... visits) {
    JsonArray list = new JsonArray();
    for (JsonObject v : visits) list.add(v);
    return new JsonObject().add("id", id).add("device", "phone").add("visits", list).toString();
  }

  MockHttpServletResponse send(String body, UserRequestPostProcessor who) throws Exception {
    return mvc.perform(
            post("/api/day/hand-ins")
                .content(body)
                .contentType("application/json")
                .with(who)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  JsonObject sent(JsonObject visit) throws Exception {
    MockHttpServletResponse r = send(handIn(UUID.randomUUID().toString(), visit), INSPECTOR);
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8))
        .asObject()
        .get("visits")
        .asArray()
        .get(0)
        .asObject();
  }

  String decide(JsonObject visit, String deed, String... parameters) throws Exception {
    var q =
        post("/p/ostrey/hand-ins/" + visit.getString("id", "") + "/" + deed)
            .with(COORDINATOR)
            .with(csrf());
    for (int i = 0; i < parameters.length; i += 2) q = q.param(parameters[i], parameters[i + 1]);
    Map<String, Object> flash =
        new java.util.LinkedHashMap<>(mvc.perform(q).andReturn().getFlashMap());
    return English.of((Said) flash.getOrDefault("done", flash.get("problem")));
  }

  Feature now(JsonObject visit) {
    return layers.feature(layer(), UUID.fromString(visit.getString("feature", ""))).orElseThrow();
  }

  void meanwhile(JsonObject visit, String field, Value value) {
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
            Optional.empty(),
            Said.text("changed at the desk"),
            Layers.now()));
  }

  String page(JsonObject visit) throws Exception {
    return mvc.perform(get("/p/ostrey/hand-ins/" + visit.getString("id", "")).with(COORDINATOR))
        .andReturn()
        .getResponse()
        .getContentAsString(StandardCharsets.UTF_8);
  }

  /** A visit that announces one photo. */
  JsonObject withPhoto(String id, byte[] photo, String notes) throws Exception {
    return visit(notes)
        .set(
            "photos",
            new JsonArray()
                .add(
                    new JsonObject()
                        .add("id", id)
                        .add("question", "photo")
                        .add("sha256", org.whinridge.app.shell.Sha256.of(photo))
                        .add("bytes", photo.length)));
  }

  /** Begins the upload of a photo. */
  MockHttpServletResponse create(String photo, long length, UserRequestPostProcessor who)
      throws Exception {
    return create(photo, "", length, who);
  }

  MockHttpServletResponse create(
      String photo, String device, long length, UserRequestPostProcessor who) throws Exception {
    return mvc.perform(
            post("/api/day/uploads")
                .header("Tus-Resumable", "1.0.0")
                .header("Upload-Length", length)
                .header(
                    "Upload-Metadata",
                    "photo "
                        + Base64.getEncoder().encodeToString(photo.getBytes(StandardCharsets.UTF_8))
                        + (device.isEmpty()
                            ? ""
                            : ",device "
                                + Base64.getEncoder()
                                    .encodeToString(device.getBytes(StandardCharsets.UTF_8))))
                .with(who)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  MockHttpServletResponse append(String place, long offset, byte[] bytes) throws Exception {
    return append(place, offset, bytes, INSPECTOR);
  }

  MockHttpServletResponse append(
      String place, long offset, byte[] bytes, UserRequestPostProcessor who) throws Exception {
    return mvc.perform(
            patch(place)
                .header("Tus-Resumable", "1.0.0")
                .header("Upload-Offset", offset)
                .contentType("application/offset+octet-stream")
                .content(bytes)
                .with(who)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }
}
