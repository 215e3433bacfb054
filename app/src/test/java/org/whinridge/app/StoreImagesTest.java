package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The store as a kill at any moment would leave it: the process is stopped, its file copied, the
 * process goes on. Every image must open and give all its rows. 10 images here, as many as {@code
 * -Dwhinridge.images=200} says in a long run; with {@code -Dwhinridge.images.indexed} the spatial
 * index that the store had before version 4 is made again, which shows the fault.
 */
class StoreImagesTest {
  private static final int IMAGES = Integer.getInteger("whinridge.images", 10);

  /**
   * After so many images a new store is begun, so that a long run does not read ever larger ones.
   */
  private static final int EACH_STORE = 20;

  /** So many features are a store that was written to. */
  private static final int WRITTEN = 3_000;

  /** Growing beyond this while being written to means that nothing is given back (bytes). */
  private static final long MOST = 250_000_000;

  @TempDir Path tmp;
  private Process writer;

  @AfterEach
  void end() throws InterruptedException {
    if (writer != null) writer.destroyForcibly().waitFor();
  }

  private void anew() throws Exception {
    end();
    org.springframework.util.FileSystemUtils.deleteRecursively(tmp.resolve("data"));
    start();
  }

  private void start() throws Exception {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx768m",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty(
                    "surefire.test.class.path", System.getProperty("java.class.path")),
                "org.whinridge.app.daybook.StoreLoad",
                tmp.resolve("data").toString()));
    if (System.getProperty("whinridge.images.indexed") != null) command.add("indexed");
    Path log = tmp.resolve("writer.log");
    writer =
        new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log.toFile()).start();
    for (int i = 0; i < 600 && !Files.readString(log).contains("writing"); i++) {
      assertThat(writer.isAlive()).as(Files.readString(log)).isTrue();
      Thread.sleep(100);
    }
  }

  private void signal(String name) throws Exception {
    Process kill = new ProcessBuilder("kill", "-" + name, String.valueOf(writer.pid())).start();
    assertThat(kill.waitFor(10, TimeUnit.SECONDS)).isTrue();
  }

  @Test
  void everyImageOfTheRunningStoreOpens() throws Exception {
    Random r = new Random(20260504);
    Path store = tmp.resolve("data/whinridge.mv.db");
    List<String> broken = new ArrayList<>();
    long features = 0;
    int images = 0;
    // on a slow machine more images are taken, until the last store was truly written to
    for (; images < IMAGES || features <= WRITTEN && images < 20 * IMAGES; images++) {
      if (images < IMAGES && images % EACH_STORE == 0) anew();
      Thread.sleep(200 + r.nextInt(600));
      signal("STOP");
      Path image = tmp.resolve("image.mv.db");
      Files.copy(store, image);
      signal("CONT");
      assertThat(writer.isAlive()).as(Files.readString(tmp.resolve("writer.log"))).isTrue();
      try {
        features = Math.max(features, read(tmp.resolve("image")));
      } catch (IOException e) {
        broken.add("image " + images + ": " + causes(e));
      }
      Files.deleteIfExists(image);
    }
    System.out.printf(
        "%d images, %d can't be opened, %d features in the last, %d MB%n",
        images, broken.size(), features, Files.size(store) >> 20);
    assertThat(broken).isEmpty();
    assertThat(features).as("it was written to").isGreaterThan(WRITTEN);
    // written to all the while: room that is not given back is more with each second, not less
    long most = MOST + 500 * features;
    for (int i = 0; i < 100 && Files.size(store) >= most; i++) Thread.sleep(200);
    assertThat(Files.size(store)).isLessThan(most);
  }

  private static String causes(Throwable t) {
    StringBuilder b = new StringBuilder();
    for (Throwable c = t; c != null; c = c.getCause()) {
      b.append(b.length() == 0 ? "" : ", since ").append(c);
      if (c.getCause() == null && c.getStackTrace().length > 0)
        b.append(" at ").append(c.getStackTrace()[0]);
    }
    return b.toString();
  }

  private static long read(Path store) throws IOException {
    try (Connection c =
            DriverManager.getConnection(
                "jdbc:h2:file:" + store + ";IFEXISTS=TRUE", "whinridge", "");
        Statement s = c.createStatement()) {
      long n = 0;
      try (ResultSet all = s.executeQuery("select geom, attrs from feature")) {
        while (all.next()) {
          assertThat(all.getObject(2)).isNotNull();
          all.getObject(1);
          n++;
        }
      }
      for (String t : List.of("visit", "hand_in", "ledger_entry", "stop"))
        s.executeQuery("select count(*) from " + t).close();
      return n;
    } catch (java.sql.SQLException e) {
      throw new IOException(e.getMessage(), e);
    }
  }
}
