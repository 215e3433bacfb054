package org.whinridge.app.shell;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** Where files lie beside the database. */
@Component
public class DataFolder {
  private final Path root;

  DataFolder(@Value("${whinridge.data}") String root) {
    this.root = Path.of(root).toAbsolutePath();
    ownersOnly();
  }

  /**
   * The store and its log are nobody else's to read; where a file system has no owners it is so.
   */
  private void ownersOnly() {
    try {
      Files.createDirectories(root);
      if (Files.getFileStore(root).supportsFileAttributeView(PosixFileAttributeView.class))
        Files.setPosixFilePermissions(root, PosixFilePermissions.fromString("rwx------"));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException("the data folder can't be kept private: " + root, e);
    }
  }

  /** A folder of that name, made when missing. */
  public Path folder(String name) {
    try {
      return Files.createDirectories(root.resolve(name));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException("the data folder can't be written: " + root, e);
    }
  }
}
