package org.whinridge.app.ops;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.StoreCopies;

/** Copies the store by itself: every hour that had changes, and before each upgrade. */
@Component
class StoreKeeping implements StoreCopies {
  private static final Logger LOG = LoggerFactory.getLogger(StoreKeeping.class);
  private static final int KEPT = 6;

  /** Longer than any act takes from setting its moment to its commit. */
  private static final Duration COMMITTED_BY = Duration.ofSeconds(30);

  private final DataSource store;
  private final Path file;
  private final StoreCopier copier;
  private final AtomicReference<Optional<Instant>> upTo = new AtomicReference<>();
  private final AtomicReference<Instant> lastCopied = new AtomicReference<>();

  StoreKeeping(DataSource store, DataFolder data) throws IOException {
    this.store = store;
    this.copier = new StoreCopier(data.folder("copies"));
    this.file = data.folder("").resolve(StoreCopier.FILE);
    upTo.set(copier.all().stream().findFirst().map(StoreCopier.Copy::upTo));
    lastCopied.set(upTo.get().orElse(Instant.EPOCH));
  }

  @Override
  public Optional<Instant> heldUpTo() {
    return upTo.get();
  }

  @Scheduled(initialDelay = 300_000, fixedDelay = 3_600_000)
  void hourly() throws IOException {
    if (changedSince()) copy();
  }

  private boolean changedSince() throws IOException {
    return Files.exists(file)
        && lastCopied.get().isBefore(Files.getLastModifiedTime(file).toInstant());
  }

  /**
   * Copies the store now; a copy that can't be made is told in the log, and the older ones stay.
   *
   * @return whether it was made
   */
  boolean copy() {
    return copy(KEPT);
  }

  /** As {@link #copy()}, and no older copy is taken away for it. */
  boolean copyKeepingAll() {
    return copy(Integer.MAX_VALUE);
  }

  private synchronized boolean copy(int kept) {
    // a row has its moment before its commit: what is younger than this may not be in the copy
    Instant sure = Layers.now().minus(COMMITTED_BY);
    try {
      StoreCopier.Copy c = copier.make(store, sure);
      upTo.set(Optional.of(c.upTo()));
      lastCopied.set(Layers.now());
      copier.keepNewest(kept);
      LOG.info("the store is copied: {}, {} bytes", c.name(), Files.size(c.file()));
      return true;
    } catch (IOException e) {
      LOG.error(
          "the store could not be copied: {}. What was copied before stays; devices keep what was handed in since",
          e.getMessage(),
          e);
      return false;
    }
  }

  /** A copy as it is listed. */
  record Listed(String name, Instant upTo, long bytes) {}

  /** The copies that there are, the newest first. */
  List<Listed> copies() throws IOException {
    List<Listed> out = new ArrayList<>();
    for (StoreCopier.Copy c : copier.all())
      out.add(new Listed(c.name(), c.upTo(), Files.size(c.file())));
    return out;
  }

  /** Before the tables of a store that is there are changed, it is copied. */
  @Configuration(proxyBeanMethods = false)
  static class BeforeUpgrades {
    @Bean
    FlywayMigrationStrategy copyFirst(DataFolder data) {
      return flyway -> {
        boolean there = flyway.info().current() != null;
        if (there && flyway.info().pending().length > 0)
          try {
            StoreCopier.Copy c =
                new StoreCopier(data.folder("copies"))
                    .make(flyway.getConfiguration().getDataSource(), Layers.now());
            LOG.info("the store is copied before its upgrade: {}", c.name());
          } catch (IOException e) {
            throw new IllegalStateException(
                "The store is not upgraded, since it could not be copied first: "
                    + e.getMessage()
                    + ". Free some room and start again; nothing was changed.",
                e);
          }
        flyway.migrate();
      };
    }
  }
}
