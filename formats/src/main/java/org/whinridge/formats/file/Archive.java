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
        throw new FileProblem("file.zipArchiveDamagedOr").because(e);
      }
    }
  }

  /** The names in an archive. */
  public static List<String> names(Path zip) throws FileProblem, IOException {
    List<String> out = new ArrayList<>();
    try (ZipFile z = open(zip)) {
      for (Enumeration<? extends ZipEntry> e = z.entries(); e.hasMoreElements(); ) {
        out.add(e.nextElement().getName());
        if (out.size() > Limits.ENTRIES) throw new FileProblem("file.archiveMoreThanEntries");
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
              out.isEmpty() ? "file.entryAfterBeginning" : "file.entryAfter",
              "name",
              out.isEmpty() ? "" : out.get(out.size() - 1).name)
          .because(e);
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
      if (in == null) throw new FileProblem("file.archiveCantBeRead", "name", entry.getName());
      for (int k = in.read(buffer); k > 0; k = in.read(buffer)) {
        n += k;
        if (total + n > Limits.EXPANDED)
          throw new FileProblem("file.archiveTooLarge", "name", entry.getName());
        if (n > 10_000_000 && n / packed > Limits.RATIO)
          throw new FileProblem(
              "file.archiveRatio", "name", entry.getName(), "ratio", Limits.RATIO);
        out.write(buffer, 0, k);
      }
    } catch (java.io.EOFException e) {
      throw new FileProblem("file.archiveEndsTooEarly", "name", entry.getName()).because(e);
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
                  "file.expandsMoreThanMb", "name", entry.getName(), "mb", most / 1_000_000);
          }
        }
        total += n;
      }
    } catch (ZipException | java.io.EOFException e) {
      throw new FileProblem("file.fileDamagedPartCant").because(e);
    }
  }
}
