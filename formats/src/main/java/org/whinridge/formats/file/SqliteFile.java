package org.whinridge.formats.file;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.sqlite.ProgressHandler;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteOpenMode;
import org.whinridge.core.said.Said;

/**
 * A SQLite file from outside: opened for reading only, its own statements (views, triggers) bounded
 * in time, since they may never end.
 */
public final class SqliteFile {
  /** A query that gives no row for so long is given up. */
  public static final long PATIENCE_S = Long.getLong("whinridge.patience-s", 60);

  private static final int INSTRUCTIONS = 50_000;
  private final Path file;

  /** The file, not opened yet. */
  public SqliteFile(Path file) {
    this.file = file;
  }

  /** A connection that is watched. */
  public static final class Watched implements AutoCloseable {
    /** The open file. */
    public final Connection db;

    private volatile long since = System.nanoTime();
    private volatile boolean gaveUp;

    private Watched(Connection db, BooleanSupplier isOver) throws SQLException {
      this.db = db;
      ProgressHandler.setHandler(
          db,
          INSTRUCTIONS,
          new ProgressHandler() {
            @Override
            protected int progress() {
              gaveUp = System.nanoTime() - since > TimeUnit.SECONDS.toNanos(PATIENCE_S);
              return gaveUp || isOver.getAsBoolean() ? 1 : 0;
            }
          });
    }

    /** A row came: the waiting begins anew. */
    public void row() {
      since = System.nanoTime();
    }

    /** Whether it was given up for giving nothing. */
    public boolean gaveUp() {
      return gaveUp;
    }

    @Override
    public void close() throws SQLException {
      ProgressHandler.clearHandler(db);
      db.close();
    }
  }

  /** Opens the file; {@code isOver} is asked again and again whether to stop. */
  public Watched open(BooleanSupplier isOver) throws SQLException {
    SQLiteConfig c = new SQLiteConfig();
    c.setOpenMode(SQLiteOpenMode.READONLY);
    c.setReadOnly(true);
    return new Watched(
        c.createConnection("jdbc:sqlite:file:" + file.toAbsolutePath() + "?immutable=1"), isOver);
  }

  /** What is wrong with a file that can't be read, for people. */
  public static FileProblem problem(Said what, SQLException e) {
    String why = String.valueOf(e.getMessage());
    String key =
        why.contains("no such table: gpkg_")
            ? "file.sqliteNoContents"
            : why.contains("NOTADB") || why.contains("CORRUPT") || why.contains("IOERR")
                ? "file.sqliteDamaged"
                : "file.sqliteTables";
    return new FileProblem(key, "what", what).because(e);
  }
}
