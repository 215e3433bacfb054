package org.whinridge.app.ops;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;

/** How much room the disk has, and a warning before it is full. */
@Component
class DiskRoom {
  private static final Logger LOG = LoggerFactory.getLogger(DiskRoom.class);

  /** Below so many bytes a warning is due: a large import or a day of photos may not fit. */
  static final long LOW = 2_000_000_000L;

  /** Below so many nothing is kept safely any more. */
  static final long TOO_LOW = 200_000_000L;

  private final Path folder;

  DiskRoom(DataFolder data) {
    this.folder = data.folder("");
  }

  /** Bytes that are free and in all. */
  record Room(long free, long all) {
    /** Whether somebody should make room. */
    public boolean low() {
      return free < LOW;
    }

    /** Whether what is acknowledged might not be kept. */
    boolean tooLow() {
      return free < TOO_LOW;
    }
  }

  Room now() throws IOException {
    var store = Files.getFileStore(folder);
    return new Room(store.getUsableSpace(), store.getTotalSpace());
  }

  @Scheduled(initialDelay = 60_000, fixedDelay = 600_000)
  void look() throws IOException {
    Room r = now();
    if (r.low())
      LOG.warn(
          "the disk of the data folder has {} MB left; make room before it is full",
          r.free() / 1_000_000);
  }
}
