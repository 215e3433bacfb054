package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import jakarta.servlet.http.Cookie;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;

/** People's own accounts and devices: how they are let in, and how that ends. */
class OwnTest extends SmallServerTest {
  private static final String PASSWORD = "a long way round";
  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;
  @Autowired PasswordEncoder encoder;

  /** The demo's people of the small project have no password; here they have one. */
  @BeforeEach
  void passwords() {
    jdbc.update(
        "update account set password_hash = ?, state = 'active' where name in ('inspector1', 'reader')",
        encoder.encode(PASSWORD));
    jdbc.update("delete from device");
    jdbc.update("delete from device_pairing");
  }

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q) throws Exception {
    return mvc.perform(q.accept("text/html", "*/*").with(csrf())).andReturn().getResponse();
  }

  private Cookie signIn(String name, String password) throws Exception {
    MockHttpServletResponse r =
        done(post("/sign-in").param("username", name).param("password", password));
    return String.valueOf(r.getRedirectedUrl()).contains("wrong") ? null : r.getCookie("SESSION");
  }

  private int open(Cookie session) throws Exception {
    return done(get("/me").cookie(session)).getStatus();
  }

  private static JsonObject json(MockHttpServletResponse r) throws Exception {
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8)).asObject();
  }

  private MockHttpServletResponse pair(String code, String device) throws Exception {
    return mvc.perform(
            post("/api/day/pair")
                .contentType("application/json")
                .content(
                    new JsonObject()
                        .add("code", code)
                        .add("device", device)
                        .add("name", "Phone")
                        .toString()))
        .andReturn()
        .getResponse();
  }

  private String code(String person) throws Exception {
    String page = done(post("/me/pair").with(user(person))).getContentAsString();
    Matcher m = Pattern.compile("/day#pair=([0-9A-Z]{8})").matcher(page);
    assertThat(m.find()).isTrue();
    return m.group(1);
  }

  private String token(String person) throws Exception {
    return json(pair(code(person), UUID.randomUUID().toString())).getString("token", "");
  }

  private MockHttpServletResponse me(String token) throws Exception {
    return mvc.perform(get("/api/day/me").header("Authorization", "Bearer " + token))
        .andReturn()
        .getResponse();
  }

  private JsonObject contact(String token, JsonObject report) throws Exception {
    return json(
        mvc.perform(
                post("/api/day/contact")
                    .header("Authorization", "Bearer " + token)
                    .contentType("application/json")
                    .content(
                        new JsonObject()
                            .add("visits", new JsonArray())
                            .add("device", report)
                            .toString()))
            .andReturn()
            .getResponse());
  }

  private static JsonObject report(int visits) {
    return new JsonObject()
        .add("version", "abc")
        .add("left", 5_000_000_000L)
        .add("visits", visits)
        .add("photos", 2 * visits)
        .add("at", Instant.now().minus(900, ChronoUnit.DAYS).toString())
        .add("lon", -10.3)
        .add("lat", 57.88);
  }

  private UUID device() {
    return jdbc.queryForObject("select id from device fetch first row only", UUID.class);
  }

  @Test
  void aCodeLetsOneDeviceInOnce() throws Exception {
    String code = code("inspector1");
    MockHttpServletResponse r = pair(code.toLowerCase() + " ", "d1");
    assertThat(json(r).getString("person", "")).isEqualTo("inspector1");
    String token = json(r).getString("token", "");
    assertThat(me(token).getStatus()).isEqualTo(200);
    assertThat(pair(code, "d2").getStatus()).isEqualTo(403);
    assertThat(me("").getStatus()).isEqualTo(401);
    assertThat(me(token + "x").getStatus()).isEqualTo(401);
    String stored = jdbc.queryForList("select * from device").toString();
    assertThat(stored).doesNotContain(token);
    assertThat(jdbc.queryForList("select * from device_pairing").toString()).doesNotContain(code);
  }

  @Test
  void anotherCodeAndTimeEndACode() throws Exception {
    String first = code("inspector1");
    String second = code("inspector1");
    assertThat(pair(first, "d1").getStatus()).isEqualTo(403);
    jdbc.update("update device_pairing set expires_at = ?", java.sql.Timestamp.from(Instant.now()));
    assertThat(pair(second, "d1").getStatus()).isEqualTo(403);
    assertThat(pair("", "d1").getStatus()).isEqualTo(403);
    assertThat(pair("ÄÖÜ1-2345", "d1").getStatus()).isEqualTo(403);
  }

  @Test
  void guessingIsSlowedDown() throws Exception {
    int looked = 0;
    for (int i = 0; i < 60; i++) {
      String guess = String.format("%08d", i);
      int status =
          mvc.perform(
                  post("/api/day/pair")
                      .contentType("application/json")
                      .content("{\"code\":\"" + guess + "\",\"device\":\"d\",\"name\":\"n\"}")
                      .with(
                          q -> {
                            q.setRemoteAddr("198.51.100.7");
                            return q;
                          }))
              .andReturn()
              .getResponse()
              .getStatus();
      if (status == 403) looked++;
      else assertThat(status).isEqualTo(429);
    }
    assertThat(looked).isLessThan(25);
  }

  /** A session in the same browser neither lets a device in nor can be used by another site. */
  @Test
  void devicesAreLetInByTheirTokenAlone() throws Exception {
    Cookie session = signIn("inspector1", PASSWORD);
    assertThat(
            mvc.perform(get("/api/day/me").cookie(session)).andReturn().getResponse().getStatus())
        .isEqualTo(401);
    MockHttpServletResponse r =
        mvc.perform(
                post("/api/own/device")
                    .cookie(session)
                    .contentType("application/json")
                    .content("{\"device\":\"d9\",\"name\":\"Phone\"}")
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(me(json(r).getString("token", "")).getStatus()).isEqualTo(200);
    assertThat(
            mvc.perform(
                    post("/api/own/device")
                        .cookie(session)
                        .contentType("application/json")
                        .content("{\"device\":\"d9\",\"name\":\"Phone\"}"))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(403);
    assertThat(
            mvc.perform(
                    get("/p/ostrey/layers")
                        .header("Authorization", "Bearer " + json(r).getString("token", "")))
                .andReturn()
                .getResponse()
                .getStatus())
        .as("a device's token opens no page of the desk")
        .isEqualTo(302);
  }

  @Test
  void theDeskSeesWhatDevicesTellAndAsks() throws Exception {
    String token = token("inspector1");
    JsonObject answer = contact(token, report(3));
    assertThat(Instant.parse(answer.getString("now", ""))).isBefore(Instant.now().plusSeconds(1));
    String page = done(get("/p/ostrey/devices").with(user("coordinator"))).getContentAsString();
    assertThat(page).contains("3 visits and 6 photos").contains("5,000 MB free").contains("off:");
    assertThat(page).as("no round allows it").doesNotContain("57.88");
    done(post("/p/ostrey/devices/" + device() + "/ask").with(user("coordinator")));
    assertThat(json(me(token)).getString("asked", "")).isNotEmpty();
    contact(token, report(0));
    assertThat(json(me(token)).get("asked")).isNull();
    jdbc.update("update round set tells_position = true");
    contact(token, report(0));
    assertThat(done(get("/p/ostrey/devices").with(user("coordinator"))).getContentAsString())
        .contains("57.88");
    jdbc.update("update round set tells_position = false");
  }

  @Test
  void aRevokedDeviceHearsItAndComesBackByPairing() throws Exception {
    String token = token("inspector1");
    done(post("/p/ostrey/devices/" + device() + "/revoke").with(user("coordinator")));
    MockHttpServletResponse r = me(token);
    assertThat(r.getStatus()).isEqualTo(401);
    assertThat(r.getHeader("Device-State")).isEqualTo("revoked");
    assertThat(jdbc.queryForObject("select wiped_at from device", Object.class)).isNotNull();
    assertThat(me(token("inspector1")).getStatus()).isEqualTo(200);
  }

  @Test
  void othersDevicesAreNotReached() throws Exception {
    token("inspector1");
    done(post("/me/devices/" + device() + "/revoke").with(user("reader")));
    done(post("/me/devices/" + device() + "/rename").param("name", "Mine").with(user("reader")));
    assertThat(jdbc.queryForObject("select revoked_at from device", Object.class)).isNull();
    assertThat(jdbc.queryForObject("select name from device", String.class)).isEqualTo("Phone");
  }

  @Test
  void anotherPasswordEndsOtherWindowsAndNeedsTheOldOne() throws Exception {
    Cookie here = signIn("inspector1", PASSWORD);
    Cookie there = signIn("inspector1", PASSWORD);
    String next = "quite another word";
    done(post("/me/password").param("old", "wrong").param("password", next).cookie(here));
    assertThat(signIn("inspector1", next)).isNull();
    done(post("/me/password").param("old", PASSWORD).param("password", "short").cookie(here));
    assertThat(open(there)).isEqualTo(200);
    done(post("/me/password").param("old", PASSWORD).param("password", next).cookie(here));
    assertThat(open(here)).isEqualTo(200);
    assertThat(open(there)).isEqualTo(302);
    assertThat(signIn("inspector1", next)).isNotNull();
  }

  @Test
  void signingOutEverywhereEndsWindowsAndDevices() throws Exception {
    String token = token("inspector1");
    Cookie here = signIn("inspector1", PASSWORD);
    Cookie there = signIn("inspector1", PASSWORD);
    done(post("/me/sign-out-everywhere").cookie(here));
    assertThat(open(here)).isEqualTo(302);
    assertThat(open(there)).isEqualTo(302);
    MockHttpServletResponse r = me(token);
    assertThat(r.getStatus()).isEqualTo(401);
    assertThat(r.getHeader("Device-State")).as("nothing is cleared away").isNull();
  }

  @Test
  void aLinkToANewPasswordWorksOnce() throws Exception {
    String page =
        done(post("/p/ostrey/people/new-password")
                .param("account", "inspector1")
                .with(user("coordinator")))
            .getContentAsString();
    Matcher m = Pattern.compile("/new-password\\?key=([\\w-]+)").matcher(page);
    assertThat(m.find()).isTrue();
    String key = m.group(1);
    Cookie before = signIn("inspector1", PASSWORD);
    assertThat(done(get("/new-password").param("key", key)).getContentAsString())
        .contains("inspector1");
    String next = "found after a while";
    done(post("/new-password").param("key", key).param("password", "short"));
    assertThat(signIn("inspector1", "short")).isNull();
    done(post("/new-password").param("key", key).param("password", next));
    assertThat(signIn("inspector1", next)).isNotNull();
    assertThat(open(before)).isEqualTo(302);
    assertThat(
            done(post("/new-password").param("key", key).param("password", PASSWORD)).getStatus())
        .isEqualTo(403);
    assertThat(jdbc.queryForList("select * from account_link").toString()).doesNotContain(key);
  }

  /** A coordinator makes no link by which they could become a keeper, or see another project. */
  @Test
  void aLinkIsMadeByWhoLooksAfterAllOfThatPersonsProjects() throws Exception {
    jdbc.update("update account set keeper = true where name = 'reader'");
    String page =
        done(post("/p/ostrey/people/new-password")
                .param("account", "reader")
                .with(user("coordinator")))
            .getContentAsString();
    jdbc.update("update account set keeper = false where name = 'reader'");
    assertThat(page).contains("is a keeper or works in a project").doesNotContain("?key=");
  }

  @Test
  void pagesAreWrittenAsSomebodyChose() throws Exception {
    token("inspector1");
    contact(jdbcToken(), report(1));
    Cookie here = signIn("inspector1", PASSWORD);
    assertThat(done(get("/me").cookie(here)).getContentAsString()).contains("5,000 MB");
    done(post("/me/style").param("style", "de-DE").param("zone", "Europe/Vienna").cookie(here));
    String page = done(get("/me").cookie(here)).getContentAsString();
    assertThat(page).contains("5.000 MB").contains("data-style=\"de-DE\"");
    assertThat(page).contains("data-zone=\"Europe/Vienna\"").contains("data-keys=\"off\"");
    Cookie later = signIn("inspector1", PASSWORD);
    assertThat(done(get("/me").cookie(later)).getContentAsString()).contains("5.000 MB");
    done(post("/me/style").param("style", "xx").param("zone", "Nowhere/At_All").cookie(later));
    assertThat(done(get("/me").cookie(later)).getContentAsString()).contains("5.000 MB");
    done(post("/me/style").param("keys", "true").cookie(later));
    assertThat(done(get("/me").cookie(later)).getContentAsString()).contains("5,000 MB");
  }

  /** The token of a device that was just paired again. */
  private String jdbcToken() throws Exception {
    return token("inspector1");
  }

  /** Requests of one session at once write the same attributes; none of them fails. */
  @Test
  void requestsOfOneSessionAtOnceDoNotGetInEachOthersWay() throws Exception {
    for (int round = 0; round < 10; round++) {
      Cookie session = signIn("inspector1", PASSWORD);
      List<CompletableFuture<Integer>> all = new ArrayList<>();
      for (int i = 0; i < 8; i++)
        all.add(
            CompletableFuture.supplyAsync(
                () -> {
                  try {
                    return mvc.perform(get("/api/own/session").cookie(session))
                        .andReturn()
                        .getResponse()
                        .getStatus();
                  } catch (Exception e) {
                    throw new IllegalStateException(e);
                  }
                }));
      for (CompletableFuture<Integer> a : all) assertThat(a.join()).isEqualTo(200);
    }
  }

  /** With the token that the page shows, and not with one of the tests. */
  private Cookie signInByThePage() throws Exception {
    MockHttpServletResponse page =
        mvc.perform(get("/sign-in").accept("text/html")).andReturn().getResponse();
    return mvc.perform(
            post("/sign-in")
                .param("username", "inspector1")
                .param("password", PASSWORD)
                .param("_csrf", shown(page.getContentAsString()))
                .cookie(page.getCookie("SESSION")))
        .andReturn()
        .getResponse()
        .getCookie("SESSION");
  }

  private static String shown(String page) {
    return page.replaceAll("(?s).*?name=\"_csrf\" value=\"([^\"]+)\".*", "$1");
  }

  /** The first pages after signing in are asked for at once; each can send what it shows. */
  @Test
  void firstPagesAtOnceHaveOneTokenAgainstOtherSites() throws Exception {
    for (int round = 0; round < 10; round++) {
      Cookie session = signInByThePage();
      List<CompletableFuture<String>> all = new ArrayList<>();
      for (int i = 0; i < 6; i++)
        all.add(
            CompletableFuture.supplyAsync(
                () -> {
                  try {
                    return shown(
                        mvc.perform(get("/me").accept("text/html").cookie(session))
                            .andReturn()
                            .getResponse()
                            .getContentAsString());
                  } catch (Exception e) {
                    throw new IllegalStateException(e);
                  }
                }));
      for (CompletableFuture<String> a : all)
        assertThat(
                mvc.perform(
                        post("/me/style")
                            .param("keys", "true")
                            .param("_csrf", a.join())
                            .cookie(session))
                    .andReturn()
                    .getResponse()
                    .getRedirectedUrl())
            .isEqualTo("/me");
    }
  }

  @Test
  void thePasswordsStrengthIsSaidInWords() throws Exception {
    assertThat(strength("password1234", "")).isEqualTo("weak");
    assertThat(strength("inspector1!", "inspector1")).isEqualTo("weak");
    assertThat(strength("marsh otter ledger quorum", "x")).isEqualTo("strong");
    assertThat(strength("", "x")).isEmpty();
    assertThat(strength("x".repeat(100_000), "x")).isNotEmpty();
  }

  private String strength(String password, String name) throws Exception {
    return json(done(
            post("/api/password-strength").param("password", password).param("name", name)))
        .getString("strength", "none");
  }
}
