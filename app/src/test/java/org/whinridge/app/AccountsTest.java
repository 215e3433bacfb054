package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.GreenMailUtil;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import jakarta.servlet.http.Cookie;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.app.people.FormerColumns;
import org.whinridge.core.access.Role;

/** What the keeper does with accounts, terms, and mails to people. */
class AccountsTest extends SmallServerTest {
  private static final String PASSWORD = "a long way round";
  private static final GreenMail MAIL = new GreenMail(new ServerSetup(0, null, "smtp"));

  @DynamicPropertySource
  static void mail(DynamicPropertyRegistry r) {
    MAIL.start();
    r.add("spring.mail.host", () -> "localhost");
    r.add("spring.mail.port", () -> MAIL.getSmtp().getPort());
    r.add("whinridge.mail-from", () -> "office@ostrey.example");
    r.add("whinridge.address", () -> "https://ostrey.example/");
  }

  @AfterAll
  static void noMore() {
    MAIL.stop();
  }

  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;
  @Autowired PasswordEncoder encoder;
  @Autowired SmallProject small;

  @BeforeEach
  void aKeeper() throws Exception {
    jdbc.update("delete from account_link");
    jdbc.update(
        "merge into account (name, password_hash, keeper) key (name) values ('warden', ?, true)",
        encoder.encode(PASSWORD));
    MAIL.purgeEmailFromAllMailboxes();
  }

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q) throws Exception {
    return mvc.perform(q.accept("text/html", "*/*").with(csrf())).andReturn().getResponse();
  }

  private String keeper(String act, String account, String... more) throws Exception {
    MockHttpServletRequestBuilder q =
        post("/keeper/accounts/" + act).param("account", account).with(user("warden"));
    for (int i = 0; i < more.length; i += 2) q.param(more[i], more[i + 1]);
    var r = mvc.perform(q.accept("text/html").with(csrf())).andReturn();
    return String.valueOf(r.getFlashMap());
  }

  private Cookie signIn(String name) throws Exception {
    MockHttpServletResponse r =
        done(post("/sign-in").param("username", name).param("password", PASSWORD));
    return String.valueOf(r.getRedirectedUrl()).contains("wrong") ? null : r.getCookie("SESSION");
  }

  private void account(String name) {
    jdbc.update(
        "insert into account (name, password_hash, keeper) values (?, ?, false)",
        name,
        encoder.encode(PASSWORD));
  }

  private String state(String name) {
    return jdbc.queryForObject("select state from account where name = ?", String.class, name);
  }

  @Test
  void whoIsDeactivatedIsOutAtOnceAndComesBack() throws Exception {
    account("Ennis");
    Cookie session = signIn("Ennis");
    assertThat(done(get("/me").cookie(session)).getStatus()).isEqualTo(200);
    keeper("deactivate", "Ennis");
    assertThat(done(get("/me").cookie(session)).getStatus()).isEqualTo(302);
    assertThat(signIn("Ennis")).isNull();
    keeper("activate", "Ennis");
    assertThat(signIn("Ennis")).isNotNull();
  }

  /** Who is not there, who is deactivated and who typed a wrong password are told the same. */
  @Test
  void aFailedSignInSaysNothingOfWhoIsThere() throws Exception {
    account("Corin");
    keeper("deactivate", "Corin");
    List<String> answers = new ArrayList<>();
    for (String name : List.of("Corin", "nobody at all", "warden"))
      answers.add(
          done(post("/sign-in").param("username", name).param("password", "wrong one here"))
              .getRedirectedUrl());
    assertThat(answers).containsOnly("/sign-in?wrong");
  }

  @Test
  void theLastKeeperAndTheOnlyCoordinatorStay() throws Exception {
    assertThat(keeper("deactivate", "warden")).contains("refused.lastKeeper");
    assertThat(keeper("keeper", "warden", "keeper", "false")).contains("refused.lastKeeper");
    assertThat(keeper("remove", "coordinator")).contains("refused.onlyCoordinator");
    assertThat(state("coordinator")).isEqualTo("active");
    account("Second");
    keeper("keeper", "Second", "keeper", "true");
    keeper("keeper", "warden", "keeper", "false");
    assertThat(done(get("/keeper").with(user("warden"))).getStatus()).isEqualTo(403);
    jdbc.update("update account set keeper = (name = 'warden')");
  }

  private String everything() {
    StringBuilder out = new StringBuilder();
    for (Map<String, Object> c :
        jdbc.queryForList(
            "select table_name t, column_name c from information_schema.columns where table_schema = 'PUBLIC' and data_type in ('CHARACTER VARYING', 'CHARACTER', 'CHARACTER LARGE OBJECT', 'JSON')"))
      for (String v :
          jdbc.queryForList(
              "select distinct cast(\"" + c.get("c") + "\" as varchar) from \"" + c.get("t") + "\"",
              String.class))
        out.append(c.get("t")).append('.').append(c.get("c")).append(": ").append(v).append('\n');
    return out.toString();
  }

  private void visitBy(SmallProject.Held held, String person) throws Exception {
    JsonObject feature =
        Json.parse(
                done(get("/api/day/rounds/" + held.round() + "/parts/features-" + held.layer())
                        .with(user(person)))
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject()
            .get("features")
            .asArray()
            .get(0)
            .asObject();
    JsonObject visit = SmallVisit.of(feature, held.round(), person);
    done(
        post("/api/day/hand-ins")
            .contentType("application/json")
            .content(
                new JsonObject()
                    .add("id", UUID.randomUUID().toString())
                    .add("device", "phone")
                    .add("visits", new JsonArray().add(visit).add(new JsonObject().add("id", "x")))
                    .toString())
            .with(user(person)));
    String id = visit.getString("id", "");
    done(post("/p/former/hand-ins/" + id + "/accept").with(user("Oda Fenwick")));
    assertThat(
            jdbc.queryForObject(
                "select state from visit where id = ?", String.class, UUID.fromString(id)))
        .isEqualTo("accepted");
  }

  /** Where a removed person's name is replaced, it stands nowhere any more. */
  @Test
  void aReplacedNameStandsNowhere() throws Exception {
    SmallProject.Held held =
        small.make(
            "former",
            "Former",
            Map.of(Role.COORDINATOR, "Oda Fenwick", Role.INSPECTOR, "Rurik Vane"));
    visitBy(held, "Rurik Vane");
    String code = done(post("/me/pair").with(user("Rurik Vane"))).getContentAsString();
    assertThat(code).contains("#pair=");
    done(
        post("/p/former/people/new-password")
            .param("account", "Rurik Vane")
            .with(user("Oda Fenwick")));
    assertThat(everything()).contains("Rurik Vane");
    assertThat(keeper("remove", "Rurik Vane", "keepName", "false")).contains("former person 1");
    assertThat(everything()).doesNotContain("Rurik Vane").contains("former person 1");
    assertThat(state("former person 1")).isEqualTo("removed");
    String page =
        done(get("/p/former/hand-ins?state=decided").with(user("Oda Fenwick")))
            .getContentAsString();
    assertThat(page).contains("former person 1");
  }

  @Test
  void aKeptNameStaysTakenAndSignsNobodyIn() throws Exception {
    account("Tamsin");
    keeper("remove", "Tamsin", "keepName", "true");
    assertThat(state("Tamsin")).isEqualTo("removed");
    assertThat(signIn("Tamsin")).isNull();
    assertThat(keeper("activate", "Tamsin")).contains("refused.notDeactivated");
    assertThat(keeper("remove", "Tamsin")).contains("refused.isRemoved");
  }

  /** A column with names that is not in the list of those that are replaced fails here. */
  @Test
  void everyColumnWithNamesIsKnown() {
    List<String> columns =
        jdbc.queryForList(
            "select lower(table_name) || '.' || lower(column_name) from information_schema.columns where table_schema = 'PUBLIC' and data_type = 'CHARACTER VARYING' and character_maximum_length = 40",
            String.class);
    List<String> others =
        List.of(
            "account.name",
            "project.project_key",
            "project.system_code",
            "layer.system_code",
            "visit_photo.device_id",
            "set_aside.sent_id",
            "set_aside.device_id",
            "device.own_id",
            "device.version");
    columns.removeAll(others);
    assertThat(FormerColumns.all()).containsExactlyInAnyOrderElementsOf(columns);
  }

  @Test
  void termsAreAcceptedByWhoeverJoinsAndEachVersionIsKept() throws Exception {
    done(post("/keeper/terms").param("text", "Be careful on the dykes.").with(user("warden")));
    String page =
        done(post("/p/ostrey/people/invite")
                .param("names", "Ilse")
                .param("role", "reader")
                .with(user("coordinator")))
            .getContentAsString();
    Matcher m = Pattern.compile("/join\\?key=([\\w-]+)").matcher(page);
    assertThat(m.find()).isTrue();
    String key = m.group(1);
    assertThat(done(get("/join").param("key", key)).getContentAsString())
        .contains("Be careful on the dykes.");
    MockHttpServletRequestBuilder join =
        post("/join").param("key", key).param("name", "Ilse").param("password", PASSWORD);
    assertThat(done(join).getContentAsString())
        .contains("when the terms that hold now are accepted");
    assertThat(jdbc.queryForList("select name from account where name = 'Ilse'")).isEmpty();
    int version = jdbc.queryForObject("select max(version) from terms", Integer.class);
    done(
        post("/join")
            .param("key", key)
            .param("name", "Ilse")
            .param("password", PASSWORD)
            .param("terms", String.valueOf(version)));
    assertThat(jdbc.queryForList("select version from terms_accepted where account = 'Ilse'"))
        .hasSize(1);
    done(post("/keeper/terms").param("text", "Be very careful.").with(user("warden")));
    Cookie session = signIn("Ilse");
    assertThat(done(get("/me").cookie(session)).getContentAsString()).contains("Be very careful.");
    done(post("/me/terms").param("terms", String.valueOf(version + 1)).cookie(session));
    assertThat(done(get("/me").cookie(session)).getContentAsString())
        .doesNotContain("Be very careful.");
    done(post("/keeper/terms").param("text", "").with(user("warden")));
  }

  private String mailed() throws Exception {
    assertThat(MAIL.waitForIncomingEmail(10_000, 1)).isTrue();
    MimeMessage m = MAIL.getReceivedMessages()[0];
    return GreenMailUtil.getBody(m).replace("=\r\n", "").replace("=3D", "=");
  }

  private static String keyIn(String mail, String path) {
    Matcher m =
        Pattern.compile("https://ostrey\\.example" + path + "\\?key=([\\w-]+)").matcher(mail);
    assertThat(m.find()).as(mail).isTrue();
    return m.group(1);
  }

  @Test
  void aForgottenPasswordIsRenewedByAMailToAConfirmedAddress() throws Exception {
    account("Maren");
    done(post("/forgotten").param("who", "maren@ostrey.example"));
    Cookie session = signIn("Maren");
    done(post("/me/about").param("email", "maren@ostrey.example").cookie(session));
    String key = keyIn(mailed(), "/confirm-email");
    MAIL.purgeEmailFromAllMailboxes();
    // not confirmed yet: no mail goes there
    String before = done(post("/forgotten").param("who", "Maren")).getContentAsString();
    done(get("/confirm-email").param("key", key));
    assertThat(
            jdbc.queryForObject(
                "select email_confirmed from account where name = 'Maren'", Boolean.class))
        .isTrue();
    // a host that somebody wrote into the request is in no mail
    String after =
        done(post("/forgotten").param("who", "maren@OSTREY.example").header("Host", "evil.example"))
            .getContentAsString();
    String unknown = done(post("/forgotten").param("who", "who@else.example")).getContentAsString();
    assertThat(plain(after)).isEqualTo(plain(before)).isEqualTo(plain(unknown));
    String renew = keyIn(mailed(), "/new-password");
    assertThat(MAIL.getReceivedMessages()).hasSize(1);
    done(post("/new-password").param("key", renew).param("password", "found again today"));
    assertThat(done(get("/me").cookie(session)).getStatus()).isEqualTo(302);
    done(get("/confirm-email").param("key", key));
  }

  private static String plain(String page) {
    return page.replaceAll("(content|value)=\"[\\w-]{40,}\"", "");
  }

  @Test
  void anAddressThatChangedIsNotConfirmedByTheOldMail() throws Exception {
    account("Sela");
    Cookie session = signIn("Sela");
    done(post("/me/about").param("email", "sela@ostrey.example").cookie(session));
    String key = keyIn(mailed(), "/confirm-email");
    done(post("/me/about").param("email", "other@ostrey.example").cookie(session));
    assertThat(done(get("/confirm-email").param("key", key)).getStatus()).isEqualTo(403);
    done(post("/me/about").param("email", "no address").cookie(session));
    assertThat(jdbc.queryForObject("select email from account where name = 'Sela'", String.class))
        .isEqualTo("other@ostrey.example");
  }

  @Test
  void tenThousandAccountsAreLookedThrough() throws Exception {
    jdbc.update(
        "insert into account (name, password_hash, keeper, organisation) select 'member ' || x, '', false, 'Board' from system_range(1, 10000)");
    try {
      String page =
          done(get("/keeper").param("find", "MEMBER 77").with(user("warden"))).getContentAsString();
      assertThat(page).contains("111 accounts").contains("member 7700");
      assertThat(done(get("/keeper").param("page", "9999").with(user("warden"))).getStatus())
          .isEqualTo(200);
      assertThat(done(get("/keeper").param("find", "%").with(user("warden"))).getContentAsString())
          .contains("0 accounts");
    } finally {
      jdbc.update("delete from account where organisation = 'Board'");
    }
  }
}
