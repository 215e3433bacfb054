package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** Three hundred clients that send a byte now and then: others are served as before. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
@DirtiesContext
class SlowClientsTest {
  private static final int CLIENTS = 300;
  private static final int ASKED = 60;

  @DynamicPropertySource
  static void data(DynamicPropertyRegistry r) {
    r.add("whinridge.data", () -> ServerTest.folder().toString());
  }

  @LocalServerPort int port;

  private void send(Socket s, String text) throws IOException {
    s.getOutputStream().write(text.getBytes(StandardCharsets.US_ASCII));
    s.getOutputStream().flush();
  }

  private static String head(String path, long length) {
    return "POST "
        + path
        + " HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: "
        + length
        + "\r\n\r\na=";
  }

  /** How long others wait, p95, in seconds. */
  private double others() throws Exception {
    HttpClient http = HttpClient.newHttpClient();
    List<Long> took = new ArrayList<>();
    for (int i = 0; i < ASKED; i++) {
      long began = System.nanoTime();
      assertThat(
              http.send(
                      HttpRequest.newBuilder(URI.create("http://localhost:" + port + "/sign-in"))
                          .build(),
                      HttpResponse.BodyHandlers.discarding())
                  .statusCode())
          .isEqualTo(200);
      took.add(System.nanoTime() - began);
    }
    took.sort(null);
    return took.get(ASKED * 95 / 100) / 1e9;
  }

  private double whileSlow(String path, long length) throws Exception {
    List<Socket> slow = new ArrayList<>();
    AtomicBoolean over = new AtomicBoolean();
    Thread drip =
        new Thread(
            () -> {
              while (!over.get()) {
                for (Socket s : List.copyOf(slow))
                  try {
                    send(s, "a");
                  } catch (IOException refused) {
                    slow.remove(s);
                  }
                try {
                  Thread.sleep(200);
                } catch (InterruptedException e) {
                  return;
                }
              }
            });
    try {
      for (int i = 0; i < CLIENTS; i++) {
        Socket s = new Socket("localhost", port);
        slow.add(s);
        send(s, head(path, length));
      }
      drip.start();
      Thread.sleep(500);
      return others();
    } finally {
      over.set(true);
      drip.interrupt();
      drip.join();
      for (Socket s : slow) s.close();
    }
  }

  @Test
  void othersAreServedWhileThreeHundredSendSlowly() throws Exception {
    others(); // classes and pages are there
    assertThat(whileSlow("/p/ostrey/layers/bring-in", 200_000_000)).isLessThan(1);
    assertThat(whileSlow("/sign-in", 15_000)).isLessThan(1);
    assertThat(whileSlow("/api/day/hand-ins", 7_000_000)).isLessThan(1);
  }

  /** What somebody sends who is not signed in is refused before it has arrived. */
  @Test
  void whoIsNotSignedInIsAskedBeforeAnythingIsRead() throws Exception {
    try (Socket s = new Socket("localhost", port)) {
      s.setSoTimeout(10_000);
      send(s, head("/p/ostrey/layers/bring-in", 200_000_000));
      String answer = new String(s.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      assertThat(answer).startsWith("HTTP/1.1 302").contains("/sign-in");
    }
  }
}
