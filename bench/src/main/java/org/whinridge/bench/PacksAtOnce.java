package org.whinridge.bench;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Devices of the demo's first inspector that take a round out at once, beside the same one after
 * the other. One that fails ends it.
 */
final class PacksAtOnce {
  private final String base;
  private final String round;

  /** {@code round} is the name of the round, "" for the first that the person has. */
  PacksAtOnce(String base, String round) {
    this.base = base;
    this.round = round;
  }

  private record Pack(int bytes, double seconds) {}

  void measure(int n) throws Exception {
    List<Device> devices = new ArrayList<>();
    for (int i = 0; i < n; i++) devices.add(device());
    double first = pack(devices.get(0)).seconds(); // models and classes are there
    long t = System.nanoTime();
    for (Device d : devices) pack(d);
    double one = (System.nanoTime() - t) / 1e9;
    ExecutorService all = Executors.newFixedThreadPool(n);
    t = System.nanoTime();
    List<Future<Pack>> running = new ArrayList<>();
    for (Device d : devices) running.add(all.submit(() -> pack(d)));
    List<Double> took = new ArrayList<>();
    int bytes = 0;
    for (Future<Pack> f : running) {
      took.add(f.get().seconds());
      bytes = f.get().bytes();
    }
    double atOnce = (System.nanoTime() - t) / 1e9;
    all.shutdown();
    Collections.sort(took);
    System.out.printf(
        Locale.ROOT,
        "%d packs of %,d kB at once: %.2f s, 95 %% of the devices within %.2f s; one after the other %.2f s; ratio %.2f; the first pack of all %.2f s%n",
        n,
        bytes / 1000,
        atOnce,
        took.get((int) Math.ceil(n * 0.95) - 1),
        one,
        atOnce / one,
        first);
  }

  /** A device and the token that lets it in. */
  private record Device(HttpClient http, String base, String token) {
    HttpResponse<byte[]> get(String path) throws Exception {
      return http.send(
          HttpRequest.newBuilder(URI.create(base + path))
              .header("Authorization", "Bearer " + token)
              .build(),
          HttpResponse.BodyHandlers.ofByteArray());
    }

    JsonObject object(String path) throws Exception {
      return Json.parse(new String(get(path).body(), StandardCharsets.UTF_8)).asObject();
    }
  }

  private Device device() throws Exception {
    HttpClient http = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    Matcher m =
        Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"")
            .matcher(send(http, HttpRequest.newBuilder(URI.create(base + "/sign-in"))));
    if (!m.find()) throw new IOException("no token on the sign-in page");
    send(
        http,
        HttpRequest.newBuilder(URI.create(base + "/sign-in"))
            .header("Content-Type", "application/x-www-form-urlencoded")
            .POST(
                HttpRequest.BodyPublishers.ofString(
                    "username=inspector1&password=ostrey&_csrf="
                        + URLEncoder.encode(m.group(1), StandardCharsets.UTF_8))));
    JsonObject session =
        Json.parse(send(http, HttpRequest.newBuilder(URI.create(base + "/api/own/session"))))
            .asObject();
    String letIn =
        send(
            http,
            HttpRequest.newBuilder(URI.create(base + "/api/own/device"))
                .header("Content-Type", "application/json")
                .header(session.getString("header", ""), session.getString("token", ""))
                .POST(
                    HttpRequest.BodyPublishers.ofString(
                        "{\"device\":\"" + UUID.randomUUID() + "\",\"name\":\"phone\"}")));
    return new Device(http, base, Json.parse(letIn).asObject().getString("token", ""));
  }

  private static String send(HttpClient http, HttpRequest.Builder request) throws Exception {
    return http.send(request.build(), HttpResponse.BodyHandlers.ofString()).body();
  }

  private Pack pack(Device device) throws Exception {
    long t = System.nanoTime();
    String id = "";
    for (JsonValue r : device.object("/api/day/me").get("rounds").asArray())
      if (id.isEmpty() && (round.isEmpty() || round.equals(r.asObject().getString("name", ""))))
        id = r.asObject().getString("id", "");
    int bytes = 0;
    String at = "/api/day/rounds/" + id;
    for (JsonValue p : device.object(at + "/manifest").get("parts").asArray()) {
      String name = p.asObject().getString("name", "");
      String hash = p.asObject().getString("hash", "");
      HttpResponse<byte[]> r = device.get(at + "/parts/" + name + "?hash=" + hash);
      if (r.statusCode() != 200) throw new IOException(r.statusCode() + " for " + name);
      bytes += r.body().length;
    }
    return new Pack(bytes, (System.nanoTime() - t) / 1e9);
  }
}
