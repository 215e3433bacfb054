package org.whinridge.app.photo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Shrinking;

/** Small pictures of photos, made once. */
@Component
class SmallPictures {
  /** The longer edge of the small picture shown at the desk, pixels. */
  private static final int EDGE = 900;

  private final Path folder;
  private final Shrinking shrinking;
  private final ReentrantLock one = new ReentrantLock(true);

  SmallPictures(DataFolder data, Shrinking shrinking) {
    this.shrinking = shrinking;
    this.folder = data.folder("photos-small");
  }

  /**
   * The small picture of some bytes; empty when they are not here or no picture, so that the
   * original is all there is.
   */
  Optional<byte[]> of(String sha256, Optional<Path> full) {
    Path kept = folder.resolve(sha256 + ".jpg");
    try {
      if (Files.exists(kept)) return Optional.of(Files.readAllBytes(kept));
      if (full.isEmpty()) return Optional.empty();
      one.lock(); // of two who ask for one picture, the second finds it made
      try {
        if (Files.exists(kept)) return Optional.of(Files.readAllBytes(kept));
        Optional<byte[]> made = shrinking.shrunk(full.get(), EDGE);
        if (made.isPresent()) keep(made.get(), kept);
        return made;
      } finally {
        one.unlock();
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void keep(byte[] bytes, Path as) throws IOException {
    Path part = Files.createTempFile(folder, "part", ".jpg");
    Files.write(part, bytes);
    Files.move(part, as, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
  }
}
