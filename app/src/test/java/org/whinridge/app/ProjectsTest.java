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
import java.sql.Timestamp;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.app.overview.OverviewAccess;
import org.whinridge.app.project.Projects;
import org.whinridge.core.access.Role;

/** What becomes of projects as wholes: closed, removed and brought back, copied, gone for ever. */
@org.springframework.context.annotation.Import(OverviewAccess.class)
class ProjectsTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;
  @Autowired SmallProject small;
  @Autowired Projects projects;
  @Autowired OverviewAccess overview;
  private SmallProject.Held held;
  private String key;
  private String coordinator;
  private String inspector;

  @BeforeEach
  void aProjectOfItsOwn() throws Exception {
    int n = ++next;
    key = "project-" + n;
    coordinator = "coordinator-" + n;
    inspector = "inspector-" + n;
    held =
        small.make(
            key, "Project " + n, Map.of(Role.COORDINATOR, coordinator, Role.INSPECTOR, inspector));
  }

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q, String person)
      throws Exception {
    return mvc.perform(q.accept("text/html", "*/*").with(csrf()).with(user(person)))
        .andReturn()
        .getResponse();
  }

  private int status(String path, String person) throws Exception {
    return done(get(path), person).getStatus();
  }

  private JsonObject visit() throws Exception {
    JsonObject feature =
        Json.parse(
                done(
                        get("/api/day/rounds/" + held.round() + "/parts/features-" + held.layer()),
                        inspector)
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject()
            .get("features")
            .asArray()
            .get(0)
            .asObject();
    return SmallVisit.of(feature, held.round(), inspector);
  }

  private void handIn(JsonObject... visits) throws Exception {
    JsonArray all = new JsonArray();
    for (JsonObject v : visits) all.add(v);
    MockHttpServletResponse r =
        done(
            post("/api/day/hand-ins")
                .contentType("application/json")
                .content(
                    new JsonObject()
                        .add("id", UUID.randomUUID().toString())
                        .add("device", "phone")
                        .add("visits", all)
                        .toString()),
            inspector);
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
  }

  private long count(String sql, Object... of) {
    return jdbc.queryForObject(sql, Long.class, of);
  }

  private long visits(UUID project) {
    return count(
        "select count(*) from visit v join layer l on l.id = v.layer_id where l.project_id = ?",
        project);
  }

  @Test
  void aClosedProjectIsReadOnlyAndHiddenFromDevicesAndTakesWhatWasCarried() throws Exception {
    JsonObject carried = visit();
    done(post("/p/" + key + "/close"), coordinator);
    assertThat(status("/p/" + key + "/layers", coordinator)).isEqualTo(200);
    assertThat(status("/p/" + key + "/layers/bring-in", coordinator)).isEqualTo(403);
    assertThat(done(get("/p/" + key + "/layers/make"), coordinator).getContentAsString())
        .contains("closed and read only");
    assertThat(done(get("/api/day/me"), inspector).getContentAsString()).contains("\"rounds\":[]");
    handIn(carried);
    assertThat(visits(held.project().id())).isEqualTo(1);
    done(post("/p/" + key + "/reopen"), coordinator);
    assertThat(status("/p/" + key + "/layers/bring-in", coordinator)).isEqualTo(200);
    assertThat(done(get("/api/day/me"), inspector).getContentAsString())
        .contains(held.round().toString());
  }

  @Test
  void aRemovedProjectIsNotThereAndComesBackAsItWas() throws Exception {
    String name = held.project().name();
    done(post("/p/" + key + "/remove").param("name", "something else"), coordinator);
    assertThat(status("/p/" + key + "/layers", coordinator)).isEqualTo(200);
    done(post("/p/" + key + "/remove").param("name", name), coordinator);
    assertThat(status("/p/" + key + "/layers", coordinator)).isEqualTo(404);
    assertThat(status("/p/" + key + "/about", coordinator)).isEqualTo(404);
    assertThat(done(get("/projects"), coordinator).getContentAsString())
        .contains("Bring " + name + " back");
    String id = held.project().id().toString();
    assertThat(done(get("/projects"), inspector).getContentAsString()).doesNotContain(name);
    done(post("/projects/bring-back").param("id", id), inspector);
    assertThat(status("/p/" + key + "/layers", coordinator)).isEqualTo(404);
    done(post("/projects/bring-back").param("id", id), coordinator);
    assertThat(status("/p/" + key + "/layers", coordinator)).isEqualTo(200);
  }

  @Test
  void aCopyHasWhatWasAskedForUnderIdsOfItsOwn() throws Exception {
    handIn(visit(), new JsonObject().add("id", "no visit").add("round", held.round().toString()));
    for (String what : List.of("LAYERS", "FEATURES", "EVERYTHING")) {
      String to =
          done(
                  post("/p/" + key + "/copy").param("name", "Of " + key).param("what", what),
                  coordinator)
              .getRedirectedUrl();
      String copy = String.valueOf(to).replaceAll("^/p/|/about$", "");
      UUID id = projects.byKey(copy).id();
      assertThat(count("select count(*) from layer where project_id = ?", id)).isEqualTo(1);
      long features =
          count(
              "select count(*) from feature f join layer l on l.id = f.layer_id where l.project_id = ?",
              id);
      assertThat(features).isEqualTo(what.equals("LAYERS") ? 0 : 5);
      assertThat(visits(id)).isEqualTo(what.equals("EVERYTHING") ? 1 : 0);
      assertThat(count("select count(*) from set_aside where project_id = ?", id))
          .isEqualTo(what.equals("EVERYTHING") ? 1 : 0);
      assertThat(status("/p/" + copy + "/forms", coordinator)).isEqualTo(200);
      assertThat(status("/p/" + copy + "/layers", inspector)).as("nobody else").isEqualTo(404);
      if (what.equals("EVERYTHING")) {
        String visit =
            jdbc.queryForObject(
                "select cast(v.id as varchar) from visit v join layer l on l.id = v.layer_id where l.project_id = ?",
                String.class,
                id);
        String document =
            jdbc.queryForObject(
                "select document from visit where id = ?", String.class, UUID.fromString(visit));
        assertThat(document).contains(visit).doesNotContain(held.round().toString());
        done(post("/p/" + copy + "/hand-ins/" + visit + "/accept"), coordinator);
        assertThat(
                count(
                    "select count(*) from visit where state = 'accepted' and id = ?",
                    UUID.fromString(visit)))
            .isEqualTo(1);
      }
    }
    assertThat(
            count(
                "select count(*) from visit v join layer l on l.id = v.layer_id where l.project_id = ? and v.state = 'waiting'",
                held.project().id()))
        .as("the original is as it was")
        .isEqualTo(1);
  }

  /** A copy is of one moment: as many visits as stops that are done, whoever hands in meanwhile. */
  @Test
  void aCopyWhileSomebodyWritesIsOfOneMoment() throws Exception {
    AtomicBoolean over = new AtomicBoolean();
    CompletableFuture<Void> writing =
        CompletableFuture.runAsync(
            () -> {
              try {
                while (!over.get()) handIn(visit());
              } catch (Exception e) {
                throw new IllegalStateException(e);
              }
            });
    List<String> copies = new ArrayList<>();
    try {
      for (int i = 0; i < 4; i++)
        copies.add(
            String.valueOf(
                    done(
                            post("/p/" + key + "/copy")
                                .param("name", "While " + i + " of " + key)
                                .param("what", "EVERYTHING"),
                            coordinator)
                        .getRedirectedUrl())
                .replaceAll("^/p/|/about$", ""));
    } finally {
      over.set(true);
      writing.join();
    }
    for (String copy : copies) {
      UUID id = projects.byKey(copy).id();
      assertThat(
              count(
                  "select count(*) from visit v join layer l on l.id = v.layer_id where l.project_id = ? and not exists (select 1 from hand_in h where h.id = v.hand_in_id)",
                  id))
          .isZero();
      assertThat(
              count(
                  "select count(*) from visit v where v.round_id in (select id from round where project_id = ?) and v.feature_id not in (select id from feature)",
                  id))
          .isZero();
    }
  }

  @Test
  void whatWasRemovedLongAgoIsGoneAndNothingElse() throws Exception {
    handIn(visit(), new JsonObject().add("id", "no visit").add("round", held.round().toString()));
    UUID id = held.project().id();
    done(post("/p/" + key + "/remove").param("name", held.project().name()), coordinator);
    overview.end();
    assertThat(count("select count(*) from project where id = ?", id)).isEqualTo(1);
    jdbc.update(
        "update project set removed_at = ? where id = ?",
        Timestamp.from(Instant.now().minus(31, ChronoUnit.DAYS)),
        id);
    long others = count("select count(*) from feature") - 5;
    overview.end();
    assertThat(count("select count(*) from project where id = ?", id)).isZero();
    assertThat(count("select count(*) from feature")).isEqualTo(others);
    assertThat(count("select count(*) from hand_in where person = ?", inspector)).isZero();
    assertThat(status("/p/ostrey/layers", "coordinator")).isEqualTo(200);
  }

  /** Every table whose rows belong to a project is one that copies and ends know. */
  @Test
  void noTableWithRowsOfProjectsIsMissing() {
    List<String> tables =
        jdbc.queryForList(
            "select distinct lower(table_name) from information_schema.columns where table_schema = 'PUBLIC' and lower(column_name) in ('project_id', 'layer_id', 'form_id', 'round_id', 'visit_id', 'feature_id', 'hand_in_id')",
            String.class);
    TreeSet<String> expected = new TreeSet<>(tables);
    expected.add("hand_in");
    assertThat(new TreeSet<>(overview.tables())).isEqualTo(expected);
  }

  @Test
  void theDeskSaysWhatNeedsSomeone() throws Exception {
    handIn(visit(), new JsonObject().add("id", "no visit").add("round", held.round().toString()));
    jdbc.update("update round set due = date '2020-01-01' where id = ?", held.round());
    String page = done(get("/p/" + key + "/desk"), coordinator).getContentAsString();
    assertThat(page)
        .contains("1 visit waits to be looked at")
        .contains("1 text is set aside")
        .contains("1 round is late")
        .contains("1 of 5 stops");
  }
}
