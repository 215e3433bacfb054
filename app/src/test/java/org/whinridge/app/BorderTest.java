package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.JsonDepth;

/** Bodies with wrong values in them: told, and never a failure of the server. */
class BorderTest extends SmallServerTest {
  private static final List<String> WRONG =
      List.of("null", "true", "1e308", "\"x\"", "[]", "{}", "[[1]]");
  @Autowired MockMvc mvc;
  @Autowired Projects projects;
  @Autowired Layers layers;
  @Autowired Forms forms;

  private Layer layer() {
    return layers.list(projects.byKey("ostrey").id()).get(0);
  }

  private MockHttpServletResponse send(String path, String body) throws Exception {
    return mvc.perform(
            post(path)
                .content(body)
                .contentType("application/json")
                .with(user("coordinator"))
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  /** A sound body for each address. */
  private Map<String, String> bodies() {
    String l = "/api/p/ostrey/layers/" + layer().id();
    UUID form = forms.list(projects.byKey("ostrey").id()).get(0).id();
    String schema =
        "{\"kind\":\"point\",\"fields\":[{\"name\":\"w\",\"label\":\"W\",\"type\":\"decimal\",\"unit\":\"mm\",\"codes\":[{\"code\":\"1\",\"label\":\"One\"}]}],\"captionFields\":[\"w\"]}";
    String look =
        "{\"by\":\"code\",\"field\":\"kind\",\"classes\":[{\"label\":\"A\",\"value\":\"sluice\",\"stack\":[{\"kind\":\"mark\",\"icon\":\"disc\",\"colour\":\"#336699\",\"size\":12}]}]}";
    Map<String, String> out = new LinkedHashMap<>();
    out.put(
        "/api/p/ostrey/layers",
        "{\"layers\":[{\"name\":\"N\",\"summary\":\"s\",\"tags\":\"a,b\",\"system\":\"EPSG:4326\",\"schema\":"
            + schema
            + "}]}");
    out.put(l + "/fields/preview", "{\"schema\":" + schema + "}");
    out.put(l + "/fields", "{\"seen\":-5,\"schema\":" + schema + "}");
    out.put(
        "/api/p/ostrey/codes",
        "{\"codes\":\"SAME\",\"text\":\"a,A\",\"there\":[{\"code\":\"b\",\"label\":\"B\"}]}");
    out.put(
        l + "/edits",
        "{\"act\":\"00000000-0000-4000-8000-000000000001\",\"edits\":[{\"id\":\"00000000-0000-4000-8000-000000000002\",\"isNew\":true,\"removed\":false,\"version\":0,\"set\":{\"kind\":\"sluice\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[-10.2,57.9]}}]}");
    out.put(l + "/look/try", "{\"look\":" + look + ",\"ground\":[\"#ffffff\"]}");
    out.put(
        l + "/look/propose",
        "{\"look\":" + look + ",\"by\":\"class\",\"field\":\"width_mm\",\"classes\":4}");
    out.put(l + "/look", "{\"revision\":-5,\"look\":" + look + "}");
    out.put(l + "/look/sld", "{\"look\":" + look + "}");
    out.put(
        "/api/p/ostrey/map",
        "{\"basemap\":\"plain\",\"revision\":-5,\"layers\":[{\"id\":\""
            + layer().id()
            + "\",\"shortName\":\"S\",\"on\":true}]}");
    out.put(
        "/api/day/contact",
        "{\"visits\":[\"00000000-0000-4000-8000-000000000009\",\"not an id\"]}");
    out.put(
        "/api/p/ostrey/forms/" + form + "/edits",
        "{\"revision\":-5,\"edit\":{\"op\":\"set\",\"question\":\"notes\",\"property\":\"hint\",\"value\":\"h\"}}");
    return out;
  }

  /** The body with one value after the other replaced by wrong ones. */
  private static void mutate(JsonValue at, JsonValue root, List<String> into) {
    if (at.isObject())
      for (String name : at.asObject().names()) {
        JsonObject o = at.asObject();
        JsonValue was = o.get(name);
        for (String w : WRONG) {
          o.set(name, Json.parse(w));
          into.add(root.toString());
        }
        o.set(name, was);
        mutate(was, root, into);
      }
    if (at.isArray())
      for (int i = 0; i < at.asArray().size(); i++) {
        JsonArray a = at.asArray();
        JsonValue was = a.get(i);
        for (String w : WRONG) {
          a.set(i, Json.parse(w));
          into.add(root.toString());
        }
        a.set(i, was);
        mutate(was, root, into);
      }
  }

  /** What is nested deeper than anything of the job is refused before anybody reads it. */
  @Test
  void whatIsNestedTooDeepIsRefused() throws Exception {
    for (int depth : new int[] {65, 900, 5_000, 100_000}) {
      String deep = "[".repeat(depth) + "]".repeat(depth);
      for (String address : bodies().keySet()) {
        String body = "{\"look\":" + deep + ",\"edits\":" + deep + ",\"visits\":" + deep + "}";
        assertThat(send(address, body).getStatus()).as(address + " " + depth).isBetween(400, 499);
      }
      assertThat(send("/api/day/hand-ins", "{\"id\":\"x\",\"visits\":" + deep + "}").getStatus())
          .as("hand-ins " + depth)
          .isEqualTo(422);
    }
    String text = "\"" + "[".repeat(1000) + "\\\"{\"";
    assertThat(JsonDepth.isOver("{\"a\":" + text + "}")).as("brackets in a text").isFalse();
  }

  /** Printed: how many bodies were sent. */
  @Test
  void noWrongValueFailsTheServer() throws Exception {
    List<String> failed = new ArrayList<>();
    int sent = 0;
    for (Map.Entry<String, String> e : bodies().entrySet()) {
      List<String> all = new ArrayList<>(List.of("", "7", "[]", "{", "null", "\"x\"", "{}"));
      JsonValue sound = Json.parse(e.getValue());
      mutate(sound, sound, all);
      for (String body : all) {
        MockHttpServletResponse r = send(e.getKey(), body);
        sent++;
        if (r.getStatus() >= 500
            || r.getStatus() >= 400 && !r.getContentAsString().contains("message"))
          failed.add(r.getStatus() + " " + e.getKey() + " " + body);
      }
    }
    System.out.println(sent + " bodies with a wrong value, " + failed.size() + " failed");
    assertThat(failed).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{\"layers\":[{\"name\":[],\"schema\":{}}]}|layers[0].name",
        "{\"layers\":[{\"schema\":{}}]}|layers[0].name",
        "{\"layers\":[{\"name\":\"N\",\"schema\":7}]}|layers[0].schema",
        "{\"layers\":[{\"name\":\"N\"}]}|layers[0].schema",
        "{\"layers\":{}}|layers",
        "{\"layers\":[]}|layers",
        "{\"layers\":[{\"name\":\"N\",\"schema\":{\"fields\":[{\"name\":\"a\",\"label\":\"A\",\"type\":\"text\"},{\"name\":\"b\",\"label\":7}]}}]}|schema.fields[1]",
        "{\"layers\":[{\"name\":\"N\",\"area\":\"x\",\"schema\":{}}]}|layers[0].area",
      })
  void theMemberIsNamedByItsPath(String body, String path) throws Exception {
    long before = layers.count(projects.byKey("ostrey").id());
    isNamed("/api/p/ostrey/layers", body, path);
    assertThat(layers.count(projects.byKey("ostrey").id())).isEqualTo(before);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{\"edits\":[]}|edits",
        "{\"act\":\"x\",\"edits\":[{}]}|act",
        "{\"edits\":[{\"id\":7.5}]}|edits[0].id",
        "{\"edits\":[{\"isNew\":true}]}|edits[0].id",
        "{\"edits\":[null]}|edits[0]",
        "{\"edits\":[{\"id\":\"00000000-0000-4000-8000-000000000002\",\"geometry\":[]}]}|edits[0].geometry",
        "{\"edits\":[{\"id\":\"00000000-0000-4000-8000-000000000002\",\"isNew\":\"x\"}]}|edits[0].isNew",
        "{\"edits\":[{\"id\":\"00000000-0000-4000-8000-000000000002\",\"set\":7}]}|edits[0].set",
      })
  void theMemberOfAnEditIsNamedByItsPath(String body, String path) throws Exception {
    isNamed("/api/p/ostrey/layers/" + layer().id() + "/edits", body, path);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{}|layers",
        "{\"layers\":[{\"id\":{}}]}|layers[0].id",
        "{\"layers\":[{\"id\":\"x\",\"opacity\":2}]}|layers[0].opacity",
        "{\"layers\":[],\"revision\":\"x\"}|revision",
        "{\"layers\":[],\"basemap\":[]}|basemap",
      })
  void theMemberOfTheMapIsNamedByItsPath(String body, String path) throws Exception {
    isNamed("/api/p/ostrey/map", body, path);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {"{}|visits", "{\"visits\":{}}|visits", "{\"visits\":[null]}|visits[0]"})
  void theMemberOfAContactIsNamedByItsPath(String body, String path) throws Exception {
    isNamed("/api/day/contact", body, path);
  }

  private void isNamed(String address, String body, String path) throws Exception {
    MockHttpServletResponse r = send(address, body);
    assertThat(r.getStatus()).isEqualTo(400);
    assertThat(
            Json.parse(r.getContentAsString(StandardCharsets.UTF_8))
                .asObject()
                .getString("message", ""))
        .contains("“" + path + "”");
  }
}
