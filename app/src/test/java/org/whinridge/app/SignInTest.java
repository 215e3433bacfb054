package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.test.web.servlet.MockMvc;

/** Signing in: wrong tries cost time, and nobody is led elsewhere. */
class SignInTest extends SmallServerTest {
  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;
  @Autowired PasswordEncoder encoder;

  private String signIn(String name, String password, String address, String next)
      throws Exception {
    return String.valueOf(
        mvc.perform(
                post("/sign-in")
                    .param("username", name)
                    .param("password", password)
                    .param("next", next)
                    .with(
                        q -> {
                          q.setRemoteAddr(address);
                          return q;
                        })
                    .with(csrf()))
            .andReturn()
            .getResponse()
            .getRedirectedUrl());
  }

  private void hasPassword(String name, String password) {
    jdbc.update(
        "update account set password_hash = ? where name = ?", encoder.encode(password), name);
  }

  @Test
  void ofAHundredWrongPasswordsAFewAreLookedAt() throws Exception {
    hasPassword("reviewer", "a long way round");
    int looked = 0;
    String waits = "";
    for (int i = 0; i < 100; i++) {
      String told = signIn(i % 2 == 0 ? "reviewer" : "Reviewer", "guess " + i, "192.0.2." + i, "");
      if (told.equals("/sign-in?wrong")) looked++;
      else waits = told; // any but the last may have been tried when a wait was just over
    }
    assertThat(looked).isBetween(4, 12);
    assertThat(waits).startsWith("/sign-in?wait=");
    assertThat(
            mvc.perform(get(waits).queryParam("wait", waits.replaceAll("\\D", "")))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .contains("Too many tries");
    assertThat(signIn("coordinator", "another's", "192.0.2.200", ""))
        .as("others may still try")
        .isEqualTo("/sign-in?wrong");
  }

  @Test
  void anAddressThatGoesThroughManyAccountsWaits() throws Exception {
    int looked = 0;
    for (int i = 0; i < 60; i++)
      if (signIn("somebody" + i, "ostrey", "198.51.100.7", "").equals("/sign-in?wrong")) looked++;
    assertThat(looked).isBetween(19, 30);
  }

  @Test
  void whoComesInIsLedToOwnPagesOnly() throws Exception {
    hasPassword("coordinator", "a long way round");
    assertThat(signIn("coordinator", "a long way round", "203.0.113.1", "/p/ostrey/rounds"))
        .isEqualTo("/p/ostrey/rounds");
    for (String elsewhere :
        new String[] {
          "https://elsewhere.example/x",
          "//elsewhere.example",
          "/\\elsewhere.example",
          "/..//elsewhere.example",
          "javascript:alert(1)",
          ""
        })
      assertThat(signIn("coordinator", "a long way round", "203.0.113.1", elsewhere))
          .as(elsewhere)
          .isEqualTo("/");
  }
}
