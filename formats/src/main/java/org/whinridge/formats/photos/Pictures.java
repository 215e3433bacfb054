package org.whinridge.formats.photos;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.ImageOutputStream;

/** Pictures out of files: photos are JPEG, and a PNG becomes one. */
public final class Pictures {
  /** Beyond so many pixels a PNG is not opened. */
  private static final long MOST_PIXELS = 60_000_000;

  private static final float QUALITY = 0.95f;

  private Pictures() {}

  /** Whether the bytes begin as a JPEG. */
  public static boolean isJpeg(byte[] head) {
    return head.length > 2 && (head[0] & 255) == 0xFF && (head[1] & 255) == 0xD8;
  }

  /** Whether the bytes begin as a PNG. */
  public static boolean isPng(byte[] head) {
    return head.length > 3 && (head[0] & 255) == 0x89 && head[1] == 'P' && head[2] == 'N';
  }

  /**
   * A picture as a JPEG file: the file itself, or a new one beside it.
   *
   * @return empty for what is neither JPEG nor PNG, or can't be read
   */
  public static Optional<Path> photo(Path file) throws IOException {
    byte[] head;
    try (InputStream in = Files.newInputStream(file)) {
      head = in.readNBytes(8);
    }
    if (isJpeg(head)) return Optional.of(file);
    if (!isPng(head)) return Optional.empty();
    Path out = file.resolveSibling(file.getFileName() + ".jpg");
    if (Files.exists(out)) return Optional.of(out);
    try {
      Optional<BufferedImage> read = read(file);
      if (read.isEmpty()) return Optional.empty();
      write(read.get(), out);
      return Optional.of(out);
    } catch (javax.imageio.IIOException | RuntimeException e) {
      Files.deleteIfExists(out);
      return Optional.empty(); // broken inside; the caller tells it
    }
  }

  private static Optional<BufferedImage> read(Path file) throws IOException {
    try (ImageInputStream in = ImageIO.createImageInputStream(file.toFile())) {
      Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName("png");
      if (!readers.hasNext()) return Optional.empty();
      ImageReader reader = readers.next();
      try {
        reader.setInput(in);
        if ((long) reader.getWidth(0) * reader.getHeight(0) > MOST_PIXELS) return Optional.empty();
        BufferedImage raw = reader.read(0);
        BufferedImage out =
            new BufferedImage(raw.getWidth(), raw.getHeight(), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = out.createGraphics();
        g.drawImage(raw, 0, 0, Color.WHITE, null); // JPEG has no see-through
        g.dispose();
        return Optional.of(out);
      } finally {
        reader.dispose();
      }
    }
  }

  private static void write(BufferedImage image, Path to) throws IOException {
    ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
    try (ImageOutputStream out = ImageIO.createImageOutputStream(to.toFile())) {
      writer.setOutput(out);
      ImageWriteParam p = writer.getDefaultWriteParam();
      p.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
      p.setCompressionQuality(QUALITY);
      writer.write(null, new IIOImage(image, null, null), p);
    } finally {
      writer.dispose();
    }
  }

  /** What is wrong with a JPEG. */
  public enum Fault {
    /** It is sound as far as its structure tells. */
    NONE,
    /** Its head can't be read: it is no picture. */
    UNREADABLE,
    /** Its end is missing: the lower part is lost. */
    CUT_OFF
  }

  /**
   * Walks through the segments of a JPEG to its end marker. Source: ITU-T T.81 (1992), annex B;
   * from memory.
   */
  public static Fault fault(Path jpeg) throws IOException {
    try (InputStream in = new BufferedInputStream(Files.newInputStream(jpeg), 1 << 16)) {
      if (in.read() != 0xFF || in.read() != 0xD8) return Fault.UNREADABLE;
      boolean frame = false;
      int marker = marker(in);
      while (marker >= 0) {
        if (marker == 0xD9) return frame ? Fault.NONE : Fault.UNREADABLE;
        if (marker >= 0xC0 && marker <= 0xCF && marker != 0xC4 && marker != 0xC8 && marker != 0xCC)
          frame = true;
        if (marker < 0xD0 || marker > 0xD8) {
          int length = in.read() << 8 | in.read();
          if (length < 2) return frame ? Fault.CUT_OFF : Fault.UNREADABLE;
          if (in.skip(length - 2) < length - 2) return frame ? Fault.CUT_OFF : Fault.UNREADABLE;
        }
        marker = marker == 0xDA ? afterScan(in) : marker(in);
      }
      return frame ? Fault.CUT_OFF : Fault.UNREADABLE;
    }
  }

  private static int marker(InputStream in) throws IOException {
    int b = in.read();
    if (b != 0xFF) return -1;
    while (b == 0xFF) b = in.read();
    return b;
  }

  /** The marker after the data of a scan, in which 0xFF 0x00 is a byte and RST a restart. */
  private static int afterScan(InputStream in) throws IOException {
    for (int b = in.read(); b >= 0; b = in.read()) {
      if (b != 0xFF) continue;
      int m = in.read();
      while (m == 0xFF) m = in.read();
      if (m != 0 && (m < 0xD0 || m > 0xD7)) return m;
    }
    return -1;
  }
}
