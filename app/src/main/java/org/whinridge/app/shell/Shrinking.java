package org.whinridge.app.shell;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
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

/**
 * Makes pictures smaller. One is shrunk at a time, and of a large one only every second, third …
 * pixel is read, so that however many megapixels arrive they never take more memory than set aside.
 */
@Component
public class Shrinking {
  /** At most so many pixels are in memory, at four bytes each. */
  private static final long MOST_IN_MEMORY = 12_000_000;

  /** Beyond so many pixels a picture is not opened at all. */
  private static final long MOST_PIXELS = 400_000_000;

  private final ReentrantLock one = new ReentrantLock(true);

  /**
   * A picture as a JPEG, turned as its EXIF says.
   *
   * @param edge the longer edge of the result, pixels; a smaller picture stays as large as it is
   * @return empty for what is no picture, is broken inside, or has too many pixels
   */
  public Optional<byte[]> shrunk(Path full, int edge) throws IOException {
    one.lock();
    try (ImageInputStream in = ImageIO.createImageInputStream(full.toFile())) {
      Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
      if (!readers.hasNext()) return Optional.empty();
      ImageReader reader = readers.next();
      try {
        reader.setInput(in);
        int width = reader.getWidth(0);
        int height = reader.getHeight(0);
        if ((long) width * height > MOST_PIXELS) return Optional.empty();
        ImageReadParam every = reader.getDefaultReadParam();
        int step = step(width, height, edge);
        every.setSourceSubsampling(step, step, 0, 0);
        return Optional.of(small(reader.read(0, every), turned(reader), edge));
      } finally {
        reader.dispose();
      }
    } catch (javax.imageio.IIOException | IllegalArgumentException e) {
      return Optional.empty(); // broken inside; whoever asks tells it
    } finally {
      one.unlock();
    }
  }

  /** How a JPEG says it lies; other kinds lie as they are. */
  private static Orientation turned(ImageReader reader) throws IOException {
    return reader.getFormatName().equalsIgnoreCase("jpeg")
        ? ExifUtils.getExifOrientation(reader, 0)
        : null;
  }

  /**
   * Reads every so manieth pixel: as few as memory allows, and never coarser than the picture made.
   */
  static int step(int width, int height, int edge) {
    int step = 1;
    while ((long) (width / step) * (height / step) > MOST_IN_MEMORY
        && Math.max(width, height) / (step + 1) >= edge) step++;
    return step;
  }

  private static byte[] small(BufferedImage read, Orientation turned, int edge) throws IOException {
    BufferedImage upright =
        turned == null ? read : ExifFilterUtils.getFilterForOrientation(turned).apply(read);
    int longer = Math.min(edge, Math.max(upright.getWidth(), upright.getHeight()));
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    Thumbnails.of(upright)
        .size(longer, longer)
        .imageType(BufferedImage.TYPE_INT_RGB)
        .outputFormat("jpg")
        .outputQuality(0.8)
        .toOutputStream(out);
    return out.toByteArray();
  }
}
