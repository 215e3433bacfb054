package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.delete;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.demo.Ostrey;

/** Looks, tiles, basemaps and edits on the server: what is refused, and that nothing is lost. */
class MapsTest extends DemoServerTest {
  private static final UserRequestPostProcessor COORDINATOR = user("coordinator");
  private static final UserRequestPostProcessor READER = user("reader");
  @Autowired MockMvc mvc;
  @Autowired Projects projects;
  @Autowired Layers layers;
  @Autowired LayerMaking making;
  @Autowired Looks looks;
  @Autowired Basemaps basemaps;
  @TempDir Path tmp;

  private UUID project() {
    return projects.byKey("ostrey").id();
  }

  private Layer layer(String name) {
    return layers.list(project()).stream()
        .filter(l -> l.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  private static String at(Layer l, String path) {
    return "/api/p/ostrey/layers/" + l.id() + path;
  }

  private MockHttpServletResponse ask(MockHttpServletRequestBuilder b, UserRequestPostProcessor who)
      throws Exception {
    return mvc.perform(b.with(who).with(csrf())).andReturn().getResponse();
  }

  private MockHttpServletResponse sent(String path, String body) throws Exception {
    return ask(post(path).contentType("application/json").content(body), COORDINATOR);
  }

  private JsonObject json(String path) throws Exception {
    MockHttpServletResponse r = ask(get(java.net.URI.create(path)), READER);
    assertThat(r.getStatus()).as(path).isEqualTo(200);
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8)).asObject();
  }

  @Test
  void everyLookOfTheDemoIsSoundAndSeen() throws Exception {
    for (Layer l : layers.list(project())) {
      ReadyLook ready = looks.ready(l);
      assertThat(ready.problems()).as(l.name()).isEmpty();
      JsonObject o =
          Json.parse(
                  sent(
                          at(l, "/look/try"),
                          "{\"look\":" + ready.look().json() + ",\"ground\":[\"#f1eddf\"]}")
                      .getContentAsString(StandardCharsets.UTF_8))
              .asObject();
      assertThat(o.get("drowning").asArray()).as(l.name() + " on the plain basemap").isEmpty();
      String svg = ask(get(at(l, "/shape.svg")), READER).getContentAsString();
      assertThat(svg).startsWith("<svg").contains("path");
    }
  }

  @Test
  void whatIsNoLookIsRefusedAndNothingIsSaved() throws Exception {
    Layer l = layer("Beats");
    String before = looks.of(l).look().json().toString();
    for (String body :
        List.of(
            "",
            "[]",
            "{",
            "{}",
            "{\"look\":7}",
            "{\"look\":{}}",
            "{\"look\":{\"by\":\"moon\"}}",
            "{\"look\":{\"by\":\"one\"},\"revision\":99}"))
      for (String path : List.of("/look", "/look/try", "/look/propose", "/look/sld")) {
        MockHttpServletResponse r = sent(at(l, path), body);
        if (body.endsWith("99}") && !path.equals("/look")) continue;
        assertThat(r.getStatus()).as(path + " " + body).isBetween(400, 499);
        assertThat(r.getContentAsString()).contains("message");
      }
    assertThat(looks.of(l).look().json().toString()).isEqualTo(before);
    assertThat(
            ask(
                    post(at(l, "/look"))
                        .contentType("application/json")
                        .content("{\"look\":" + before + ",\"revision\":1}"),
                    READER)
                .getStatus())
        .isEqualTo(403);
    assertThat(sent(at(l, "/look/icon"), "<svg onload='x'>").getStatus()).isEqualTo(422);
  }

  @Test
  void classesOfOneValueAndOfNoneAreSaid() throws Exception {
    Layer empty =
        layers.byId(
            making.make(
                project(), "Empty", Ostrey.structuresSchema(), Said.text("test"), "c", take -> {}));
    String body =
        "{\"look\":{\"by\":\"one\"},\"by\":\"class\",\"field\":\"width_mm\",\"classes\":5}";
    MockHttpServletResponse r = sent(at(empty, "/look/propose"), body);
    assertThat(r.getStatus()).isEqualTo(422);
    assertThat(r.getContentAsString(StandardCharsets.UTF_8)).contains("has no numbers");
    Layer one =
        layers.byId(
            making.make(
                project(),
                "One value",
                Ostrey.structuresSchema(),
                Said.text("test"),
                "c",
                take -> {
                  for (int i = 0; i < 5; i++)
                    take.accept(
                        new Feature(
                            UUID.randomUUID().toString(),
                            Optional.empty(),
                            Map.of("width_mm", Value.of(600)),
                            1));
                }));
    assertThat(sent(at(one, "/look/propose"), body).getContentAsString())
        .contains("\"label\":\"600 mm\"");
    assertThat(ask(get(at(empty, "/tiles/0/0/0")), READER).getContentAsByteArray()).isEmpty();
    assertThat(json(at(empty, "/features")).getBoolean("drawn", false)).isTrue();
  }

  @Test
  void aSavedLookDoesNotOverwriteANewerOne() throws Exception {
    Layer l = layer("Marker posts");
    Looks.Saved s = looks.of(l);
    assertThat(looks.save(l, s.look(), s.revision())).isEqualTo(s.revision() + 1);
    MockHttpServletResponse r =
        sent(
            at(l, "/look"),
            "{\"look\":"
                + Look.plain(l.schema().kind()).json()
                + ",\"revision\":"
                + s.revision()
                + "}");
    assertThat(r.getStatus()).isEqualTo(409);
    assertThat(looks.of(l).look().json().toString()).isEqualTo(s.look().json().toString());
  }

  @Test
  void manyFeaturesComeAsTilesAndInViewOneByOne() throws Exception {
    Layer big =
        layers.byId(
            making.make(
                project(),
                "Many",
                Ostrey.structuresSchema(),
                Said.text("test"),
                "c",
                take -> {
                  for (int i = 0; i < 6000; i++)
                    take.accept(
                        new Feature(
                            new UUID(0x4000L | (long) i << 16, 0x8000000000000000L | i).toString(),
                            Optional.of(
                                GeometryJson.WGS84.createPoint(
                                    new org.locationtech.jts.geom.Coordinate(
                                        -10.3 + i * 1e-5, 57.9))),
                            Map.of("tag", Value.text("M" + i)),
                            1));
                }));
    assertThat(json(at(big, "/features")).getBoolean("drawn", true)).isFalse();
    JsonObject near = json(at(big, "/features?box=-10.3,57.8,-10.2995,58"));
    assertThat(near.getBoolean("drawn", false)).isTrue();
    assertThat(near.get("features").asArray().size()).isEqualTo(51);
    assertThat(ask(get(at(big, "/tiles/8/120/77")), READER).getStatus()).isEqualTo(200);
    int side = 1 << 14;
    int x = (int) (org.whinridge.core.place.Mercator.x(-10.27) * side);
    int y = (int) (org.whinridge.core.place.Mercator.y(57.9) * side);
    assertThat(ask(get(at(big, "/tiles/14/" + x + "/" + y)), READER).getContentAsByteArray().length)
        .isGreaterThan(5000);
    assertThat(json(at(big, "/at?lon=-10.29995&lat=57.90001&within=5")).getString("id", ""))
        .isNotEmpty();
    assertThat(json(at(big, "/at?lon=-10.4&lat=57.9&within=5")).getString("id", "")).isEmpty();
    for (String bad :
        List.of(
            "/tiles/23/0/0",
            "/tiles/3/8/0",
            "/tiles/3/-1/0",
            "/tiles/x/0/0",
            "/features?box=1,2,3",
            "/features?box=a,b,c,d",
            "/features?filter=((",
            "/at?lon=x&lat=1&within=1"))
      assertThat(ask(get(at(big, bad)), READER).getStatus()).as(bad).isBetween(400, 499);
  }

  @Test
  void editsAreWrittenWholeOrNotAtAll() throws Exception {
    Layer l = layer("Banks and drains");
    Feature f = layers.first(l, 1).get(0);
    String line = "{\"type\":\"LineString\",\"coordinates\":[[-10.2,57.9],[-10.19,57.9]]}";
    String fresh =
        "{\"id\":\""
            + UUID.randomUUID()
            + "\",\"isNew\":true,\"geometry\":"
            + line
            + ",\"set\":{\"ref\":\"B-900\",\"condition\":5}}";
    String old =
        "{\"id\":\""
            + f.id()
            + "\",\"version\":"
            + (f.version() + 7)
            + ",\"geometry\":"
            + line
            + "}";
    MockHttpServletResponse r = sent(at(l, "/edits"), "{\"edits\":[" + fresh + "," + old + "]}");
    assertThat(r.getStatus()).isEqualTo(409);
    assertThat(r.getContentAsString(StandardCharsets.UTF_8)).contains("somebody else");
    assertThat(layer("Banks and drains").count()).as("not the new one alone").isEqualTo(85);
    List<String> bad =
        new ArrayList<>(
            List.of("", "[]", "{}", "{\"edits\":[]}", "{\"edits\":[7]}", "{\"edits\":[{}]}"));
    for (String g :
        List.of(
            "null",
            "{}",
            "{\"type\":\"Point\",\"coordinates\":[0,0]}",
            "{\"type\":\"LineString\",\"coordinates\":[[-10.2,57.9],[-10.2,57.9]]}",
            "{\"type\":\"LineString\",\"coordinates\":[[-10.2,97.9],[-10.2,57.9]]}",
            "{\"type\":\"LineString\",\"coordinates\":\"x\"}"))
      bad.add(
          "{\"edits\":[{\"id\":\""
              + UUID.randomUUID()
              + "\",\"isNew\":true,\"geometry\":"
              + g
              + "}]}");
    bad.add("{\"edits\":[" + fresh.replace("\"ref\"", "\"nofield\"") + "]}");
    bad.add("{\"edits\":[{\"id\":\"" + UUID.randomUUID() + "\",\"version\":1,\"removed\":true}]}");
    bad.add("{\"edits\":[" + (fresh + ",").repeat(501) + fresh + "]}");
    for (String b : bad)
      assertThat(sent(at(l, "/edits"), b).getStatus())
          .as(b.substring(0, Math.min(80, b.length())))
          .isBetween(400, 499);
    assertThat(layer("Banks and drains").count()).isEqualTo(85);
    assertThat(sent(at(l, "/edits"), "{\"edits\":[" + fresh + "]}").getStatus()).isEqualTo(200);
    assertThat(layer("Banks and drains").count()).isEqualTo(86);
    // what is split off has the values of the other one
    String part =
        "{\"edits\":[{\"id\":\""
            + UUID.randomUUID()
            + "\",\"isNew\":true,\"like\":\""
            + f.id()
            + "\",\"geometry\":"
            + line
            + ",\"set\":{\"ref\":\"B-901\"}}]}";
    assertThat(sent(at(l, "/edits"), part).getStatus()).isEqualTo(200);
    JsonObject split =
        json(at(l, "/features?filter=ref%20%3D%20'B-901'"))
            .get("features")
            .asArray()
            .get(0)
            .asObject();
    assertThat(split.get("properties").asObject().getString("kind", ""))
        .isEqualTo(f.value("kind").plain());
    // the map sees it at once, drawn by its class
    JsonValue made =
        json(at(l, "/features?filter=ref%20%3D%20'B-900'")).get("features").asArray().get(0);
    assertThat(made.asObject().get("drawn").asObject().getString("c", "")).isEqualTo("4");
    assertThat(
            ask(post(at(l, "/edits")).contentType("application/json").content("{}"), READER)
                .getStatus())
        .isEqualTo(403);
  }

  @Test
  void basemapsAreKeptByProjectAndRefusedWhenTheyAreNone() throws Exception {
    Path text = Files.writeString(tmp.resolve("a.mbtiles"), "hello");
    org.assertj.core.api.Assertions.assertThatThrownBy(
            () -> basemaps.add(project(), UUID.randomUUID(), "x", text, "c"))
        .isInstanceOf(Refusal.class)
        .satisfies(English.says("Nothing was kept"));
    JsonObject relief = null;
    for (JsonValue v : json("/api/p/ostrey/basemaps").get("basemaps").asArray())
      if (v.asObject().getString("name", "").equals("Relief")) relief = v.asObject();
    String tile = "/api/p/ostrey/basemaps/" + relief.getString("id", "");
    int side = 1 << 12;
    int x = (int) (org.whinridge.core.place.Mercator.x(-10.2) * side);
    int y = (int) (org.whinridge.core.place.Mercator.y(57.9) * side);
    MockHttpServletResponse r = ask(get(tile + "/12/" + x + "/" + y), READER);
    assertThat(r.getContentType()).isEqualTo("image/png");
    assertThat(ask(get(tile + "/12/0/0"), READER).getStatus()).isEqualTo(204);
    assertThat(
            ask(get("/api/p/ostrey/basemaps/" + UUID.randomUUID() + "/1/0/0"), READER).getStatus())
        .isEqualTo(404);
    projects.make(
        "other", "Other", "EPSG:32629", "+proj=utm +zone=29 +datum=WGS84 +units=m +no_defs", "");
    assertThat(
            ask(get(tile.replace("/ostrey/", "/other/") + "/12/" + x + "/" + y), READER)
                .getStatus())
        .as("another project's basemap")
        .isEqualTo(404);
    assertThat(
            ask(get(at(layer("Beats"), "/look/plan").replace("/ostrey/", "/other/")), READER)
                .getStatus())
        .isEqualTo(404);
    assertThat(ask(delete(tile), READER).getStatus()).isEqualTo(403);
  }

  @Test
  void theProjectsMapKnowsLayersThatCameLaterAndForgetsThoseThatWent() throws Exception {
    JsonObject map = json("/api/p/ostrey/map");
    String strange =
        map.toString().replaceFirst("\"layers\":\\[", "\"layers\":[{\"id\":\"gone\"},");
    MockHttpServletResponse r = sent("/api/p/ostrey/map", strange);
    assertThat(r.getStatus()).isEqualTo(200);
    JsonObject saved = Json.parse(r.getContentAsString(StandardCharsets.UTF_8)).asObject();
    assertThat(saved.get("layers").asArray().size()).isEqualTo(map.get("layers").asArray().size());
    assertThat(sent("/api/p/ostrey/map", map.toString()).getStatus())
        .as("an older revision")
        .isEqualTo(409);
    UUID fresh =
        making.make(
            project(), "Fresh", Ostrey.structuresSchema(), Said.text("test"), "c", take -> {});
    assertThat(json("/api/p/ostrey/map").toString()).contains(fresh.toString());
    for (String bad : List.of("", "[]", "{"))
      assertThat(sent("/api/p/ostrey/map", bad).getStatus()).isBetween(400, 499);
  }

  @Test
  void packsTakeTheMapAlongWithoutWhatBelongsToTheOffice() throws Exception {
    UserRequestPostProcessor inspector = user("inspector1");
    String round =
        Json.parse(ask(get("/api/day/me"), inspector).getContentAsString(StandardCharsets.UTF_8))
            .asObject()
            .get("rounds")
            .asArray()
            .get(0)
            .asObject()
            .getString("id", "");
    String parts = "/api/day/rounds/" + round + "/parts/";
    JsonObject map =
        Json.parse(ask(get(parts + "map"), inspector).getContentAsString(StandardCharsets.UTF_8))
            .asObject();
    assertThat(map.toString()).contains("Control structures").doesNotContain("cost_centre\":");
    assertThat(
            map.get("layers")
                .asArray()
                .get(0)
                .asObject()
                .get("look")
                .asObject()
                .getString("by", ""))
        .isEqualTo("code");
    assertThat(map.toString()).as("the soil survey is off").doesNotContain("Soil units");
    assertThat(ask(get(parts + "ground"), inspector).getContentAsString())
        .as("a plain basemap has no tiles")
        .isEqualTo("null");
    String relief = "";
    for (Basemaps.Basemap b : basemaps.list(project()))
      if (b.name().equals("Relief")) relief = b.id();
    JsonObject saved = json("/api/p/ostrey/map");
    assertThat(sent("/api/p/ostrey/map", saved.set("basemap", relief).toString()).getStatus())
        .isEqualTo(200);
    JsonObject ground =
        Json.parse(ask(get(parts + "ground"), inspector).getContentAsString(StandardCharsets.UTF_8))
            .asObject();
    assertThat(ground.get("tiles").asObject().size()).isBetween(10, 600);
    assertThat(ask(get(parts + "nothing"), inspector).getStatus()).isEqualTo(404);
  }
}
