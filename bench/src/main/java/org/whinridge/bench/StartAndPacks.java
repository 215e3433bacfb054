package org.whinridge.bench;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.UUID;

/**
 * From the start of the process to the first page, with the archive of classes that the build makes
 * and without; memory after it; thirty devices that take their round out at once, beside the same
 * one after the other. {@code bench/start} runs it.
 */
public final class StartAndPacks {
  private static final int PORT = 18_473;
  private static final int DEVICES = 30;
  private static final int RUNS = 3;

  private StartAndPacks() {}

  /** Arguments: a folder for files, and the folder of the unpacked server. */
  public static void main(String[] args) throws Exception {
    Path folder = Files.createDirectories(Path.of(args[0]));
    Path data = folder.resolve("start-" + UUID.randomUUID());
    Path server = Path.of(args[1]);
    try {
      Running first = start(folder, data, server, true);
      Thread.sleep(15_000); // the demo is made after the first page
      first.end();
      double plain = 0;
      double archived = 0;
      long memory = 0;
      for (int i = 0; i < RUNS; i++) {
        plain += start(folder, data, server, false).end() / RUNS;
        Running r = start(folder, data, server, true);
        memory = r.residentMb();
        archived += r.end() / RUNS;
      }
      System.out.printf(
          Locale.ROOT,
          "start to first page, store there: %.1f s; without the archive of classes %.1f s; ratio %.2f; memory after it %d MB%n",
          archived,
          plain,
          archived / plain,
          memory);
      Running r = start(folder, data, server, true);
      Thread.sleep(3_000);
      try {
        new PacksAtOnce("http://localhost:" + PORT, "").measure(DEVICES);
      } finally {
        r.end();
      }
    } finally {
      org.h2.store.fs.FileUtils.deleteRecursive(data.toString(), true);
    }
  }

  private record Running(Process process, double seconds) {
    double end() throws InterruptedException {
      process.destroy();
      process.waitFor();
      return seconds;
    }

    long residentMb() throws IOException {
      for (String line : Files.readAllLines(Path.of("/proc/" + process.pid() + "/status")))
        if (line.startsWith("VmRSS:")) return Long.parseLong(line.replaceAll("[^0-9]", "")) >> 10;
      return -1;
    }
  }

  private static Running start(Path folder, Path data, Path server, boolean archive)
      throws Exception {
    List<String> command = new ArrayList<>();
    command.addAll(List.of("java", "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xmx768m"));
    if (archive) command.add("-XX:SharedArchiveFile=" + server.resolve("whinridge.jsa"));
    command.addAll(
        List.of(
            "-jar",
            server.resolve("whinridge.jar").toString(),
            "--spring.profiles.active=demo",
            "--server.port=" + PORT,
            "--whinridge.data=" + data));
    long t = System.nanoTime();
    Process p =
        new ProcessBuilder(command)
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("server.log").toFile())
            .start();
    HttpClient http = HttpClient.newHttpClient();
    while (true) {
      try {
        if (get(http, "/sign-in").statusCode() == 200)
          return new Running(p, (System.nanoTime() - t) / 1e9);
      } catch (IOException e) {
        if (!p.isAlive()) throw new IOException("the server ended, see server.log", e);
      }
      Thread.sleep(20);
    }
  }

  private static HttpResponse<String> get(HttpClient http, String path) throws Exception {
    return http.send(
        HttpRequest.newBuilder(URI.create("http://localhost:" + PORT + path)).build(),
        HttpResponse.BodyHandlers.ofString());
  }
}
