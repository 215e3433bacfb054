package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;

/** A project's people: invited, of several roles, taken out. */
class PeopleTest extends SmallServerTest {
  private static final String PASSWORD = "a long way round";
  private static final String PEOPLE = "/p/ostrey/people";
  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;

  private MvcResult sent(MockHttpServletRequestBuilder q) throws Exception {
    return mvc.perform(q.accept("text/html", "*/*").with(csrf())).andReturn();
  }

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q) throws Exception {
    return sent(q).getResponse();
  }

  private List<String> invite(String names, String... roles) throws Exception {
    MvcResult r =
        sent(
            post(PEOPLE + "/invite")
                .param("names", names)
                .param("role", roles)
                .with(user("coordinator")));
    List<String> out = new ArrayList<>();
    Matcher m =
        Pattern.compile("http://localhost/join\\?key=([\\w-]+)")
            .matcher(r.getResponse().getContentAsString());
    while (m.find()) out.add(m.group(1));
    return out;
  }

  private String said(MvcResult r) {
    Map<String, Object> all =
        r.getFlashMap().isEmpty() ? r.getModelAndView().getModel() : r.getFlashMap();
    Object told = all.getOrDefault("problem", all.get("done"));
    return told instanceof Said s ? English.of(s) : "";
  }

  private MockHttpServletResponse join(String key, String name) throws Exception {
    return done(post("/join").param("key", key).param("name", name).param("password", PASSWORD));
  }

  @Test
  void severalAreInvitedAtOnceAndEachLinkWorksOnce() throws Exception {
    List<String> keys = invite("Beke\nCato, Dag", "inspector", "reader");
    assertThat(keys).hasSize(3).doesNotHaveDuplicates();
    assertThat(jdbc.queryForList("select token_hash from invitation", String.class).toString())
        .doesNotContain(keys.get(0));
    assertThat(done(get(PEOPLE).with(user("coordinator"))).getContentAsString())
        .contains("Cato")
        .doesNotContain(keys.get(1));
    assertThat(done(get("/join").param("key", keys.get(0))).getContentAsString())
        .contains("coordinator invites you to Isle of Ostrey")
        .contains("value=\"Beke\"");
    assertThat(
            done(post("/join")
                    .param("key", keys.get(0))
                    .param("name", "Beke")
                    .param("password", "1234567890"))
                .getContentAsString())
        .contains("role=\"alert\"");
    assertThat(join(keys.get(0), "Beke").getRedirectedUrl()).isEqualTo("/sign-in?made");
    assertThat(join(keys.get(0), "Beke again").getStatus()).isEqualTo(403);
    assertThat(done(get("/join").param("key", keys.get(0))).getContentAsString())
        .contains("was used already");
    assertThat(join(keys.get(1), "BEKE").getContentAsString()).contains("Somebody has the name");
    assertThat(done(get("/p/ostrey/layers").with(user("Beke"))).getStatus()).isEqualTo(200);
    assertThat(done(get("/api/day/me").with(user("Beke"))).getStatus()).isEqualTo(200);
    assertThat(done(get("/p/ostrey/rounds").with(user("Beke"))).getStatus()).isEqualTo(403);
  }

  @Test
  void whoHasAnAccountJoinsWithIt() throws Exception {
    jdbc.update("insert into account (name, password_hash, keeper) values ('Enno', '', false)");
    String key = invite("", "reviewer").get(0);
    assertThat(done(get("/p/ostrey/layers").with(user("Enno"))).getStatus()).isEqualTo(404);
    assertThat(done(get("/join").param("key", key).with(user("Enno"))).getContentAsString())
        .contains("You are signed in as Enno");
    assertThat(done(post("/join/as-i-am").param("key", key).with(user("Enno"))).getRedirectedUrl())
        .isEqualTo("/");
    assertThat(done(get("/p/ostrey/rounds").with(user("Enno"))).getStatus()).isEqualTo(200);
  }

  @Test
  void whatHasRunOutWasTakenBackOrNeverWasLetsNobodyIn() throws Exception {
    String old = invite("Old", "reader").get(0);
    jdbc.update("update invitation set expires_at = made_at where name = 'Old'");
    assertThat(join(old, "Old").getStatus()).isEqualTo(403);
    String back = invite("Back", "reader").get(0);
    String id = jdbc.queryForObject("select id from invitation where name = 'Back'", String.class);
    assertThat(
            said(sent(post(PEOPLE + "/invitations/" + id + "/withdraw").with(user("coordinator")))))
        .contains("no longer works");
    assertThat(join(back, "Back").getStatus()).isEqualTo(403);
    assertThat(join("", "Nobody").getStatus()).isEqualTo(403);
    assertThat(
            jdbc.queryForObject(
                "select count(*) from account where name in ('Old', 'Back', 'Nobody')",
                Integer.class))
        .isZero();
    assertThat(invite("Somebody")).as("of no role").isEmpty();
    assertThat(invite("x".repeat(41), "reader")).isEmpty();
  }

  @Test
  void ofTwoWhoUseOneLinkAtOnceOneComesIn() throws Exception {
    String key = invite("", "reader").get(0);
    List<CompletableFuture<Integer>> both = new ArrayList<>();
    for (String name : List.of("First Fina", "Second Sven"))
      both.add(
          CompletableFuture.supplyAsync(
              () -> {
                try {
                  return join(key, name).getStatus();
                } catch (Exception e) {
                  throw new IllegalStateException(e);
                }
              }));
    assertThat(both.stream().map(CompletableFuture::join).filter(s -> s == 302)).hasSize(1);
    assertThat(
            jdbc.queryForObject(
                "select count(*) from member where account in ('First Fina', 'Second Sven')",
                Integer.class))
        .isEqualTo(1);
    assertThat(
            jdbc.queryForObject(
                "select count(*) from account where name in ('First Fina', 'Second Sven')",
                Integer.class))
        .isEqualTo(1);
  }

  private String roles(String account, String... roles) throws Exception {
    return said(
        sent(
            post(PEOPLE + "/roles")
                .param("account", account)
                .param("role", roles)
                .with(user("coordinator"))));
  }

  @Test
  void rolesChangeAtOnceAndSomebodyAlwaysLooksAfterTheProject() throws Exception {
    assertThat(join(invite("Frauke", "reader").get(0), "Frauke").getStatus()).isEqualTo(302);
    assertThat(done(get("/p/ostrey/hand-ins").with(user("Frauke"))).getStatus()).isEqualTo(403);
    assertThat(roles("Frauke", "reviewer")).contains("changed");
    assertThat(done(get("/p/ostrey/hand-ins").with(user("Frauke"))).getStatus()).isEqualTo(200);
    assertThat(roles("coordinator", "reader")).contains("only one who looks after");
    assertThat(done(get(PEOPLE).with(user("coordinator"))).getStatus()).isEqualTo(200);
    assertThat(roles("Frauke")).contains("no longer in this project");
    assertThat(done(get("/p/ostrey/layers").with(user("Frauke"))).getStatus()).isEqualTo(404);
    assertThat(roles("nobody at all", "reader")).contains("no member");
  }

  /** Coordinators may go out as well, but a round is first offered to those whose work it is. */
  @Test
  void roundsAreForInspectorsFirst() throws Exception {
    String planning =
        done(get("/api/p/ostrey/rounds/planning").with(user("coordinator"))).getContentAsString();
    String people = planning.substring(planning.indexOf("\"people\""));
    assertThat(people.indexOf("inspector1"))
        .isPositive()
        .isLessThan(people.indexOf("\"coordinator\""));
  }

  @Test
  void theTableOfRightsIsTheOneThatDecides() throws Exception {
    String page = done(get(PEOPLE).with(user("coordinator"))).getContentAsString();
    String table = page.substring(page.indexOf("id=\"may\""));
    assertThat(table.substring(0, table.indexOf("</table>")).split(">yes<", -1).length - 1)
        .isEqualTo(8 + 3 + 1 + 1);
  }
}
