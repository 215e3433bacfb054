package org.whinridge.app.ops;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import javax.sql.DataSource;
import org.h2.engine.SessionLocal;
import org.h2.jdbc.JdbcConnection;
import org.h2.mvstore.MVStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;

/**
 * Keeps the store's file from growing by what is dead in it. With WRITE_DELAY=0, which an
 * acknowledgement needs, H2 runs no thread of its own that would rewrite blocks of mostly dead
 * pages so that their space is used again; this does what that thread does, a little at a time and
 * from the first seconds on: 20 s of imports, moves and hand-ins are some 300 MB.
 */
@Component
class StoreRoom {
  private static final Logger LOG = LoggerFactory.getLogger(StoreRoom.class);

  /** A file below this is left alone, bytes. */
  private static final long SMALL = 64_000_000;

  /** The share of live pages, in per cent, below which blocks are rewritten. */
  private static final int LIVE = 50;

  private static final int AT_ONCE = 16_000_000;
  private static final long MOST_NANOS = 700_000_000;
  private final DataSource store;
  private final Path file;

  StoreRoom(DataSource store, DataFolder data) {
    this.store = store;
    this.file = data.folder("").resolve(StoreCopier.FILE);
  }

  @Scheduled(initialDelay = 2_000, fixedDelay = 2_000)
  void tidy() throws Exception {
    if (!Files.exists(file) || Files.size(file) < SMALL) return;
    try (Connection c = store.getConnection()) {
      if (!(c.unwrap(JdbcConnection.class).getSession() instanceof SessionLocal s)) return;
      MVStore pages = s.getDatabase().getStore().getMvStore();
      long until = System.nanoTime() + MOST_NANOS;
      int n = 0;
      while (System.nanoTime() < until && pages.compact(LIVE, AT_ONCE)) n++;
      if (n > 0) LOG.debug("rewrote {} times; the file has {} bytes", n, Files.size(file));
    }
  }
}
