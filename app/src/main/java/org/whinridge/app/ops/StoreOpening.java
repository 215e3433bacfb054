package org.whinridge.app.ops;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.h2.api.ErrorCode;
import org.springframework.boot.context.event.ApplicationEnvironmentPreparedEvent;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.ApplicationEvent;
import org.springframework.context.ApplicationListener;
import org.springframework.core.env.Environment;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.shell.Durable;

/**
 * Looks at the store before anything else starts. One that can't be opened is put aside and never
 * written again; what to do then is said in words: which sound copy is the newest, and the command
 * that goes back to it. Goes back when told to.
 */
public final class StoreOpening implements ApplicationListener<ApplicationEvent> {
  /** The process ends with this when the store can't be opened. */
  public static final int NOT_OPENED = 3;

  private static final String BROKEN = "broken";
  private static final String NOTE = "store-is-broken";

  /** Reasons that lie beside the store: it stays where it is. */
  private static final Set<Integer> NOT_ITS_FAULT =
      Set.of(
          ErrorCode.DATABASE_ALREADY_OPEN_1,
          ErrorCode.WRONG_USER_OR_PASSWORD,
          ErrorCode.IO_EXCEPTION_1,
          ErrorCode.IO_EXCEPTION_2,
          ErrorCode.OUT_OF_MEMORY);

  /** Names the copy to go back to at the next start. */
  private static final String ASKED = "back-to-asked";

  private static boolean goneBack;
  private Connection held;

  /** It is not to be started on; the message says why and what to do. */
  static final class NotOpened extends Exception {
    private static final long serialVersionUID = 1;

    NotOpened(String message) {
      super(message);
    }
  }

  @Override
  public void onApplicationEvent(ApplicationEvent e) {
    if (e instanceof ApplicationEnvironmentPreparedEvent p) open(p.getEnvironment());
    else if (e instanceof ApplicationReadyEvent) release();
  }

  private void open(Environment environment) {
    Path data =
        Path.of(environment.getRequiredProperty("whinridge.data")).toAbsolutePath().normalize();
    String back = environment.getProperty("whinridge.back-to", "");
    try {
      if (!asked(data, System.out) && !back.isEmpty() && !goneBack) goBack(data, back, System.out);
      goneBack = true; // the option holds for the first start of the process alone
      held = open(data, environment.getRequiredProperty("spring.datasource.url"));
    } catch (NotOpened x) {
      System.err.println("\n" + x.getMessage() + "\n");
      System.exit(NOT_OPENED);
    } catch (IOException x) {
      System.err.println("\nThe data folder can't be used: " + x.getMessage() + "\n");
      System.exit(NOT_OPENED);
    }
  }

  /** Leaves a note that names the copy to go back to at the next start. */
  static void ask(Path data, String copy) throws IOException {
    Path part = Files.writeString(data.resolve(ASKED + ".part"), copy);
    Durable.sync(part, StandardOpenOption.WRITE);
    Files.move(part, data.resolve(ASKED), StandardCopyOption.ATOMIC_MOVE);
    Durable.sync(data, StandardOpenOption.READ);
  }

  /**
   * Goes back when a note asks for it. When that can't be done the store stays as it was, and the
   * start goes on with it.
   *
   * @return whether there was a note
   */
  static boolean asked(Path data, PrintStream told) throws IOException {
    Path note = data.resolve(ASKED);
    if (!Files.exists(note)) return false;
    String copy = Files.readString(note).strip();
    try {
      goBack(data, copy, told);
    } catch (NotOpened | IOException e) {
      told.println("The store stays as it was, since going back failed: " + e.getMessage());
    }
    Files.delete(note); // last, so that a start that was killed goes back again
    return true;
  }

  /** The store stays open until the application has it open itself, so that it is opened once. */
  private void release() {
    try {
      if (held != null) held.close();
    } catch (SQLException e) {
      throw new IllegalStateException("the first connection can't be given back", e);
    }
  }

  /**
   * Opens the store.
   *
   * @return a connection that keeps it open; null when there is none yet
   */
  static Connection open(Path data, String url) throws NotOpened, IOException {
    Path store = data.resolve(StoreCopier.FILE);
    if (Files.exists(data.resolve(NOTE)) && !Files.exists(store))
      throw new NotOpened(Files.readString(data.resolve(NOTE)));
    if (!Files.exists(store)) return null;
    try {
      return DriverManager.getConnection(url + ";IFEXISTS=TRUE", "whinridge", "");
    } catch (SQLException e) {
      if (NOT_ITS_FAULT.contains(e.getErrorCode()))
        throw new NotOpened(
            "The store in "
                + data
                + " can't be opened now: "
                + e.getMessage()
                + ".\nNothing was changed. If another server runs on it, end that one first.");
      throw aside(data, store, e);
    }
  }

  private static NotOpened aside(Path data, Path store, SQLException why) throws IOException {
    Path folder = Files.createDirectories(data.resolve(BROKEN));
    Path kept = folder.resolve(StoreCopier.STORE + "-" + stamp() + ".mv.db");
    Files.move(store, kept, StandardCopyOption.ATOMIC_MOVE);
    Optional<StoreCopier.Copy> newest =
        new StoreCopier(data.resolve("copies")).all().stream().findFirst();
    String words =
        "The store can't be opened: "
            + why.getMessage()
            + ".\nIt is kept aside as "
            + kept
            + " and was not changed.\n"
            + newest
                .map(
                    c ->
                        "The newest sound copy holds everything up to "
                            + c.upTo()
                            + ". To go back to it:\n\n  ./run --back-to "
                            + c.name()
                            + "\n\n(with the jar alone: --whinridge.back-to="
                            + c.name()
                            + ")\nWhat was written at the desk after that moment is not in it; devices still keep what they handed in since, and offer it again.")
                .orElse(
                    "There is no copy of it yet. To begin with an empty store, remove "
                        + data.resolve(NOTE)
                        + ".");
    Files.writeString(data.resolve(NOTE), words);
    return new NotOpened(words);
  }

  private static String stamp() {
    return Instant.now().toString().replaceAll("[:.]", "-");
  }

  /** Puts a copy in the store's place; what stands there now is kept aside. */
  static void goBack(Path data, String name, PrintStream told) throws NotOpened, IOException {
    List<StoreCopier.Copy> all = new StoreCopier(data.resolve("copies")).all();
    StoreCopier.Copy copy =
        all.stream()
            .filter(c -> c.name().equals(name))
            .findFirst()
            .orElseThrow(
                () ->
                    new NotOpened(
                        "There is no copy called “"
                            + name
                            + "”. There are:\n"
                            + String.join("\n", all.stream().map(c -> "  " + c.name()).toList())));
    Path store = data.resolve(StoreCopier.FILE);
    if (Files.exists(store) && isInUse(store))
      throw new NotOpened("A server runs on this store. End it first; nothing was changed.");
    Path part = data.resolve(StoreCopier.STORE + ".part");
    StoreCopier.unpack(copy.file(), part);
    if (Files.exists(store)) {
      Path folder = Files.createDirectories(data.resolve(BROKEN));
      Files.move(store, folder.resolve(StoreCopier.STORE + "-" + stamp() + ".mv.db"));
    }
    Files.move(part, store, StandardCopyOption.ATOMIC_MOVE);
    Files.deleteIfExists(data.resolve(NOTE));
    // models are of the store that was left; one of the same revision could hold other values
    FileSystemUtils.deleteRecursively(data.resolve("models"));
    told.println(
        "Gone back to the copy of "
            + copy.upTo()
            + ". What stood there before is kept in "
            + data.resolve(BROKEN)
            + ".");
  }

  private static boolean isInUse(Path store) throws IOException {
    try (FileChannel c = FileChannel.open(store, StandardOpenOption.WRITE);
        FileLock lock = c.tryLock()) {
      return lock == null;
    } catch (OverlappingFileLockException e) {
      return true;
    }
  }
}
