package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;

/** A demo server in a process of its own, which can be killed and started again on its data. */
public final class ServerProcess {
  private final Path folder;
  private Process process;
  private int port;

  /** A server whose data and log lie in a folder. */
  public ServerProcess(Path folder) {
    this.folder = folder;
  }

  /** Starts it, on another port each time; gives the port. */
  public int start() throws Exception {
    return start("org.whinridge.app.WhinridgeApplication");
  }

  /** Starts it by another main class. */
  public int start(String main) throws Exception {
    try (ServerSocket s = new ServerSocket(0)) {
      port = s.getLocalPort();
    }
    process =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty(
                    "surefire.test.class.path", System.getProperty("java.class.path")),
                main,
                "--spring.profiles.active=demo",
                "--server.port=" + port,
                "--whinridge.data=" + folder.resolve("data"))
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("server.log").toFile())
            .start();
    for (int i = 0; i < 720; i++) {
      try {
        if (HttpClient.newHttpClient()
                .send(
                    HttpRequest.newBuilder(at("/actuator/health")).build(),
                    HttpResponse.BodyHandlers.ofString())
                .statusCode()
            == 200) return port;
      } catch (IOException e) {
        assertThat(process.isAlive())
            .as("the server's log is %s", folder.resolve("server.log"))
            .isTrue();
      }
      Thread.sleep(250);
    }
    throw new AssertionError("the server did not start within 180 s");
  }

  /** An address of it. */
  public URI at(String path) {
    return URI.create("http://localhost:" + port + path);
  }

  /** SIGKILL; does not wait. */
  public void kill() {
    process.destroyForcibly();
  }

  /** Waits until it has ended; gives its exit code. */
  public int ended() throws InterruptedException {
    return process.waitFor();
  }
}
