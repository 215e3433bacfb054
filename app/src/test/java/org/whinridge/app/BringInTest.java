package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.DataFolder;

/** Wrong files get a clear message and leave nothing behind. */
class BringInTest extends ServerTest {
  private static final String PAGE = "/p/ostrey/layers/bring-in";
  @Autowired MockMvc mvc;
  @Autowired Layers layers;
  @Autowired Projects projects;
  @Autowired DataFolder data;

  private MvcResult upload(byte[] content) throws Exception {
    return mvc.perform(
            multipart(PAGE)
                .file(
                    new MockMultipartFile(
                        "file", "../../etc/some file.geojson", "application/json", content))
                .with(user("coordinator").roles("coordinator"))
                .with(csrf()))
        .andReturn();
  }

  /** The message for a file that must be refused; nothing may be left of it. */
  private String problem(byte[] content) throws Exception {
    String before = kept();
    MvcResult r = upload(content);
    assertThat(r.getResponse().getStatus()).isEqualTo(302);
    assertThat(r.getResponse().getRedirectedUrl()).isEqualTo(PAGE);
    assertThat(kept()).isEqualTo(before);
    return (String) r.getFlashMap().get("problem");
  }

  private String kept() throws Exception {
    try (var all = Files.list(data.folder("incoming"))) {
      return all.sorted().toList() + " " + layers.count(projects.byKey("ostrey").id());
    }
  }

  private static String point(String coordinates) {
    return "{\"type\":\"Feature\",\"properties\":{},\"geometry\":{\"type\":\"Point\",\"coordinates\":"
        + coordinates
        + "}}";
  }

  private static String collection(String... features) {
    return "{\"type\":\"FeatureCollection\",\"features\":[" + String.join(",", features) + "]}";
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "hello|not sound JSON",
        "[1,2]|does not begin with an object",
        "{\"a\":1}|no type FeatureCollection",
        "{\"type\":\"Topology\"}|of type Topology",
        "{\"type\":\"FeatureCollection\",\"features\":[]}|holds no features",
        "{\"type\":\"FeatureCollection\",\"features\":[|not sound JSON",
        "{\"type\":\"FeatureCollection\",\"features\":[7]}|Feature 1 is not an object",
        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"a\":1},\"geometry\":null}]}|None of the 1 features has a place"
      })
  void whatIsNoGeoJsonIsSaidSo(String content, String words) throws Exception {
    assertThat(problem(content.getBytes(StandardCharsets.UTF_8)))
        .contains(words)
        .contains("Nothing was kept");
  }

  @Test
  void theNumberOfTheFeatureIsToldForCoordinatesOutOfRangeAndUnclosedRings() throws Exception {
    assertThat(
            problem(
                collection(point("[1,2]"), point("[428873.5,6418207.9]"))
                    .getBytes(StandardCharsets.UTF_8)))
        .contains("Feature 2")
        .contains("longitude 428873.5 is out of range");
    assertThat(problem(collection(point("[1,91]")).getBytes(StandardCharsets.UTF_8)))
        .contains("Feature 1")
        .contains("latitude 91");
    assertThat(
            problem(
                collection(
                        "{\"type\":\"Feature\",\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[0,0],[1,0],[1,1],[0,1]]]}}")
                    .getBytes(StandardCharsets.UTF_8)))
        .contains("Feature 1");
  }

  @Test
  void mixedKindsAreCounted() throws Exception {
    String line =
        "{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[0,0],[1,1]]}}";
    assertThat(
            problem(
                collection(point("[1,2]"), line, point("[3,4]")).getBytes(StandardCharsets.UTF_8)))
        .contains("2 × point, 1 × line");
  }

  /**
   * Mutations of a good file: a report or a message, never a failure of the server, nothing half
   * kept.
   */
  @Test
  void damagedFilesNeverFailTheServer() throws Exception {
    long seed = 77;
    Random random = new Random(seed);
    byte[] good =
        collection(
                point("[1,2]"),
                point("[1.5,2.5]"),
                "{\"type\":\"Feature\",\"properties\":{\"a\":\"ü\",\"b\":[1,{\"c\":null}],\"d\":1e300},\"geometry\":{\"type\":\"MultiPoint\",\"coordinates\":[[0,0]]}}")
            .getBytes(StandardCharsets.UTF_8);
    for (int i = 0; i < 100; i++) {
      byte[] bad =
          java.util.Arrays.copyOf(
              good, random.nextInt(4) == 0 ? 1 + random.nextInt(good.length) : good.length);
      for (int k = random.nextInt(5); k >= 0; k--)
        bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
      assertThat(upload(bad).getResponse().getStatus())
          .as("seed %d, file %d", seed, i)
          .isEqualTo(302);
    }
  }

  @Test
  void aGoodFileIsReportedThenImportedWithHostileNamesAsPlainText() throws Exception {
    String f =
        "{\"type\":\"Feature\",\"properties\":{\"<script>alert(1)</script>\":\"x'; DROP TABLE layer; --\",\"Name, of it\":\"é\",\"id\":12345678901234567890},\"geometry\":{\"type\":\"Point\",\"coordinates\":[-10.2,57.9,3.5]}}";
    MvcResult r = upload(collection(f).getBytes(StandardCharsets.UTF_8));
    String page = r.getResponse().getRedirectedUrl();
    var who = user("coordinator").roles("coordinator");
    String html = mvc.perform(get(page).with(who)).andReturn().getResponse().getContentAsString();
    assertThat(html)
        .contains("some file.geojson")
        .contains("&lt;script&gt;")
        .doesNotContain("<script>alert");
    MvcResult done =
        mvc.perform(
                post(page)
                    .with(who)
                    .with(csrf())
                    .param("name", "Odd, but fine")
                    .param("source", "<script>alert(1)</script>", "Name, of it", "id")
                    .param("label", "Odd, one", "Name, of it", "Id")
                    .param("type", "text", "text", "text")
                    .param("take", "0", "1", "2"))
            .andReturn();
    var project = projects.byKey("ostrey");
    var layer =
        layers.list(project.id()).stream()
            .filter(l -> l.name().equals("Odd, but fine"))
            .findFirst()
            .orElseThrow();
    assertThat(done.getResponse().getRedirectedUrl()).endsWith(layer.id().toString());
    assertThat(layer.schema().fields())
        .extracting(x -> x.label())
        .containsExactly("Odd, one", "Name, of it", "Id");
    assertThat(layers.first(layer, 5))
        .singleElement()
        .satisfies(
            x ->
                assertThat(x.values().values())
                    .extracting(v -> v.plain())
                    .containsExactly("x'; DROP TABLE layer; --", "é", "12345678901234567890"));
    Path staged = data.folder("incoming").resolve(page.substring(page.lastIndexOf('/') + 1));
    assertThat(staged).doesNotExist();
    String again =
        (String)
            upload(collection(f).getBytes(StandardCharsets.UTF_8)).getResponse().getRedirectedUrl();
    MvcResult twice =
        mvc.perform(post(again).with(who).with(csrf()).param("name", "Odd, but fine")).andReturn();
    assertThat((String) twice.getFlashMap().get("problem")).contains("already has a layer called");
  }

  @Test
  void onlyACoordinatorBringsIn() throws Exception {
    var file =
        new MockMultipartFile(
            "file",
            "a.geojson",
            "application/json",
            collection(point("[1,2]")).getBytes(StandardCharsets.UTF_8));
    assertThat(
            mvc.perform(
                    multipart(PAGE).file(file).with(user("reader").roles("reader")).with(csrf()))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
    assertThat(
            mvc.perform(multipart(PAGE).file(file).with(user("coordinator").roles("coordinator")))
                .andReturn()
                .getResponse()
                .getRedirectedUrl())
        .isEqualTo("/sign-in?old");
  }
}
