package org.whinridge.app.shell;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/** Files that must be there after a power cut. */
public final class Durable {
  private Durable() {}

  /**
   * Gives a file a second name, or a copy where the file system has no links; the first name stays,
   * so that the step can be done again. It is synced to disk before this returns. What stands under
   * the second name already is left as it is.
   */
  public static void keep(Path from, Path to) throws IOException {
    Files.createDirectories(to.getParent());
    sync(from, StandardOpenOption.WRITE);
    if (!Files.exists(to))
      try {
        Files.createLink(to, from);
      } catch (FileAlreadyExistsException e) {
        // somebody else was quicker with the same content
      } catch (UnsupportedOperationException | IOException e) {
        copy(from, to);
      }
    sync(to.getParent(), StandardOpenOption.READ);
  }

  private static void copy(Path from, Path to) throws IOException {
    Path part = Files.createTempFile(to.getParent(), "part", "");
    try {
      Files.copy(from, part, StandardCopyOption.REPLACE_EXISTING);
      sync(part, StandardOpenOption.WRITE);
      Files.move(part, to, StandardCopyOption.ATOMIC_MOVE);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  /** Syncs a file, or the names in a folder, to disk. */
  public static void sync(Path path, StandardOpenOption how) throws IOException {
    try (FileChannel c = FileChannel.open(path, how)) {
      c.force(true);
    }
  }
}
