package org.whinridge.app.photo;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Iterator;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import net.coobird.thumbnailator.Thumbnails;
import net.coobird.thumbnailator.util.exif.ExifFilterUtils;
import net.coobird.thumbnailator.util.exif.ExifUtils;
import net.coobird.thumbnailator.util.exif.Orientation;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;

/**
 * Small pictures of photos, made once. One is shrunk at a time, and of a large one only every
 * second, third … pixel is read, so that however many megapixels arrive they never take more memory
 * than set aside.
 */
@Component
class SmallPictures {
  /** The longer edge of the small picture shown at the desk, pixels. */
  private static final int EDGE = 900;

  /** At most so many pixels are in memory, at four bytes each. */
  private static final long MOST_IN_MEMORY = 12_000_000;

  /** Beyond so many pixels a picture is not opened at all. */
  private static final long MOST_PIXELS = 400_000_000;

  private final Path folder;
  private final ReentrantLock one = new ReentrantLock(true);

  SmallPictures(DataFolder data) {
    this.folder = data.folder("photos-small");
  }

  /** The small picture of some bytes; empty when they are not here or no picture. */
  Optional<byte[]> of(String sha256, Optional<Path> full) {
    Path kept = folder.resolve(sha256 + ".jpg");
    try {
      if (Files.exists(kept)) return Optional.of(Files.readAllBytes(kept));
      if (full.isEmpty()) return Optional.empty();
      one.lock();
      try {
        if (Files.exists(kept)) return Optional.of(Files.readAllBytes(kept));
        Optional<byte[]> made = shrunk(full.get());
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

  private static Optional<byte[]> shrunk(Path full) throws IOException {
    try (ImageInputStream in = ImageIO.createImageInputStream(full.toFile())) {
      Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
      if (!readers.hasNext()) return Optional.empty(); // the original can still be downloaded
      ImageReader reader = readers.next();
      try {
        reader.setInput(in);
        long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
        if (pixels > MOST_PIXELS) return Optional.empty();
        ImageReadParam every = reader.getDefaultReadParam();
        int step = step(reader.getWidth(0), reader.getHeight(0));
        every.setSourceSubsampling(step, step, 0, 0);
        return Optional.of(small(reader.read(0, every), ExifUtils.getExifOrientation(reader, 0)));
      } finally {
        reader.dispose();
      }
    } catch (javax.imageio.IIOException | IllegalArgumentException e) {
      return Optional.empty(); // broken inside: the original can still be downloaded
    }
  }

  /**
   * Reads every so manieth pixel: as few as memory allows, and never coarser than the picture made.
   */
  static int step(int width, int height) {
    int step = 1;
    while ((long) (width / step) * (height / step) > MOST_IN_MEMORY
        && Math.max(width, height) / (step + 1) >= EDGE) step++;
    return step;
  }

  private static byte[] small(BufferedImage read, Orientation turned) throws IOException {
    BufferedImage upright =
        turned == null ? read : ExifFilterUtils.getFilterForOrientation(turned).apply(read);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    Thumbnails.of(upright)
        .size(EDGE, EDGE)
        .imageType(BufferedImage.TYPE_INT_RGB)
        .outputFormat("jpg")
        .outputQuality(0.8)
        .toOutputStream(out);
    return out.toByteArray();
  }
}
