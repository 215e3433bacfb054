package org.whinridge.bench;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.io.InputStream;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.Statement;
import java.sql.Timestamp;
import java.util.Locale;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.layer.Feature;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutLayer;

/**
 * A million points brought in through the running server with {@code -Xmx768m}, beside bare JDBC
 * batch inserts of the same rows into H2, with the same table and settings: with the same indexes,
 * and with the spatial index that the table had before. Then the same positions once more, and the
 * layer's first map after a start. {@code bench/import} runs it.
 */
public final class LayerImport {
  private static final int BATCH = 1000;
  private static final int COMMIT = 5000; // in one transaction H2 runs out of 768 MB
  private static final String SETTINGS = ";WRITE_DELAY=0;RETENTION_TIME=0;DB_CLOSE_ON_EXIT=FALSE";
  private static final String TABLE =
      "CREATE TABLE feature (id UUID PRIMARY KEY, layer_id UUID NOT NULL, geom GEOMETRY(GEOMETRY, 4326), attrs JSON NOT NULL, version BIGINT NOT NULL,"
          + " changed_at TIMESTAMP WITH TIME ZONE NOT NULL, changed_by VARCHAR(40) NOT NULL, made_by_entry UUID NOT NULL, place_in_layer INT NOT NULL, removed BOOLEAN NOT NULL);"
          + "CREATE INDEX ix_feature_layer ON feature (layer_id, place_in_layer);CREATE INDEX ix_feature_made_by ON feature (made_by_entry)";

  private static final String SPATIAL = ";CREATE SPATIAL INDEX ix_feature_geom ON feature (geom)";
  private static final int PORT = 18_471;

  private LayerImport() {}

  /** Arguments: a folder for files, and the server's archive. */
  public static void main(String[] args) throws Exception {
    Path folder = Files.createDirectories(Path.of(args[0]));
    Path file = folder.resolve("import.gpkg");
    million(file);
    double indexed = bare(folder.resolve("bare"), TABLE + SPATIAL);
    double bare = bare(folder.resolve("bare"), TABLE);
    System.out.printf(
        Locale.ROOT,
        "bare JDBC batch insert of 1,000,000 rows: %.1f s; with a spatial index %.1f s%n",
        bare,
        indexed);
    Path data = folder.resolve("server-" + UUID.randomUUID());
    Path jar = Path.of(args[1]);
    try {
      Process p = start(folder, data, jar);
      double[] first;
      double[] second;
      try {
        Client c = new Client("http://localhost:" + PORT);
        c.signIn();
        first = c.bringIn(file, "Million");
        System.out.printf(
            Locale.ROOT,
            "upload %.1f s, report %.1f s, import %.1f s with -Xmx768m; import / bare insert: ratio %.2f; / with a spatial index: %.2f%n",
            first[0],
            first[1],
            first[2],
            first[2] / bare,
            first[2] / indexed);
        double map = c.firstMap("Million");
        System.out.printf(Locale.ROOT, "its first map right after the import: %.1f s%n", map);
        second = c.bringIn(file, "Once more");
        System.out.printf(
            Locale.ROOT,
            "the same positions once more: %.1f s; ratio to the first time %.2f%n",
            second[2],
            second[2] / first[2]);
        System.out.printf(
            Locale.ROOT,
            "the store's file: %d MB for 2,000,000 features%n",
            Files.size(data.resolve("whinridge.mv.db")) >> 20);
        Thread.sleep(45_000); // models are kept as files once they rest
      } finally {
        p.destroy();
        p.waitFor();
      }
      p = start(folder, data, jar);
      try {
        Client c = new Client("http://localhost:" + PORT);
        c.signIn();
        double map = c.firstMap("Million");
        System.out.printf(
            Locale.ROOT,
            "first map of 1,000,000 features after a start, from its file: %.1f s%n",
            map);
      } finally {
        p.destroy();
        p.waitFor();
      }
      org.h2.store.fs.FileUtils.deleteRecursive(data.resolve("models").toString(), true);
      p = start(folder, data, jar);
      try {
        Client c = new Client("http://localhost:" + PORT);
        c.signIn();
        double map = c.firstMap("Million");
        System.out.printf(Locale.ROOT, "the same made anew from the store: %.1f s%n", map);
      } finally {
        p.destroy();
        p.waitFor();
      }
    } finally {
      org.h2.store.fs.FileUtils.deleteRecursive(data.toString(), true);
    }
  }

  static void million(Path file) throws Exception {
    Files.deleteIfExists(file);
    try (GeoPackageWriter g = new GeoPackageWriter(file);
        LayerWriter w = g.layer(OutLayer.of("Million", MillionPoints.SCHEMA))) {
      MillionPoints.each(MillionPoints.writing(w::add));
    }
  }

  /** What is measured once the layer is there. */
  interface Then {
    void at(String base) throws Exception;
  }

  private static double bare(Path db, String table) throws Exception {
    for (String end : new String[] {".mv.db", ".trace.db"}) Files.deleteIfExists(Path.of(db + end));
    try (Connection c =
            DriverManager.getConnection("jdbc:h2:file:" + db.toAbsolutePath() + SETTINGS);
        Statement s = c.createStatement()) {
      s.execute(table);
      c.setAutoCommit(false);
      long t = System.nanoTime();
      UUID layer = UUID.randomUUID();
      Timestamp now = new Timestamp(System.currentTimeMillis());
      int[] n = {0};
      try (PreparedStatement p =
          c.prepareStatement("INSERT INTO feature VALUES (?,?,?,? FORMAT JSON,?,?,?,?,?,?)")) {
        MillionPoints.each(
            f -> {
              try {
                row(p, f, layer, now, n[0]++);
                if (n[0] % BATCH == 0) p.executeBatch();
                if (n[0] % COMMIT == 0) c.commit();
              } catch (java.sql.SQLException e) {
                throw new IllegalStateException(e);
              }
            });
        p.executeBatch();
      }
      c.commit();
      double seconds = (System.nanoTime() - t) / 1e9;
      s.execute("SHUTDOWN");
      return seconds;
    }
  }

  private static void row(PreparedStatement p, Feature f, UUID layer, Timestamp now, int place)
      throws java.sql.SQLException {
    p.setObject(1, UUID.fromString(f.id()));
    p.setObject(2, layer);
    p.setObject(3, f.geometry().orElseThrow());
    p.setString(4, MillionPoints.SCHEMA.writeValues(f.values()).toString());
    p.setLong(5, 1);
    p.setTimestamp(6, now);
    p.setString(7, "coordinator");
    p.setObject(8, layer);
    p.setInt(9, place);
    p.setBoolean(10, false);
    p.addBatch();
  }

  private static Process start(Path folder, Path data, Path jar) throws IOException {
    return new ProcessBuilder(
            "java",
            "-Xmx768m",
            "-jar",
            jar.toString(),
            "--spring.profiles.active=demo",
            "--server.port=" + PORT,
            "--whinridge.data=" + data)
        .redirectErrorStream(true)
        .redirectOutput(folder.resolve("server.log").toFile())
        .start();
  }

  static double[] server(Path folder, Path file, Path jar, Then then) throws Exception {
    Path data = folder.resolve("server-" + UUID.randomUUID());
    Process p = start(folder, data, jar);
    try {
      Client c = new Client("http://localhost:" + PORT);
      c.signIn();
      double[] times = c.bringIn(file, "Million");
      then.at("http://localhost:" + PORT);
      return times;
    } finally {
      p.destroy();
      p.waitFor();
      org.h2.store.fs.FileUtils.deleteRecursive(data.toString(), true);
    }
  }

  /** A demo server that has started, with nothing brought in. */
  static void demo(Path folder, Path jar, Then then) throws Exception {
    Path data = folder.resolve("server-" + UUID.randomUUID());
    Process p = start(folder, data, jar);
    try {
      new Client("http://localhost:" + PORT).signIn();
      then.at("http://localhost:" + PORT);
    } finally {
      p.destroy();
      p.waitFor();
      org.h2.store.fs.FileUtils.deleteRecursive(data.toString(), true);
    }
  }

  /** What a person's browser sends. */
  private static final class Client {
    private final String base;
    private final HttpClient http =
        HttpClient.newBuilder()
            .cookieHandler(new CookieManager())
            .followRedirects(HttpClient.Redirect.NORMAL)
            .build();

    Client(String base) {
      this.base = base;
    }

    /**
     * Seconds until the tile of the whole world, and then one of the middle of the layer, are here.
     */
    double firstMap(String layer) throws Exception {
      String page =
          send(
              HttpRequest.newBuilder(URI.create(base + "/p/ostrey/layers"))
                  .header("Accept", "text/html")
                  .GET());
      String id = find(page, "layers/([0-9a-f-]{36})\"[^>]*>" + layer);
      long t = System.nanoTime();
      for (String tile : new String[] {"0/0/0", "10/482/309"})
        send(request("/api/p/ostrey/layers/" + id + "/tiles/" + tile + "?v=1", token).GET());
      return seconds(t);
    }

    double[] bringIn(Path file, String name) throws Exception {
      JsonObject lot =
          Json.parse(
                  send(
                      request("/api/p/ostrey/bring-in", token)
                          .POST(HttpRequest.BodyPublishers.noBody())))
              .asObject();
      String id = lot.getString("id", "");
      long t = System.nanoTime();
      upload(id, file, token);
      double upload = seconds(t);
      t = System.nanoTime();
      send(
          request("/api/p/ostrey/bring-in/" + id + "/look", token)
              .POST(HttpRequest.BodyPublishers.noBody()));
      await(id, token, "found");
      double report = seconds(t);
      t = System.nanoTime();
      String form =
          "take_0=on&name_0="
              + URLEncoder.encode(name, StandardCharsets.UTF_8)
              + "&system_0="
              + URLEncoder.encode("EPSG:4326", StandardCharsets.UTF_8);
      send(
          request("/api/p/ostrey/bring-in/" + id + "/decide", token)
              .header("Content-Type", "application/x-www-form-urlencoded")
              .POST(HttpRequest.BodyPublishers.ofString(form)));
      await(id, token, "done");
      return new double[] {upload, report, seconds(t)};
    }

    private static double seconds(long since) {
      return (System.nanoTime() - since) / 1e9;
    }

    private HttpRequest.Builder request(String path, String token) {
      return HttpRequest.newBuilder(URI.create(base + path))
          .header("X-CSRF-TOKEN", token)
          .header("Accept", "application/json");
    }

    private String send(HttpRequest.Builder b) throws IOException, InterruptedException {
      HttpResponse<String> r = http.send(b.build(), HttpResponse.BodyHandlers.ofString());
      if (r.statusCode() >= 400) throw new IOException(r.statusCode() + ": " + r.body());
      return r.body();
    }

    private String token;

    void signIn() throws Exception {
      for (int i = 0; i < 240; i++)
        try {
          String page = send(HttpRequest.newBuilder(URI.create(base + "/sign-in")).GET());
          String sent = find(page, "name=\"_csrf\"[^>]*value=\"([^\"]+)\"");
          send(
              HttpRequest.newBuilder(URI.create(base + "/sign-in"))
                  .header("Content-Type", "application/x-www-form-urlencoded")
                  .header("Accept", "text/html")
                  .POST(
                      HttpRequest.BodyPublishers.ofString(
                          "username=coordinator&password=ostrey&_csrf="
                              + URLEncoder.encode(sent, StandardCharsets.UTF_8))));
          String desk =
              send(
                  HttpRequest.newBuilder(URI.create(base + "/p/ostrey/layers"))
                      .header("Accept", "text/html")
                      .GET());
          token = find(desk, "csrf-token\" content=\"([^\"]+)\"");
          return;
        } catch (java.net.ConnectException e) {
          Thread.sleep(500);
        }
      throw new IOException("the server does not start");
    }

    private static String find(String page, String regex) throws IOException {
      Matcher m = Pattern.compile(regex).matcher(page);
      if (!m.find()) throw new IOException("not on the page: " + regex);
      return m.group(1);
    }

    private void upload(String lot, Path file, String token) throws Exception {
      String metadata = "lot " + base64(lot) + ",name " + base64("million.gpkg");
      HttpRequest create =
          request("/api/p/ostrey/bring-in/uploads", token)
              .header("Tus-Resumable", "1.0.0")
              .header("Upload-Length", String.valueOf(Files.size(file)))
              .header("Upload-Metadata", metadata)
              .POST(HttpRequest.BodyPublishers.noBody())
              .build();
      String place =
          http.send(create, HttpResponse.BodyHandlers.discarding())
              .headers()
              .firstValue("Location")
              .orElseThrow();
      byte[] buffer = new byte[8 << 20];
      long at = 0;
      try (InputStream in = Files.newInputStream(file)) {
        for (int n = in.readNBytes(buffer, 0, buffer.length);
            n > 0;
            n = in.readNBytes(buffer, 0, buffer.length)) {
          send(
              request(place, token)
                  .header("Tus-Resumable", "1.0.0")
                  .header("Upload-Offset", String.valueOf(at))
                  .header("Content-Type", "application/offset+octet-stream")
                  .method("PATCH", HttpRequest.BodyPublishers.ofByteArray(buffer, 0, n)));
          at += n;
        }
      }
    }

    private static String base64(String s) {
      return java.util.Base64.getEncoder().encodeToString(s.getBytes(StandardCharsets.UTF_8));
    }

    private void await(String id, String token, String stage) throws Exception {
      while (true) {
        JsonObject s =
            Json.parse(send(request("/api/p/ostrey/bring-in/" + id + "/state", token).GET()))
                .asObject();
        if (s.getString("stage", "").equals(stage)) return;
        if (!s.getString("stage", "").equals("running")) throw new IOException("ended as " + s);
        Thread.sleep(100);
      }
    }
  }
}
