package org.whinridge.app.bringin;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Durable;
import org.whinridge.app.shell.Jobs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.formats.Sources;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.source.TableReading;

/**
 * Files that were uploaded and wait to be imported: one folder for each lot, dropped after a day.
 * Names of files are kept beside them and never become paths.
 */
@Component
class Incoming {
  private static final Logger LOG = LoggerFactory.getLogger(Incoming.class);
  private static final Duration KEPT = Duration.ofHours(24);
  private static final int MOST_FILES = 5_000;
  private final Path folder;
  private final long limit;

  Incoming(DataFolder data, @Value("${whinridge.bring-in-limit}") long limit) {
    this.folder = data.folder("incoming");
    this.limit = limit;
  }

  /** The most bytes of a lot. */
  long limit() {
    return limit;
  }

  /** Begins a lot for a project. */
  UUID begin(UUID project, String person) throws IOException {
    UUID id = UUID.randomUUID();
    Path home = Files.createDirectories(folder.resolve(id.toString()));
    Files.createDirectory(home.resolve("files"));
    Files.writeString(home.resolve("names"), "");
    Files.writeString(home.resolve("owner"), project + "\n" + person);
    return id;
  }

  /** Whether a lot is still here. */
  boolean isThere(UUID id) {
    return Files.exists(folder.resolve(id.toString()));
  }

  /** The folder of a lot of this project. */
  Path home(UUID project, UUID id) {
    Path home = folder.resolve(id.toString());
    try {
      if (Files.exists(home.resolve("owner"))
          && Files.readString(home.resolve("owner")).startsWith(project.toString())) return home;
    } catch (IOException e) {
      LOG.warn("the lot {} can't be read", id, e);
    }
    throw Refusal.notFound("thing.fileWaitingToBe");
  }

  /** Adds an uploaded file to a lot; added again under the same id it stays one. */
  void add(Path home, String name, UUID upload, Path file) throws IOException {
    Path to = home.resolve("files").resolve(upload.toString());
    for (Sources.Brought b : files(home)) if (b.file().equals(to)) return;
    if (!Files.exists(to)) room(home, Files.size(file));
    Durable.keep(file, to);
    named(home, to, name);
  }

  /** Adds a file to a lot out of a stream. */
  void add(Path home, String name, InputStream in) throws IOException {
    Path to = room(home, 0);
    Files.copy(in, to);
    named(home, to, name);
  }

  private Path room(Path home, long more) throws IOException {
    List<Sources.Brought> there = files(home);
    if (there.size() >= MOST_FILES) throw Refusal.refused("refused.atMostFilesCan");
    long bytes = more;
    for (Sources.Brought b : there) bytes += Files.size(b.file());
    if (bytes > limit) throw Refusal.refused("refused.filesHaveMoreThan", "mb", limit / 1_000_000);
    return home.resolve("files").resolve(UUID.randomUUID().toString());
  }

  private synchronized void named(Path home, Path file, String name) throws IOException {
    String line = file.getFileName() + "\t" + relative(name) + "\n";
    Files.writeString(
        home.resolve("names"), line, StandardCharsets.UTF_8, StandardOpenOption.APPEND);
  }

  /** A name with the folders it came from, for telling apart; at most 300 characters. */
  private static String relative(String name) {
    String s = name == null ? "" : name.replaceAll("\\p{Cntrl}", "").replace('\\', '/');
    s = s.substring(Math.max(0, s.length() - 300));
    return s.isBlank() || s.endsWith("/") ? FileNames.shown(s) : s;
  }

  /** How much there is to read: 20 MB or more are large. */
  Jobs.Size size(Path home) throws IOException {
    long bytes = 0;
    for (Sources.Brought b : files(home)) bytes += Files.size(b.file());
    return bytes < 20_000_000 ? Jobs.Size.SMALL : Jobs.Size.LARGE;
  }

  /** The files of a lot, in the order in which they came. */
  List<Sources.Brought> files(Path home) throws IOException {
    List<Sources.Brought> out = new ArrayList<>();
    for (String line : Files.readAllLines(home.resolve("names"))) {
      String[] p = line.split("\t", 2);
      if (p.length == 2) out.add(new Sources.Brought(p[1], home.resolve("files").resolve(p[0])));
    }
    out.sort(Comparator.comparing(Sources.Brought::name));
    return out;
  }

  /** An empty folder for what is unpacked. */
  Path scratch(Path home) throws IOException {
    Path s = home.resolve("unpacked");
    FileSystemUtils.deleteRecursively(s);
    return Files.createDirectory(s);
  }

  /** What is known of a lot beside its files: "importing" while it is being imported. */
  void mark(Path home, String state) throws IOException {
    Files.writeString(home.resolve("state"), state);
  }

  String marked(Path home) throws IOException {
    Path p = home.resolve("state");
    return Files.exists(p) ? Files.readString(p) : "";
  }

  /** Keeps how a table is to be read. */
  synchronized void readAs(Path home, String name, TableReading how) throws IOException {
    Map<String, TableReading> all = new LinkedHashMap<>(tables(home));
    all.put(name, how);
    StringBuilder b = new StringBuilder();
    all.forEach(
        (n, r) ->
            b.append(r.namesRow().orElse(-1))
                .append('\t')
                .append(r.literalQuotes())
                .append('\t')
                .append(n)
                .append('\n'));
    Files.writeString(home.resolve("tables"), b);
  }

  /** How tables are to be read, by the names of their files. */
  Map<String, TableReading> tables(Path home) throws IOException {
    Map<String, TableReading> out = new LinkedHashMap<>();
    if (!Files.exists(home.resolve("tables"))) return out;
    for (String line : Files.readAllLines(home.resolve("tables"))) {
      String[] p = line.split("\t", 3);
      int row = Integer.parseInt(p[0]);
      out.put(
          p[2],
          new TableReading(
              row < 0 ? OptionalInt.empty() : OptionalInt.of(row), Boolean.parseBoolean(p[1])));
    }
    return out;
  }

  /** Drops the files of a lot; what became of it stays to be read for a day. */
  void dropFiles(Path home) throws IOException {
    FileSystemUtils.deleteRecursively(home.resolve("files"));
    FileSystemUtils.deleteRecursively(home.resolve("unpacked"));
    Files.deleteIfExists(home.resolve("names"));
  }

  /** Drops a lot. */
  void drop(Path home) throws IOException {
    FileSystemUtils.deleteRecursively(home);
  }

  /** Drops lots that nobody imported within a day. */
  @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
  void sweep() throws IOException {
    try (Stream<Path> all = Files.list(folder)) {
      for (Path p : all.toList())
        if (Files.getLastModifiedTime(p).toInstant().isBefore(Instant.now().minus(KEPT))) {
          FileSystemUtils.deleteRecursively(p);
          LOG.info("dropped files that were never imported: {}", p.getFileName());
        }
    }
  }
}
