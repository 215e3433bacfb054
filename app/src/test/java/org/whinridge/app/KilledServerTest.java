package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.ops.BackupCommand;

/**
 * The server killed (SIGKILL) while visits are being handed in: what it acknowledged is there
 * afterwards, and sending all again gives one copy of each.
 */
class KilledServerTest {
  @TempDir Path tmp;
  private ServerProcess server;

  @BeforeEach
  void aServer() {
    server = new ServerProcess(tmp);
  }

  @AfterEach
  void end() {
    server.kill();
  }

  private URI at(String path) {
    return server.at(path);
  }

  /** A signed-in device. */
  private final class Device {
    final HttpClient http =
        HttpClient.newBuilder()
            .cookieHandler(new CookieManager())
            .connectTimeout(Duration.ofSeconds(5))
            .build();
    final JsonObject me;
    private String token = "";

    Device() throws Exception {
      String page = get("/sign-in");
      String csrf = page.replaceAll("(?s).*name=\"_csrf\" value=\"([^\"]+)\".*", "$1");
      http.send(
          HttpRequest.newBuilder(at("/sign-in"))
              .header("Content-Type", "application/x-www-form-urlencoded")
              .POST(
                  HttpRequest.BodyPublishers.ofString(
                      "username=inspector1&password=ostrey&_csrf="
                          + URLEncoder.encode(csrf, StandardCharsets.UTF_8)))
              .build(),
          HttpResponse.BodyHandlers.discarding());
      JsonObject session = Json.parse(get("/api/own/session")).asObject();
      token =
          Json.parse(
                  http.send(
                          HttpRequest.newBuilder(at("/api/own/device"))
                              .header("Content-Type", "application/json")
                              .header(
                                  session.getString("header", ""), session.getString("token", ""))
                              .POST(
                                  HttpRequest.BodyPublishers.ofString(
                                      "{\"device\":\"phone\",\"name\":\"phone\"}"))
                              .build(),
                          HttpResponse.BodyHandlers.ofString())
                      .body())
              .asObject()
              .getString("token", "");
      me = Json.parse(get("/api/day/me")).asObject();
    }

    private HttpRequest.Builder to(String path) {
      HttpRequest.Builder b = HttpRequest.newBuilder(at(path));
      return token.isEmpty() ? b : b.header("Authorization", "Bearer " + token);
    }

    String get(String path) throws Exception {
      return http.send(to(path).build(), HttpResponse.BodyHandlers.ofString()).body();
    }

    HttpResponse<String> send(JsonObject visit) throws Exception {
      String body =
          new JsonObject()
              .add("id", UUID.randomUUID().toString())
              .add("device", "phone")
              .add("visits", new JsonArray().add(visit))
              .toString();
      return http.send(
          to("/api/day/hand-ins")
              .timeout(Duration.ofSeconds(20))
              .header("Content-Type", "application/json")
              .POST(HttpRequest.BodyPublishers.ofString(body))
              .build(),
          HttpResponse.BodyHandlers.ofString());
    }

    HttpResponse<String> call(String method, String path, byte[] body, String... headers)
        throws Exception {
      HttpRequest.Builder b =
          to(path)
              .timeout(Duration.ofSeconds(20))
              .header("Tus-Resumable", "1.0.0")
              .method(method, HttpRequest.BodyPublishers.ofByteArray(body));
      if (headers.length > 0) b.headers(headers);
      return http.send(b.build(), HttpResponse.BodyHandlers.ofString());
    }

    Set<String> states() throws Exception {
      Set<String> out = new LinkedHashSet<>();
      for (JsonValue v : Json.parse(get("/api/day/me")).asObject().get("visits").asArray())
        assertThat(out.add(v.asObject().getString("id", ""))).as("one copy of each").isTrue();
      return out;
    }
  }

  private static List<JsonObject> visits(Device d, int n) throws Exception {
    String round = d.me.get("rounds").asArray().get(0).asObject().getString("id", "");
    String part = "";
    for (JsonValue p :
        Json.parse(d.get("/api/day/rounds/" + round + "/manifest"))
            .asObject()
            .get("parts")
            .asArray())
      if (p.asObject().getString("name", "").startsWith("features-"))
        part = p.asObject().getString("name", "");
    JsonArray features =
        Json.parse(d.get("/api/day/rounds/" + round + "/parts/" + part))
            .asObject()
            .get("features")
            .asArray();
    List<JsonObject> out = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      JsonObject f = features.get(i % features.size()).asObject();
      out.add(
          new JsonObject()
              .add("id", UUID.randomUUID().toString())
              .add("round", round)
              .add("edition", 1)
              .add("feature", f.get("id"))
              .add("startedAt", "2026-05-04T09:00:00Z")
              .add("endedAt", "2026-05-04T09:10:00Z")
              .add("start", new JsonObject().add("startedAt", "2026-05-04T09:00:00Z"))
              .add("state", new JsonObject())
              .add("base", new JsonObject().add("version", 1).add("values", f.get("properties")))
              .add("set", new JsonObject().add("notes", "visit " + i))
              .add("kept", new JsonObject())
              .add("photos", new JsonArray()));
    }
    return out;
  }

  @Test
  void whatWasAcknowledgedSurvivesAKillAndSendingAgainGivesOneCopy() throws Exception {
    server.start();
    Device before = new Device();
    List<JsonObject> all = visits(before, 150);
    Set<String> acknowledged = new LinkedHashSet<>();
    CountDownLatch some = new CountDownLatch(20);
    CompletableFuture<Void> kill =
        CompletableFuture.runAsync(
            () -> {
              try {
                some.await();
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
              server.kill(); // SIGKILL, while others are being written
            });
    try {
      for (JsonObject v : all)
        if (before.send(v).statusCode() == 200) {
          acknowledged.add(v.getString("id", ""));
          some.countDown();
        }
    } catch (IOException killedInTheMiddle) {
      assertThat(acknowledged)
          .as("some were acknowledged before the kill")
          .isNotEmpty()
          .hasSizeLessThan(all.size());
    }
    kill.join();
    server.ended();
    assertThat(acknowledged).as("the kill came in the middle").hasSizeLessThan(all.size());
    server.start();
    assertThat(before.get("/api/own/session")).as("nobody is signed out").contains("inspector1");
    Device after = new Device();
    assertThat(after.states()).as("acknowledged before the kill").containsAll(acknowledged);
    for (JsonObject v : all) assertThat(after.send(v).statusCode()).isEqualTo(200);
    assertThat(after.states()).hasSize(all.size());
  }

  /**
   * The server dies after the last byte of a photo is synced and before its row says that it is
   * here. The device never heard that it arrived; the photo is taken at the next start.
   */
  @Test
  void aPhotoThatArrivedWholeIsTakenAtTheNextStart() throws Exception {
    server.start("org.whinridge.app.photo.DiesBeforeReceiving");
    Device d = new Device();
    byte[] photo = org.whinridge.demo.DemoPhoto.jpeg("OS-7", "weir", "2026-05-04");
    String id = UUID.randomUUID().toString();
    JsonObject visit =
        visits(d, 1)
            .get(0)
            .set(
                "photos",
                new JsonArray()
                    .add(
                        new JsonObject()
                            .add("id", id)
                            .add("question", "photo")
                            .add("sha256", org.whinridge.app.shell.Sha256.of(photo))
                            .add("bytes", photo.length)));
    assertThat(d.send(visit).body())
        .as("kept, and its photo is not said to be received")
        .contains(
            "\"waiting\"", "\"sha256\":\"" + org.whinridge.app.shell.Sha256.of(photo) + "\"}");
    String place =
        d.call(
                "POST",
                "/api/day/uploads",
                new byte[0],
                "Upload-Length",
                String.valueOf(photo.length),
                "Upload-Metadata",
                "photo "
                    + java.util.Base64.getEncoder()
                        .encodeToString(id.getBytes(StandardCharsets.UTF_8)))
            .headers()
            .firstValue("Location")
            .orElseThrow();
    org.assertj.core.api.Assertions.assertThatThrownBy(
            () ->
                d.call(
                    "PATCH",
                    place,
                    photo,
                    "Upload-Offset",
                    "0",
                    "Content-Type",
                    "application/offset+octet-stream"))
        .isInstanceOf(IOException.class);
    assertThat(server.ended()).isEqualTo(137);
    server.start();
    Device after = new Device();
    byte[] question =
        new JsonObject()
            .add("visits", new JsonArray().add(visit.get("id")))
            .toString()
            .getBytes(StandardCharsets.UTF_8);
    String said = "";
    for (int i = 0; i < 100 && !said.contains(",\"receivedAt\""); i++) {
      Thread.sleep(100);
      said =
          Json.parse(
                  after
                      .call(
                          "POST", "/api/day/contact", question, "Content-Type", "application/json")
                      .body())
              .asObject()
              .get("visits")
              .asArray()
              .get(0)
              .asObject()
              .get("photos")
              .toString();
    }
    assertThat(said).contains(id, "receivedAt");
    assertThat(after.call("HEAD", place, new byte[0]).statusCode()).isEqualTo(404);
  }

  /** A backup under load, the store gone, the backup restored: what was acknowledged is there. */
  @Test
  void whatWasAcknowledgedBeforeABackupComesBackWithIt() throws Exception {
    server.start();
    Device device = new Device();
    List<JsonObject> all = visits(device, 60);
    Set<String> before = new LinkedHashSet<>();
    for (JsonObject v : all.subList(0, 20)) {
      assertThat(device.send(v).statusCode()).isEqualTo(200);
      before.add(v.getString("id", ""));
    }
    CompletableFuture<Integer> load =
        CompletableFuture.supplyAsync(
            () -> {
              int sent = 0;
              try {
                for (JsonObject v : all.subList(20, 60))
                  if (device.send(v).statusCode() == 200) sent++;
              } catch (Exception e) {
                throw new IllegalStateException(e);
              }
              return sent;
            });
    Path file = tmp.resolve("all.whinridge");
    ByteArrayOutputStream said = new ByteArrayOutputStream();
    int end =
        BackupCommand.run(
            new PrintStream(said, true, StandardCharsets.UTF_8),
            "backup",
            file.toString(),
            tmp.resolve("data").toString());
    assertThat(end).as(said.toString(StandardCharsets.UTF_8)).isZero();
    assertThat(load.join()).as("nobody was held up").isEqualTo(40);
    server.kill();
    server.ended();
    FileSystemUtils.deleteRecursively(tmp.resolve("data"));
    end =
        BackupCommand.run(
            new PrintStream(said, true, StandardCharsets.UTF_8),
            "restore",
            file.toString(),
            tmp.resolve("data").toString());
    assertThat(end).as(said.toString(StandardCharsets.UTF_8)).isZero();
    server.start();
    assertThat(device.states()).as("the device's token holds").containsAll(before);
    for (JsonObject v : all) assertThat(device.send(v).statusCode()).isEqualTo(200);
    assertThat(device.states()).hasSize(all.size());
  }
}
