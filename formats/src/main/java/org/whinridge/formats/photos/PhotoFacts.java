package org.whinridge.formats.photos;

import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.lang.Rational;
import com.drew.metadata.Directory;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.formats.file.Limits;

/**
 * What a photo's EXIF says; each may be missing. Tags by CIPA DC-008 (Exif 2.32), from memory.
 *
 * @param place longitude and latitude in degrees; 0/0 is what cameras write without a fix, and none
 * @param taken the moment: DateTimeOriginal with its offset, else the GPS time (UTC), else
 *     DateTimeOriginal taken as UTC
 * @param zoned whether that moment is sure: its offset from UTC is known
 * @param directionDeg where the camera looked, degrees clockwise from north, 0 to 360
 * @param altitudeM metres above sea level, below it negative
 * @param description what somebody wrote for it; "" for nothing
 */
public record PhotoFacts(
    Optional<Coordinate> place,
    Optional<Instant> taken,
    boolean zoned,
    OptionalDouble directionDeg,
    OptionalDouble altitudeM,
    String description) {
  private static final DateTimeFormatter EXIF = DateTimeFormatter.ofPattern("yyyy:MM:dd HH:mm:ss");

  /** What cameras write into a description that nobody filled. Common practice, no source. */
  private static final String EMPTY_WORDS = "(?i)(\\s*|digital camera|default)";

  /** Reads the facts; empty when the bytes are neither JPEG nor PNG. */
  public static Optional<PhotoFacts> read(byte[] picture) {
    if (!Pictures.isJpeg(picture) && !Pictures.isPng(picture)) return Optional.empty();
    Metadata m;
    try {
      m = ImageMetadataReader.readMetadata(new ByteArrayInputStream(picture));
    } catch (ImageProcessingException | IOException e) {
      return Optional.empty(); // told by the caller as no picture
    }
    GpsDirectory g = m.getFirstDirectoryOfType(GpsDirectory.class);
    ExifSubIFDDirectory exif = m.getFirstDirectoryOfType(ExifSubIFDDirectory.class);
    Optional<Offset> original = original(exif);
    Optional<Instant> gps =
        Optional.ofNullable(g == null ? null : g.getGpsDate()).map(java.util.Date::toInstant);
    boolean zoned = original.filter(Offset::known).isPresent() || gps.isPresent();
    Optional<Instant> taken =
        original
            .filter(Offset::known)
            .map(Offset::at)
            .or(() -> gps)
            .or(() -> original.map(Offset::at));
    return Optional.of(
        new PhotoFacts(place(g), taken, zoned, direction(g), altitude(g), description(m)));
  }

  private static Optional<Coordinate> place(GpsDirectory g) {
    if (g == null) return Optional.empty();
    try {
      var at = g.getGeoLocation();
      return at == null || at.getLatitude() == 0 && at.getLongitude() == 0
          ? Optional.empty()
          : Optional.of(new Coordinate(at.getLongitude(), at.getLatitude()))
              .filter(c -> Double.isFinite(c.x) && Double.isFinite(c.y))
              .filter(c -> Math.abs(c.x) <= 180 && Math.abs(c.y) <= 90);
    } catch (IllegalArgumentException | ArithmeticException e) {
      return Optional.empty(); // a fraction over nothing
    }
  }

  private record Offset(Instant at, boolean known) {}

  private static Optional<Offset> original(ExifSubIFDDirectory exif) {
    if (exif == null) return Optional.empty();
    String day = exif.getString(ExifSubIFDDirectory.TAG_DATETIME_ORIGINAL);
    String zone = exif.getString(ExifSubIFDDirectory.TAG_TIME_ZONE_ORIGINAL);
    if (day == null) return Optional.empty();
    try {
      LocalDateTime local = LocalDateTime.parse(day.strip(), EXIF);
      try {
        if (zone != null && !zone.isBlank())
          return Optional.of(new Offset(local.toInstant(ZoneOffset.of(zone.strip())), true));
      } catch (DateTimeException e) {
        // an offset that is none is as good as no offset
      }
      return Optional.of(new Offset(local.toInstant(ZoneOffset.UTC), false));
    } catch (DateTimeException e) {
      return Optional.empty(); // "0000:00:00 00:00:00" of a camera without a clock
    }
  }

  private static OptionalDouble direction(GpsDirectory g) {
    Double d = g == null ? null : g.getDoubleObject(GpsDirectory.TAG_IMG_DIRECTION);
    return d == null || !Double.isFinite(d) || d < 0 || d > 360
        ? OptionalDouble.empty()
        : OptionalDouble.of(d);
  }

  private static OptionalDouble altitude(GpsDirectory g) {
    Rational r = g == null ? null : g.getRational(GpsDirectory.TAG_ALTITUDE);
    if (r == null || r.getDenominator() == 0) return OptionalDouble.empty();
    Integer below = g.getInteger(GpsDirectory.TAG_ALTITUDE_REF);
    return OptionalDouble.of(below != null && below == 1 ? -r.doubleValue() : r.doubleValue());
  }

  private static String description(Metadata m) {
    Directory d = m.getFirstDirectoryOfType(ExifIFD0Directory.class);
    if (d == null) return "";
    for (int tag :
        new int[] {ExifIFD0Directory.TAG_IMAGE_DESCRIPTION, ExifIFD0Directory.TAG_WIN_COMMENT}) {
      String s = d.getDescription(tag);
      if (s != null && !s.matches(EMPTY_WORDS)) return Limits.cut(s.strip(), 10_000);
    }
    return "";
  }
}
