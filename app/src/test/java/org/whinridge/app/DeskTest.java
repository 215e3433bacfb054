package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.formats.geojson.GeoJsonReader;
import org.whinridge.formats.source.RawFeature;

/** The desk's addresses: forms and their edits, rounds, outputs, and who may reach what. */
class DeskTest extends DemoServerTest {
  private static final UserRequestPostProcessor COORDINATOR = user("coordinator");
  @Autowired MockMvc mvc;
  @Autowired Layers layers;
  @Autowired Projects projects;
  @Autowired Forms forms;

  private Project project() {
    return projects.byKey("ostrey");
  }

  private Layer layer(String name) {
    return layers.list(project().id()).stream()
        .filter(l -> l.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  private String formPath() throws Exception {
    return mvc.perform(
            post("/p/ostrey/forms")
                .param("layer", layer("Control structures").id().toString())
                .with(COORDINATOR)
                .with(csrf()))
        .andReturn()
        .getResponse()
        .getRedirectedUrl();
  }

  private JsonObject state(String form) throws Exception {
    return Json.parse(
            mvc.perform(get("/api" + form).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject();
  }

  private MockHttpServletResponse edit(String form, long revision, String edit) throws Exception {
    return mvc.perform(
            post("/api" + form + "/edits")
                .contentType("application/json")
                .content("{\"revision\":" + revision + ",\"edit\":" + edit + "}")
                .with(COORDINATOR)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private static JsonObject json(MockHttpServletResponse r) throws Exception {
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8)).asObject();
  }

  @Test
  void everyEditIsStoredAsItIsMadeAndTwoWindowsDoNotOverwriteEachOther() throws Exception {
    String form = formPath();
    assertThat(state(form).getLong("revision", 0)).isEqualTo(1);
    MockHttpServletResponse first =
        edit(
            form,
            1,
            "{\"op\":\"set\",\"question\":\"kind\",\"property\":\"label\",\"value\":\"What it is\"}");
    assertThat(json(first).getLong("revision", 0)).isEqualTo(2);
    assertThat(state(form).toString()).contains("What it is");
    MockHttpServletResponse late =
        edit(
            form,
            1,
            "{\"op\":\"set\",\"question\":\"kind\",\"property\":\"label\",\"value\":\"From the other window\"}");
    assertThat(late.getStatus()).isEqualTo(409);
    assertThat(json(late).getString("message", "")).contains("this change was not made");
    assertThat(state(form).toString()).doesNotContain("From the other window");
    MockHttpServletResponse elsewhere =
        edit(form, 1, "{\"op\":\"title\",\"value\":\"What nobody touched since\"}");
    assertThat(elsewhere.getStatus()).isEqualTo(200);
    assertThat(state(form).toString()).contains("What it is", "What nobody touched since");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{}",
        "{\"op\":\"set\"}",
        "{\"op\":\"set\",\"question\":\"kind\",\"property\":\"codes\",\"value\":7}",
        "{\"op\":\"add\",\"question\":7}",
        "{\"op\":\"remove\",\"question\":null}",
        "7",
        "null",
        "{\"op\":\"add\",\"section\":99,\"question\":{\"name\":\"x\"}}"
      })
  void anEditThatMakesNoSenseIsRefusedInWords(String edit) throws Exception {
    String form = formPath();
    MockHttpServletResponse r = edit(form, 1, edit);
    assertThat(r.getStatus()).as(r.getContentAsString()).isBetween(400, 422);
    assertThat(json(r).getString("message", "")).isNotBlank();
    assertThat(state(form).getLong("revision", 0)).isEqualTo(1);
  }

  @Test
  void aDraftWithAProblemIsKeptButNotPublished() throws Exception {
    String form = formPath();
    JsonObject after =
        json(
            edit(
                form,
                1,
                "{\"op\":\"set\",\"question\":\"width_mm\",\"property\":\"askWhen\",\"value\":\"kind = 'slice'\"}"));
    JsonObject problem = after.get("problems").asArray().get(0).asObject();
    assertThat(
            problem.getString("question", "")
                + ", "
                + problem.getString("part", "")
                + ": "
                + problem.getString("fix", ""))
        .isEqualTo("width_mm, ask when: 'sluice'");
    MvcResult r = mvc.perform(post(form + "/publish").with(COORDINATOR).with(csrf())).andReturn();
    assertThat(English.of((Said) r.getFlashMap().get("problem")))
        .contains("1 thing is wrong")
        .contains("Nothing was published");
    edit(
        form,
        2,
        "{\"op\":\"set\",\"question\":\"width_mm\",\"property\":\"askWhen\",\"value\":\"kind = 'sluice'\"}");
    assertThat(published(form)).startsWith("Edition 1 is published");
    edit(form, 3, "{\"op\":\"title\",\"value\":\"Second thoughts\"}");
    UUID id = UUID.fromString(form.substring(form.lastIndexOf('/') + 1));
    assertThat(forms.edition(id, 1).orElseThrow().form().title())
        .as("an edition does not change")
        .isEqualTo("Control structures visit");
    assertThat(published(form)).startsWith("Edition 2");
  }

  /** Publishes a draft; what is told then. */
  private String published(String form) throws Exception {
    return English.of(
        (Said)
            mvc.perform(post(form + "/publish").with(COORDINATOR).with(csrf()))
                .andReturn()
                .getFlashMap()
                .get("done"));
  }

  @Test
  void aLookUpIntoALayerThatIsNotThereIsAProblem() throws Exception {
    String form = formPath();
    String lookup =
        "[{\"from\":\"place\",\"layer\":\""
            + UUID.randomUUID()
            + "\",\"layerName\":\"Wardens\",\"field\":\"name\"}]";
    JsonObject s =
        json(
            edit(
                form,
                1,
                "{\"op\":\"set\",\"question\":\"beat\",\"property\":\"prefill\",\"value\":"
                    + lookup
                    + "}"));
    assertThat(s.get("problems").toString()).contains("the layer Wardens is not in this project");
    String wrongField =
        "[{\"from\":\"place\",\"layer\":\""
            + layer("Beats").id()
            + "\",\"layerName\":\"Beats\",\"field\":\"nme\"}]";
    assertThat(
            json(edit(
                    form,
                    2,
                    "{\"op\":\"set\",\"question\":\"beat\",\"property\":\"prefill\",\"value\":"
                        + wrongField
                        + "}"))
                .get("problems")
                .toString())
        .contains("has no field ‘nme’");
  }

  @Test
  void theLayerComesOutAsItIs() throws Exception {
    Layer l = layer("Beats");
    byte[] out =
        mvc.perform(get("/p/ostrey/outputs/" + l.id() + "/geojson").with(COORDINATOR))
            .andReturn()
            .getResponse()
            .getContentAsByteArray();
    List<RawFeature> back = new ArrayList<>();
    assertThat(GeoJsonReader.read(new java.io.ByteArrayInputStream(out), back::add)).isEqualTo(8);
    var first = layers.first(l, 1).get(0);
    assertThat(back.get(0).geometry().orElseThrow().equalsTopo(first.geometry().orElseThrow()))
        .isTrue();
    assertThat(back.get(0).properties())
        .containsAllEntriesOf(first.values())
        .containsEntry("feature id", org.whinridge.core.value.Value.text(first.id()))
        .hasSize(first.values().size() + 1);
    MockHttpServletResponse gpkg =
        mvc.perform(get("/p/ostrey/outputs/" + l.id() + "/gpkg").with(COORDINATOR))
            .andReturn()
            .getResponse();
    assertThat(gpkg.getHeader("Content-Disposition")).contains("beats.gpkg");
    assertThat(new String(gpkg.getContentAsByteArray(), 0, 15, StandardCharsets.US_ASCII))
        .isEqualTo("SQLite format 3");
    assertThat(
            mvc.perform(get("/p/ostrey/outputs/" + l.id() + "/dwg").with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
  }

  @ParameterizedTest
  @CsvSource({
    "coordinator,/p/ostrey/layers,200",
    "reader,/p/ostrey/layers,200",
    "reader,/api/day/rounds/00000000-0000-0000-0000-000000000000/manifest,403",
    "inspector,/api/day/me,200",
    "reviewer,/p/ostrey/hand-ins,200",
    "coordinator,/p/nowhere/layers,404",
    "coordinator,/p/ostrey/layers/00000000-0000-4000-8000-000000000000,404",
    "coordinator,/p/ostrey/layers/nonsense,400",
    "coordinator,/p/ostrey/forms/00000000-0000-4000-8000-000000000000,404",
    "coordinator,/p/ostrey/rounds/00000000-0000-4000-8000-000000000000,404",
    "coordinator,/p/ostrey/hand-ins/00000000-0000-4000-8000-000000000000,404",
    "coordinator,/api/p/ostrey/photos/00000000-0000-4000-8000-000000000000,404",
    "coordinator,/api/p/ostrey/layers/00000000-0000-4000-8000-000000000000/features,404",
    "coordinator,/no/such/page,404",
    "coordinator,/p/ostrey/layers/bring-in/00000000-0000-4000-8000-000000000000,404"
  })
  void addressesAnswerByRole(String role, String path, int status) throws Exception {
    MockHttpServletResponse r =
        mvc.perform(
                get(path)
                    .accept("text/html", "*/*")
                    .with(user(role.equals("inspector") ? "inspector1" : role)))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).isEqualTo(status);
    if (status == 404 || status == 400)
      assertThat(r.getContentAsString()).doesNotContain("Exception").doesNotContain("org.");
  }

  @ParameterizedTest
  @ValueSource(strings = {"reader", "inspector", "reviewer"})
  void onlyCoordinatorsChangeFormsAndRounds(String role) throws Exception {
    var who = user(role.equals("inspector") ? "inspector1" : role);
    assertThat(
            mvc.perform(
                    post("/p/ostrey/forms")
                        .param("layer", layer("Beats").id().toString())
                        .with(who)
                        .with(csrf()))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
    assertThat(
            mvc.perform(
                    post("/api/p/ostrey/rounds")
                        .contentType("application/json")
                        .content("{}")
                        .with(who)
                        .with(csrf()))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
    assertThat(
            mvc.perform(
                    post("/api/p/ostrey/forms/" + UUID.randomUUID() + "/edits")
                        .contentType("application/json")
                        .content("{}")
                        .with(who)
                        .with(csrf()))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
  }

  @Test
  void pagesForbidInlineScriptsAndForeignSources() throws Exception {
    MockHttpServletResponse r =
        mvc.perform(get("/p/ostrey/layers").with(COORDINATOR)).andReturn().getResponse();
    assertThat(r.getHeader("Content-Security-Policy"))
        .startsWith("default-src 'self'")
        .doesNotContain("unsafe");
    assertThat(r.getContentAsString())
        .doesNotContain("http://")
        .doesNotContain("https://")
        .doesNotContain("<style")
        .doesNotContain("onclick=");
  }

  @Test
  void theNextPageAfterSigningInIsOneOfOurs() throws Exception {
    assertThat(
            mvc.perform(get("/sign-in").param("next", "/day"))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .contains("value=\"/day\"");
    assertThat(
            mvc.perform(get("/sign-in").param("next", "//elsewhere.example/x"))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .doesNotContain("elsewhere");
  }
}
