package org.whinridge.app.ops;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.sql.DataSource;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.shell.Durable;

/**
 * Copies of the store in a folder: made while it runs (H2's own online backup), opened once to see
 * that they are sound, named after the moment up to which they hold everything.
 */
final class StoreCopier {
  /** The store's name, before H2's own endings. */
  static final String STORE = "whinridge";

  static final String FILE = STORE + ".mv.db";
  private static final String BEGINS = "store-";
  private static final String ENDS = ".zip";
  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmssSSS'Z'").withZone(ZoneOffset.UTC);
  private final Path folder;

  StoreCopier(Path folder) {
    this.folder = folder;
  }

  /** A sound copy. {@code upTo}: everything committed before is in it. */
  record Copy(Path file, Instant upTo) {
    String name() {
      return file.getFileName().toString();
    }
  }

  /**
   * Makes a copy and opens it; only then it has its name.
   *
   * @throws IOException when it can't be made, or can't be opened: nothing is left of it then
   */
  Copy make(DataSource store, Instant now) throws IOException {
    Files.createDirectories(folder);
    Path part = folder.resolve("copy.part");
    Files.deleteIfExists(part);
    try (Connection c = store.getConnection();
        Statement s = c.createStatement()) {
      s.execute("BACKUP TO '" + part.toString().replace("'", "''") + "'");
    } catch (SQLException e) {
      Files.deleteIfExists(part);
      throw new IOException("the copy can't be written: " + e.getMessage(), e);
    }
    try {
      Durable.sync(part, StandardOpenOption.WRITE);
      opens(part);
      Path named = folder.resolve(BEGINS + MOMENT.format(now) + ENDS);
      Files.move(part, named, StandardCopyOption.ATOMIC_MOVE);
      Durable.sync(folder, StandardOpenOption.READ);
      return new Copy(named, now);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  /** Unpacks a copy beside and asks it for its layers, its visits and its geometries. */
  private void opens(Path zip) throws IOException {
    Path beside = Files.createTempDirectory(folder, "looked-at");
    try {
      unpack(zip, beside.resolve(FILE));
      sound(beside.resolve(STORE));
    } finally {
      FileSystemUtils.deleteRecursively(beside);
    }
  }

  /** Opens a store's file read-only and reads in all that matters. */
  static void sound(Path store) throws IOException {
    String url = "jdbc:h2:file:" + store.toAbsolutePath() + ";IFEXISTS=TRUE;ACCESS_MODE_DATA=r";
    try (Connection c = DriverManager.getConnection(url, "whinridge", "");
        Statement s = c.createStatement()) {
      for (String table : List.of("layer", "visit", "ledger_entry", "hand_in"))
        s.executeQuery("select count(*) from " + table).close();
      try (ResultSet r = s.executeQuery("select geom from feature limit 1000")) {
        while (r.next()) r.getObject(1);
      }
    } catch (SQLException e) {
      throw new IOException("the copy can't be opened: " + e.getMessage(), e);
    }
  }

  /** Writes the store's file out of a copy. */
  static void unpack(Path zip, Path to) throws IOException {
    try (ZipInputStream in = new ZipInputStream(Files.newInputStream(zip))) {
      for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry())
        if (e.getName().endsWith(".mv.db")) {
          try (OutputStream out = Files.newOutputStream(to)) {
            ((InputStream) in).transferTo(out); // the zip's own checksum is looked at on the way
          }
          Durable.sync(to, StandardOpenOption.WRITE);
          return;
        }
    }
    throw new IOException(zip.getFileName() + " has no store in it");
  }

  /** The copies, newest first. */
  List<Copy> all() throws IOException {
    if (!Files.isDirectory(folder)) return List.of();
    try (var files = Files.list(folder)) {
      return files
          .flatMap(f -> moment(f).map(at -> new Copy(f, at)).stream())
          .sorted(Comparator.comparing(Copy::upTo).reversed())
          .toList();
    }
  }

  private static Optional<Instant> moment(Path file) {
    String name = file.getFileName().toString();
    if (!name.startsWith(BEGINS) || !name.endsWith(ENDS)) return Optional.empty();
    try {
      String at = name.substring(BEGINS.length(), name.length() - ENDS.length());
      return Optional.of(MOMENT.parse(at, Instant::from));
    } catch (DateTimeException e) {
      return Optional.empty();
    }
  }

  /** Keeps the newest few. */
  void keepNewest(int n) throws IOException {
    List<Copy> all = all();
    for (Copy c : all.subList(Math.min(n, all.size()), all.size())) Files.deleteIfExists(c.file());
  }
}
