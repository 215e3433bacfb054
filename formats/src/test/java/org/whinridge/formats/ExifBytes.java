package org.whinridge.formats;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javax.imageio.ImageIO;

/**
 * Pictures with EXIF, made for tests by the layout of TIFF 6.0 and CIPA DC-008 (from memory), not
 * by the library that reads them.
 */
final class ExifBytes {
  private record Entry(int tag, int type, int count, byte[] value) {}

  private final List<Entry> main = new ArrayList<>();
  private final List<Entry> exif = new ArrayList<>();
  private final List<Entry> gps = new ArrayList<>();

  private static Entry ascii(int tag, String s) {
    byte[] b = (s + "\0").getBytes(StandardCharsets.ISO_8859_1);
    return new Entry(tag, 2, b.length, b);
  }

  private static Entry rationals(int tag, int... values) {
    ByteBuffer b = ByteBuffer.allocate(4 * values.length);
    for (int v : values) b.putInt(v);
    return new Entry(tag, 5, values.length / 2, b.array());
  }

  ExifBytes taken(String local, String offset) {
    exif.add(ascii(0x9003, local));
    if (!offset.isEmpty()) exif.add(ascii(0x9011, offset));
    return this;
  }

  ExifBytes described(String text) {
    main.add(ascii(0x010E, text));
    return this;
  }

  /** Degrees as whole thousandths of minutes, so that fractions are exact. */
  ExifBytes at(double lat, double lon) {
    gps.add(ascii(1, lat < 0 ? "S" : "N"));
    gps.add(angle(2, Math.abs(lat)));
    gps.add(ascii(3, lon < 0 ? "W" : "E"));
    gps.add(angle(4, Math.abs(lon)));
    return this;
  }

  private static Entry angle(int tag, double d) {
    int whole = (int) d;
    return rationals(tag, whole, 1, (int) Math.round((d - whole) * 60 * 100_000), 100_000, 0, 1);
  }

  /** A position whose fractions have nothing below the line. */
  ExifBytes atNothing() {
    gps.add(ascii(1, "N"));
    gps.add(rationals(2, 0, 0, 0, 0, 0, 0));
    gps.add(ascii(3, "E"));
    gps.add(rationals(4, 0, 0, 0, 0, 0, 0));
    return this;
  }

  ExifBytes altitude(int metres, boolean below) {
    gps.add(new Entry(5, 1, 1, new byte[] {(byte) (below ? 1 : 0)}));
    gps.add(rationals(6, metres, 1));
    return this;
  }

  ExifBytes looking(int degrees) {
    gps.add(rationals(17, degrees, 1));
    return this;
  }

  private byte[] tiff() {
    List<Entry> first = new ArrayList<>(main);
    int size = 8 + size(first, (exif.isEmpty() ? 0 : 1) + (gps.isEmpty() ? 0 : 1));
    int exifAt = size;
    int gpsAt = exifAt + (exif.isEmpty() ? 0 : size(exif, 0));
    if (!exif.isEmpty()) first.add(pointer(0x8769, exifAt));
    if (!gps.isEmpty()) first.add(pointer(0x8825, gpsAt));
    ByteBuffer b = ByteBuffer.allocate(gpsAt + size(gps, 0) + 16);
    b.put((byte) 'M').put((byte) 'M').putShort((short) 42).putInt(8);
    directory(b, first, 8);
    if (!exif.isEmpty()) directory(b, exif, exifAt);
    if (!gps.isEmpty()) directory(b, gps, gpsAt);
    return b.array();
  }

  private static Entry pointer(int tag, int at) {
    return new Entry(tag, 4, 1, ByteBuffer.allocate(4).putInt(at).array());
  }

  private static int size(List<Entry> entries, int more) {
    int n = 6 + 12 * (entries.size() + more);
    for (Entry e : entries) if (e.value.length > 4) n += e.value.length + (e.value.length & 1);
    return n;
  }

  private static void directory(ByteBuffer b, List<Entry> entries, int at) {
    List<Entry> sorted = new ArrayList<>(entries);
    sorted.sort(Comparator.comparingInt(Entry::tag));
    int data = at + 6 + 12 * sorted.size();
    b.position(at).putShort((short) sorted.size());
    for (int i = 0; i < sorted.size(); i++) {
      Entry e = sorted.get(i);
      b.position(at + 2 + 12 * i);
      b.putShort((short) e.tag).putShort((short) e.type).putInt(e.count);
      if (e.value.length <= 4) b.put(e.value);
      else {
        b.putInt(data);
        b.position(data).put(e.value);
        data += e.value.length + (e.value.length & 1);
      }
    }
  }

  private static byte[] picture(String format) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(new BufferedImage(64, 48, BufferedImage.TYPE_INT_RGB), format, out);
    return out.toByteArray();
  }

  byte[] jpeg() throws IOException {
    byte[] plain = picture("jpeg");
    byte[] t = tiff();
    ByteBuffer b = ByteBuffer.allocate(plain.length + t.length + 10);
    b.put(plain, 0, 2).put((byte) 0xFF).put((byte) 0xE1).putShort((short) (t.length + 8));
    b.put("Exif\0\0".getBytes(StandardCharsets.US_ASCII)).put(t).put(plain, 2, plain.length - 2);
    return b.array();
  }

  /** A PNG with an eXIf chunk before its data. */
  byte[] png() throws IOException {
    byte[] plain = picture("png");
    byte[] t = tiff();
    int at = 8 + 25; // after the signature and IHDR
    java.util.zip.CRC32 crc = new java.util.zip.CRC32();
    crc.update("eXIf".getBytes(StandardCharsets.US_ASCII));
    crc.update(t);
    ByteBuffer b = ByteBuffer.allocate(plain.length + t.length + 12);
    b.put(plain, 0, at).putInt(t.length).put("eXIf".getBytes(StandardCharsets.US_ASCII)).put(t);
    b.putInt((int) crc.getValue()).put(plain, at, plain.length - at);
    return b.array();
  }
}
