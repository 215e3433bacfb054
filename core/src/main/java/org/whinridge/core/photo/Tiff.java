package org.whinridge.core.photo;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * The TIFF structure inside an EXIF segment: header, directories of 12-byte entries, values behind
 * them.
 */
final class Tiff {
  /**
   * One entry: tag, type, count, and its value bytes in big-endian order; or, for a copied one, its
   * 12 bytes as they were.
   */
  record Entry(int tag, int type, int count, byte[] value, boolean raw) {}

  private static final int MOST_ENTRIES = 500;
  private final byte[] old;
  private final boolean little;
  private final List<Entry> first;
  private final long next;

  private Tiff(byte[] old, boolean little, List<Entry> first, long next) {
    this.old = old;
    this.little = little;
    this.first = first;
    this.next = next;
  }

  static Tiff fresh() {
    return new Tiff(new byte[] {'M', 'M', 0, 42, 0, 0, 0, 8}, false, List.of(), 0);
  }

  /** Reads header and first directory; empty when they make no sense. */
  static Optional<Tiff> of(byte[] b, int from, int to) {
    if (to - from < 14) return Optional.empty();
    byte[] t = new byte[to - from];
    System.arraycopy(b, from, t, 0, t.length);
    boolean little = t[0] == 'I' && t[1] == 'I';
    if (!little && !(t[0] == 'M' && t[1] == 'M') || number(t, 2, 2, little) != 42)
      return Optional.empty();
    long ifd = number(t, 4, 4, little);
    if (ifd < 8 || ifd + 2 > t.length) return Optional.empty();
    int n = (int) number(t, (int) ifd, 2, little);
    long end = ifd + 2 + 12L * n;
    if (n == 0 || n > MOST_ENTRIES || end + 4 > t.length) return Optional.empty();
    List<Entry> entries = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      byte[] e = new byte[12];
      System.arraycopy(t, (int) ifd + 2 + 12 * i, e, 0, 12);
      entries.add(new Entry((int) number(e, 0, 2, little), 0, 0, e, true));
    }
    return Optional.of(new Tiff(t, little, entries, number(t, (int) end, 4, little)));
  }

  boolean isFresh() {
    return first.isEmpty();
  }

  /**
   * The block with a new first directory at its end: old entries, {@code added}, and pointers to
   * GPS (and EXIF) directories.
   */
  byte[] with(List<Entry> added, List<List<Entry>> directories) {
    List<Entry> main = new ArrayList<>();
    for (Entry e : first) if (e.tag() != ExifWriter.gpsPointer()) main.add(e);
    main.addAll(added);
    boolean hasExif = main.stream().anyMatch(e -> e.tag() == ExifWriter.exifPointer());
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(old, 0, old.length);
    if (out.size() % 2 == 1) out.write(0);
    main.add(pointer(ExifWriter.gpsPointer(), out.size()));
    directory(out, directories.get(0), 0);
    if (!hasExif) {
      main.add(pointer(ExifWriter.exifPointer(), out.size()));
      directory(out, directories.get(1), 0);
    }
    int ifd = out.size();
    directory(out, main, next);
    byte[] b = out.toByteArray();
    put(b, 4, 4, ifd);
    return b;
  }

  private void directory(ByteArrayOutputStream out, List<Entry> entries, long nextDirectory) {
    List<Entry> sorted = new ArrayList<>(entries);
    sorted.sort(Comparator.comparingInt(Entry::tag));
    int values = out.size() + 2 + 12 * sorted.size() + 4;
    ByteArrayOutputStream behind = new ByteArrayOutputStream();
    write(out, 2, sorted.size());
    for (Entry e : sorted) {
      if (e.raw()) {
        out.write(e.value(), 0, 12);
        continue;
      }
      write(out, 2, e.tag());
      write(out, 2, e.type());
      write(out, 4, e.count());
      byte[] v = ordered(e);
      if (v.length <= 4) {
        out.write(v, 0, v.length);
        for (int i = v.length; i < 4; i++) out.write(0);
      } else {
        write(out, 4, values + behind.size());
        behind.write(v, 0, v.length);
        if (v.length % 2 == 1) behind.write(0);
      }
    }
    write(out, 4, nextDirectory);
    byte[] b = behind.toByteArray();
    out.write(b, 0, b.length);
  }

  /** The value bytes in the block's own byte order. */
  private byte[] ordered(Entry e) {
    int size = e.type() == 3 ? 2 : e.type() == 4 || e.type() == 5 ? 4 : 1;
    if (!little || size == 1) return e.value();
    byte[] v = e.value().clone();
    for (int i = 0; i < v.length; i += size)
      for (int k = 0; k < size; k++) v[i + k] = e.value()[i + size - 1 - k];
    return v;
  }

  private void write(ByteArrayOutputStream out, int size, long n) {
    byte[] b = new byte[size];
    put(b, 0, size, n);
    out.write(b, 0, size);
  }

  private void put(byte[] b, int at, int size, long n) {
    for (int i = 0; i < size; i++) b[at + (little ? i : size - 1 - i)] = (byte) (n >> 8 * i);
  }

  private static long number(byte[] b, int at, int size, boolean little) {
    long n = 0;
    for (int i = 0; i < size; i++) n |= (b[at + (little ? i : size - 1 - i)] & 0xFFL) << 8 * i;
    return n;
  }

  private static Entry big(int tag, int type, int count, int size, long... numbers) {
    byte[] v = new byte[numbers.length * size];
    for (int i = 0; i < numbers.length; i++)
      for (int k = 0; k < size; k++) v[i * size + size - 1 - k] = (byte) (numbers[i] >> 8 * k);
    return new Entry(tag, type, count, v, false);
  }

  static Entry bytes(int tag, long... n) {
    return big(tag, 1, n.length, 1, n);
  }

  static Entry ascii(int tag, String s) {
    byte[] v = (s + "\0").getBytes(StandardCharsets.US_ASCII);
    return new Entry(tag, 2, v.length, v, false);
  }

  static Entry shorts(int tag, long... n) {
    return big(tag, 3, n.length, 2, n);
  }

  private static Entry pointer(int tag, long at) {
    return big(tag, 4, 1, 4, at);
  }

  static Entry rationals(int tag, long... n) {
    return big(tag, 5, n.length / 2, 4, n);
  }

  static Entry undefined(int tag, byte[] v) {
    return new Entry(tag, 7, v.length, v, false);
  }
}
