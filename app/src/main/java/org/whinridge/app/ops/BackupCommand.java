package org.whinridge.app.ops;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import org.h2.jdbcx.JdbcDataSource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.util.FileSystemUtils;

/** {@code backup FILE DATA} and {@code restore FILE DATA}, without starting the application. */
public final class BackupCommand {
  private static final Duration PATIENCE = Duration.ofHours(2);
  private static final Duration NOTICED = Duration.ofSeconds(30);
  private static final int LOOK_MS = 300;

  private BackupCommand() {}

  /** Whether these arguments ask for one of the two. */
  public static boolean isOne(String... args) {
    return args.length == 3 && (args[0].equals("backup") || args[0].equals("restore"));
  }

  /**
   * Carries it out and says what came of it.
   *
   * @return the process's end: 0 when it was done
   */
  public static int run(PrintStream out, String... args) {
    Path file = Path.of(args[1]).toAbsolutePath();
    Path data = Path.of(args[2]).toAbsolutePath().normalize();
    try {
      out.println(args[0].equals("backup") ? backup(file, data) : restore(file, data));
      return 0;
    } catch (IOException e) {
      out.println(
          (args[0].equals("backup") ? "No backup was made: " : "Nothing was restored: ")
              + BackupFile.why(e));
      return 1;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return 1;
    }
  }

  private static String said(String what, Path file, BackupFile.Result r) {
    return what
        + " "
        + file
        + ": "
        + r.files()
        + " files, "
        + r.bytes()
        + " bytes, of "
        + r.madeAt()
        + ".";
  }

  private static String restore(Path file, Path data) throws IOException {
    if (!Files.isRegularFile(file)) throw new BackupFile.Unsound("there is no file " + file + ".");
    return said("Restored", file, BackupFile.read(file, data, newest()))
        + " All hashes are as they were. Start the server to go on.";
  }

  /** The newest migration that this version has. */
  static int newest() throws IOException {
    int out = 0;
    for (var r :
        new PathMatchingResourcePatternResolver().getResources("classpath*:db/migration/V*.sql"))
      out =
          Math.max(
              out,
              Integer.parseInt(String.valueOf(r.getFilename()).replaceAll("^V(\\d+)__.*", "$1")));
    return out;
  }

  private static String backup(Path file, Path data) throws IOException, InterruptedException {
    Path store = data.resolve(StoreCopier.FILE);
    if (!Files.exists(store)) throw new BackupFile.Unsound("there is no store in " + data + ".");
    if (Files.exists(file)) throw new BackupFile.Unsound(file + " is there already.");
    if (runs(store)) return asked(file, data);
    JdbcDataSource source = new JdbcDataSource();
    source.setURL("jdbc:h2:file:" + data.resolve(StoreCopier.STORE) + ";IFEXISTS=TRUE");
    source.setUser("whinridge");
    source.setPassword("");
    Path beside = Files.createTempDirectory(data, "copy");
    try {
      StoreCopier.Copy copy = new StoreCopier(beside).make(source, Instant.now());
      return said("Written", file, BackupFile.write(data, copy.file(), file, Instant.now()));
    } finally {
      FileSystemUtils.deleteRecursively(beside);
    }
  }

  private static boolean runs(Path store) throws IOException {
    try (FileChannel c = FileChannel.open(store, StandardOpenOption.WRITE);
        FileLock lock = c.tryLock()) {
      return lock == null;
    }
  }

  /** The running server is asked, and its answer waited for. */
  private static String asked(Path file, Path data) throws IOException, InterruptedException {
    Path answer = data.resolve(Backups.ANSWERED);
    Files.deleteIfExists(answer);
    Path note = Files.writeString(data.resolve(Backups.ASKED), file.toString());
    Instant began = Instant.now();
    while (!Files.exists(answer)) {
      Duration waited = Duration.between(began, Instant.now());
      if (waited.compareTo(NOTICED) > 0 && Files.deleteIfExists(note))
        throw new IOException("the server that runs on " + data + " does not answer.");
      if (waited.compareTo(PATIENCE) > 0)
        throw new IOException("the server takes longer than " + PATIENCE.toHours() + " hours.");
      Thread.sleep(LOOK_MS);
    }
    String said = Files.readString(answer);
    Files.delete(answer);
    if (!said.startsWith("done ")) throw new IOException(said.replaceFirst("^failed ", ""));
    return "Written " + file + ": " + said.substring("done ".length()) + ".";
  }
}
