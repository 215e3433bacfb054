package org.whinridge.core.photo;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Writes a geotag into JPEG bytes. The picture itself is copied byte for byte. EXIF data that the
 * camera wrote stay as they are: a new first directory is added behind them that has all their
 * entries and a pointer to the GPS directory.
 *
 * <p>Source: CIPA DC-008 (Exif 2.32), JPEG markers after ITU-T T.81.
 */
public final class ExifWriter {
  private static final byte[] EXIF = {'E', 'x', 'i', 'f', 0, 0};
  private static final int GPS_POINTER = 0x8825;
  private static final int EXIF_POINTER = 0x8769;
  private static final int SEGMENT_LIMIT =
      65533; // a segment's length is two bytes and counts itself

  private ExifWriter() {}

  /**
   * The JPEG with the geotag; empty when the bytes are not a JPEG, or its EXIF data leave no room
   * in their segment.
   */
  public static Optional<byte[]> write(byte[] jpeg, Geotag tag) {
    if (jpeg.length < 4 || at(jpeg, 0) != 0xFF || at(jpeg, 1) != 0xD8) return Optional.empty();
    int pos = 2;
    int exifFrom = -1;
    int exifTo = -1;
    int insert = 2;
    while (pos + 4 <= jpeg.length && at(jpeg, pos) == 0xFF) {
      int marker = at(jpeg, pos + 1);
      if (marker == 0xDA || marker == 0xD9) break;
      int end = pos + 2 + (at(jpeg, pos + 2) << 8 | at(jpeg, pos + 3));
      if (end < pos + 4 || end > jpeg.length) return Optional.empty();
      if (marker == 0xE0 && insert == pos) insert = end; // JFIF stays first
      if (marker == 0xE1 && exifFrom < 0 && startsWith(jpeg, pos + 4, EXIF)) {
        exifFrom = pos;
        exifTo = end;
      }
      pos = end;
    }
    if (pos + 2 > jpeg.length || at(jpeg, pos) != 0xFF) return Optional.empty();
    Tiff tiff =
        exifFrom < 0
            ? Tiff.fresh()
            : Tiff.of(jpeg, exifFrom + 4 + EXIF.length, exifTo).orElseGet(Tiff::fresh);
    byte[] block = tiff.with(entries(tag, tiff), gps(tag));
    if (EXIF.length + block.length > SEGMENT_LIMIT) return Optional.empty();
    ByteArrayOutputStream out = new ByteArrayOutputStream(jpeg.length + block.length + 16);
    int head = exifFrom < 0 ? insert : exifFrom;
    out.write(jpeg, 0, head);
    int length = 2 + EXIF.length + block.length;
    out.write(0xFF);
    out.write(0xE1);
    out.write(length >> 8);
    out.write(length & 0xFF);
    out.write(EXIF, 0, EXIF.length);
    out.write(block, 0, block.length);
    int rest = exifFrom < 0 ? insert : exifTo;
    out.write(jpeg, rest, jpeg.length - rest);
    return Optional.of(out.toByteArray());
  }

  /** Main directory entries to add when the camera wrote none: orientation, resolution, time. */
  private static List<Tiff.Entry> entries(Geotag t, Tiff tiff) {
    List<Tiff.Entry> out = new ArrayList<>();
    if (!tiff.isFresh()) return out;
    out.add(Tiff.shorts(0x0112, 1));
    out.add(Tiff.rationals(0x011A, 72, 1));
    out.add(Tiff.rationals(0x011B, 72, 1));
    out.add(Tiff.shorts(0x0128, 2));
    out.add(Tiff.ascii(0x0132, localTime(t)));
    out.add(Tiff.shorts(0x0213, 1));
    return out;
  }

  /** The EXIF directory for a picture whose camera wrote none. */
  static List<Tiff.Entry> exifDirectory(Geotag t) {
    String offset =
        (t.offsetMinutes() < 0 ? "-" : "+")
            + two(Math.abs(t.offsetMinutes()) / 60)
            + ":"
            + two(Math.abs(t.offsetMinutes()) % 60);
    return List.of(
        Tiff.undefined(0x9000, "0232".getBytes(StandardCharsets.US_ASCII)),
        Tiff.ascii(0x9003, localTime(t)),
        Tiff.ascii(0x9011, offset),
        Tiff.undefined(0x9101, new byte[] {1, 2, 3, 0}),
        Tiff.undefined(0xA000, "0100".getBytes(StandardCharsets.US_ASCII)),
        Tiff.shorts(0xA001, 1));
  }

  private static List<List<Tiff.Entry>> gps(Geotag t) {
    var utc = t.at().atOffset(java.time.ZoneOffset.UTC);
    List<Tiff.Entry> gps = new ArrayList<>();
    gps.add(Tiff.bytes(0, 2, 3, 0, 0));
    gps.add(Tiff.ascii(1, t.latitude() < 0 ? "S" : "N"));
    gps.add(degrees(2, t.latitude()));
    gps.add(Tiff.ascii(3, t.longitude() < 0 ? "W" : "E"));
    gps.add(degrees(4, t.longitude()));
    gps.add(Tiff.rationals(7, utc.getHour(), 1, utc.getMinute(), 1, utc.getSecond(), 1));
    if (t.directionDeg().isPresent()) {
      gps.add(Tiff.ascii(0x10, "T"));
      gps.add(
          Tiff.rationals(0x11, (long) Math.floor(t.directionDeg().getAsDouble() * 100 + 0.5), 100));
    }
    gps.add(Tiff.ascii(0x12, "WGS-84"));
    gps.add(
        Tiff.ascii(
            0x1D, utc.getYear() + ":" + two(utc.getMonthValue()) + ":" + two(utc.getDayOfMonth())));
    if (t.accuracyM().isPresent())
      gps.add(
          Tiff.rationals(0x1F, (long) Math.floor(t.accuracyM().getAsDouble() * 1000 + 0.5), 1000));
    return List.of(gps, exifDirectory(t));
  }

  /** Degrees, minutes and seconds as rationals; seconds to 1e-5, which is 0.3 mm on the ground. */
  private static Tiff.Entry degrees(int tag, double value) {
    long unit = (long) Math.floor(Math.abs(value) * 3600 * 100000 + 0.5);
    return Tiff.rationals(
        tag, unit / 360000000L, 1, unit / 6000000L % 60, 1, unit % 6000000L, 100000);
  }

  private static String localTime(Geotag t) {
    var d = t.at().plusSeconds(t.offsetMinutes() * 60L).atOffset(java.time.ZoneOffset.UTC);
    return d.getYear()
        + ":"
        + two(d.getMonthValue())
        + ":"
        + two(d.getDayOfMonth())
        + " "
        + two(d.getHour())
        + ":"
        + two(d.getMinute())
        + ":"
        + two(d.getSecond());
  }

  static int gpsPointer() {
    return GPS_POINTER;
  }

  static int exifPointer() {
    return EXIF_POINTER;
  }

  private static String two(int n) {
    return n < 10 ? "0" + n : String.valueOf(n);
  }

  private static int at(byte[] b, int i) {
    return b[i] & 0xFF;
  }

  private static boolean startsWith(byte[] b, int from, byte[] what) {
    if (from + what.length > b.length) return false;
    for (int i = 0; i < what.length; i++) if (b[from + i] != what[i]) return false;
    return true;
  }
}
