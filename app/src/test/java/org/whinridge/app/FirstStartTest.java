package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;

/** From an empty store to the keeper's account and the first project. */
@ExtendWith(OutputCaptureExtension.class)
class FirstStartTest extends ServerTest {
  private static final String PASSWORD = "a long way round";
  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;

  @Value("${whinridge.data}")
  String data;

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q) throws Exception {
    return mvc.perform(q.accept("text/html").with(csrf())).andReturn().getResponse();
  }

  private MockHttpServletResponse make(String key, String name, String password) throws Exception {
    return done(post("/first").param("key", key).param("name", name).param("password", password));
  }

  @Test
  void theConsoleLeadsToTheKeeperAndTheFirstProject(CapturedOutput console) throws Exception {
    Matcher told = Pattern.compile("/first\\?key=([A-Za-z0-9_-]{20,})").matcher(console.getOut());
    assertThat(told.find()).as(console.getOut()).isTrue();
    String key = told.group(1);
    try (var files = Files.walk(Path.of(data))) {
      for (Path p : files.filter(Files::isRegularFile).toList())
        assertThat(Files.readString(p, StandardCharsets.ISO_8859_1)).doesNotContain(key);
    }
    assertThat(done(get("/first")).getStatus()).isEqualTo(403);
    assertThat(done(get("/first").param("key", key + "x")).getStatus()).isEqualTo(403);
    assertThat(done(get("/first").param("key", key)).getContentAsString())
        .contains("looks after this installation");
    for (String poor : new String[] {"short", "1234567890", "Asta of Ostrey", "x".repeat(100)})
      assertThat(make(key, "Asta of Ostrey", poor).getContentAsString())
          .as(poor)
          .contains("role=\"alert\"")
          .contains("Asta of Ostrey")
          .doesNotContain("value=\"" + poor + "\"" + " type");
    assertThat(make("guess", "Asta", PASSWORD).getStatus()).isEqualTo(403);
    assertThat(jdbc.queryForObject("select count(*) from account", Integer.class)).isZero();
    assertThat(make(key, " Asta of Ostrey ", PASSWORD).getRedirectedUrl())
        .isEqualTo("/sign-in?made&next=/projects/new");
    assertThat(make(key, "Another", PASSWORD).getStatus()).as("used once").isEqualTo(403);
    assertThat(
            done(post("/sign-in")
                    .param("username", "Asta of Ostrey")
                    .param("password", PASSWORD)
                    .param("next", "/projects/new"))
                .getRedirectedUrl())
        .isEqualTo("/projects/new");

    var keeper = user("Asta of Ostrey");
    assertThat(done(get("/").with(keeper)).getRedirectedUrl()).isEqualTo("/projects/new");
    String[][] poor = {
      {"", "", "EPSG:32629"},
      {"Coast", "Coast!", "EPSG:32629"},
      {"Coast", "", "EPSG:1"},
      {"Coast", "", "the moon"}
    };
    for (String[] p : poor)
      assertThat(
              done(post("/projects")
                      .param("name", p[0])
                      .param("key", p[1])
                      .param("system", p[2])
                      .with(keeper))
                  .getContentAsString())
          .as(String.join("|", p))
          .contains("role=\"alert\"");
    for (String where : new String[] {"the-coast", "the-coast-2"})
      assertThat(
              done(post("/projects")
                      .param("name", "The coast")
                      .param("system", "32629")
                      .with(keeper))
                  .getRedirectedUrl())
          .isEqualTo("/p/" + where + "/layers");
    assertThat(done(get("/p/the-coast/layers").with(keeper)).getContentAsString())
        .contains("The coast")
        .contains("EPSG:32629")
        .contains("Bring in files");
    assertThat(
            mvc.perform(get("/api/own-systems").param("q", "27700").with(keeper))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .contains("EPSG:27700", "OSGB36 / British National Grid", "Britain");
  }

  /** A place is enough: UTM there, and the grid by which that country surveys. */
  @Test
  void aPlaceProposesItsSystems() throws Exception {
    assertThat(systemsAt("5.5", "52").getContentAsString())
        .contains("EPSG:32631", "EPSG:28992", "Netherlands", "\"box\":{\"west\":");
    assertThat(systemsAt("east", "52").getStatus()).isEqualTo(400);
  }

  private MockHttpServletResponse systemsAt(String lon, String lat) throws Exception {
    return mvc.perform(
            get("/api/own-systems")
                .param("lon", lon)
                .param("lat", lat)
                .with(user("Asta of Ostrey")))
        .andReturn()
        .getResponse();
  }
}
