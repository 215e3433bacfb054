package org.whinridge.formats.file;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;

/**
 * A zip archive from outside, unpacked within limits. Names in it are kept for showing and never
 * become paths.
 */
public final class Archive {
  /** A file out of an archive: the name it had there, and where its bytes are. */
  public record Entry(String name, Path file) {}

  private Archive() {}

  /** Whether the bytes begin as those of a zip archive. */
  public static boolean isZip(byte[] head) {
    return head.length > 3 && head[0] == 'P' && head[1] == 'K' && head[2] == 3 && head[3] == 4;
  }

  private static ZipFile open(Path zip) throws FileProblem, IOException {
    try {
      return new ZipFile(zip.toFile(), StandardCharsets.UTF_8);
    } catch (ZipException e) {
      try {
        return new ZipFile(zip.toFile(), Charset.forName("IBM437")); // names of older archives
      } catch (ZipException again) {
        throw new FileProblem(
            "This zip archive is damaged or cut off: its directory can't be read.", e);
      }
    }
  }

  /** The names in an archive. */
  public static List<String> names(Path zip) throws FileProblem, IOException {
    List<String> out = new ArrayList<>();
    try (ZipFile z = open(zip)) {
      for (Enumeration<? extends ZipEntry> e = z.entries(); e.hasMoreElements(); ) {
        out.add(e.nextElement().getName());
        if (out.size() > Limits.ENTRIES)
          throw new FileProblem("The archive has more than 20,000 entries.");
      }
    }
    return out;
  }

  /** Unpacks all files into a folder, under names of our own. */
  public static List<Entry> unpack(Path zip, Path into) throws FileProblem, IOException {
    names(zip);
    List<Entry> out = new ArrayList<>();
    long total = 0;
    try (ZipFile z = open(zip)) {
      for (Enumeration<? extends ZipEntry> e = z.entries(); e.hasMoreElements(); ) {
        ZipEntry entry = e.nextElement();
        if (entry.isDirectory() || FileNames.shown(entry.getName()).startsWith(".")) continue;
        Path file = into.resolve("e" + out.size());
        total = one(z, entry, file, total);
        out.add(new Entry(entry.getName(), file));
      }
    } catch (ZipException e) {
      throw new FileProblem(
          "The entry after “"
              + (out.isEmpty() ? "the beginning" : out.get(out.size() - 1).name)
              + "” of the archive is damaged.",
          e);
    }
    return out;
  }

  private static long one(ZipFile z, ZipEntry entry, Path file, long total)
      throws FileProblem, IOException {
    long n = 0;
    long packed = Math.max(1, entry.getCompressedSize());
    byte[] buffer = new byte[1 << 16];
    try (InputStream in = z.getInputStream(entry);
        OutputStream out = Files.newOutputStream(file)) {
      if (in == null)
        throw new FileProblem("“" + entry.getName() + "” in the archive can't be read.");
      for (int k = in.read(buffer); k > 0; k = in.read(buffer)) {
        n += k;
        if (total + n > Limits.EXPANDED)
          throw new FileProblem(
              "The archive expands to more than 4 GB, at “" + entry.getName() + "”.");
        if (n > 10_000_000 && n / packed > Limits.RATIO)
          throw new FileProblem(
              "“"
                  + entry.getName()
                  + "” in the archive expands to more than "
                  + Limits.RATIO
                  + " times its size, as made to fill a disk; it was not unpacked.");
        out.write(buffer, 0, k);
      }
    } catch (java.io.EOFException e) {
      throw new FileProblem("“" + entry.getName() + "” in the archive ends too early.", e);
    }
    return total + n;
  }

  /**
   * Checks what an archive expands to, for formats that are archives and that a library opens
   * itself.
   */
  public static void check(Path zip, long most) throws FileProblem, IOException {
    names(zip);
    byte[] buffer = new byte[1 << 16];
    long total = 0;
    try (ZipFile z = open(zip)) {
      for (Enumeration<? extends ZipEntry> e = z.entries(); e.hasMoreElements(); ) {
        ZipEntry entry = e.nextElement();
        long n = 0;
        try (InputStream in = z.getInputStream(entry)) {
          for (int k = in == null ? -1 : in.read(buffer); k > 0; k = in.read(buffer)) {
            n += k;
            if (total + n > most)
              throw new FileProblem(
                  "“"
                      + entry.getName()
                      + "” in it expands to more than "
                      + most / 1_000_000
                      + " MB.");
          }
        }
        total += n;
      }
    } catch (ZipException | java.io.EOFException e) {
      throw new FileProblem("The file is damaged: a part of it can't be unpacked.", e);
    }
  }
}
