package org.whinridge.app.ops;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.CookieManager;
import java.net.ServerSocket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.context.ConfigurableApplicationContext;
import org.whinridge.app.WhinridgeApplication;
import org.whinridge.app.people.People;
import org.whinridge.app.shell.Refusal;

/** A running server goes back to a copy, and starts again with it by itself. */
class GoingBackTest {
  private static final String PASSWORD = "four words round here";
  @TempDir Path tmp;
  private ConfigurableApplicationContext first;
  private int port;

  @AfterEach
  void end() {
    if (Starting.running() != null) Starting.running().close();
  }

  private HttpResponse<String> get(HttpClient http, String path) throws Exception {
    return http.send(
        HttpRequest.newBuilder(URI.create("http://localhost:" + port + path)).build(),
        HttpResponse.BodyHandlers.ofString());
  }

  /** Where somebody is led who signs in. */
  private String signIn(String name) throws Exception {
    HttpClient http = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    String csrf =
        get(http, "/sign-in").body().replaceAll("(?s).*name=\"_csrf\" value=\"([^\"]+)\".*", "$1");
    return http.send(
            HttpRequest.newBuilder(URI.create("http://localhost:" + port + "/sign-in"))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(
                    HttpRequest.BodyPublishers.ofString(
                        "username="
                            + coded(name)
                            + "&password="
                            + coded(PASSWORD)
                            + "&_csrf="
                            + csrf))
                .build(),
            HttpResponse.BodyHandlers.discarding())
        .headers()
        .firstValue("Location")
        .orElse("");
  }

  private static String coded(String s) {
    return URLEncoder.encode(s, StandardCharsets.UTF_8);
  }

  private boolean isThere() throws Exception {
    try {
      return get(HttpClient.newHttpClient(), "/actuator/health/readiness").statusCode() == 200;
    } catch (IOException e) {
      return false; // it is down
    }
  }

  @Test
  void theServerStartsAgainWithTheCopy() throws Exception {
    try (ServerSocket s = new ServerSocket(0)) {
      port = s.getLocalPort();
    }
    first =
        Starting.start(
            WhinridgeApplication.class,
            "--spring.profiles.active=own",
            "--server.port=" + port,
            "--whinridge.data=" + tmp.resolve("data"));
    first.getBean(People.class).makeKeeper("Asta", PASSWORD);
    StoreKeeping keeping = first.getBean(StoreKeeping.class);
    assertThat(keeping.copy()).isTrue();
    String copy = keeping.copies().get(0).name();
    first.getBean(People.class).make(new People.Newcomer("Later", PASSWORD, "", "", 0));
    assertThat(signIn("Later")).doesNotContain("wrong");

    GoingBack back = first.getBean(GoingBack.class);
    assertThatThrownBy(() -> back.to(copy, false, "Asta")).isInstanceOf(Refusal.class);
    assertThatThrownBy(() -> back.to("store-x.zip", true, "Asta")).isInstanceOf(Refusal.class);
    assertThat(isThere()).as("a refusal ends nothing").isTrue();
    Thread request =
        new Thread(
            () -> {
              try {
                back.to(copy, true, "Asta");
              } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
              }
            });
    request.setDaemon(true); // as those of the server are
    request.start();
    request.join();
    assertThatThrownBy(() -> back.to(copy, true, "Asta"))
        .as("one goes back at a time")
        .isInstanceOfSatisfying(
            Refusal.class, e -> assertThat(e.said().key()).isEqualTo("refused.goesBackAlready"));
    assertThat(Thread.getAllStackTraces().keySet())
        .filteredOn(t -> t.getName().equals("starting-again"))
        .as("it outlives the server's own threads")
        .singleElement()
        .satisfies(t -> assertThat(t.isDaemon()).isFalse());
    for (int i = 0; i < 600 && (Starting.running() == first || !isThere()); i++) Thread.sleep(200);

    assertThat(Starting.running()).isNotSameAs(first);
    assertThat(signIn("Asta")).as("who was there before the copy").doesNotContain("wrong");
    assertThat(signIn("Later")).as("who came after it").contains("wrong");
    assertThat(Starting.running().getBean(StoreKeeping.class).copies())
        .as("the store that was left was copied too")
        .hasSize(2);
  }
}
