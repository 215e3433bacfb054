package org.whinridge.formats;

import com.drew.imaging.ImageProcessingException;
import com.drew.imaging.jpeg.JpegMetadataReader;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.GpsDirectory;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalDouble;
import org.locationtech.jts.geom.Coordinate;

/** What a photo's EXIF says: place, moment (from the GPS time), direction. Each may be missing. */
public record PhotoFacts(
    Optional<Coordinate> place, Optional<Instant> taken, OptionalDouble directionDeg) {

  /** Reads the facts; empty when the bytes are not a JPEG. */
  public static Optional<PhotoFacts> read(byte[] jpeg) {
    try {
      Metadata m = JpegMetadataReader.readMetadata(new ByteArrayInputStream(jpeg));
      GpsDirectory g = m.getFirstDirectoryOfType(GpsDirectory.class);
      if (g == null)
        return Optional.of(
            new PhotoFacts(Optional.empty(), Optional.empty(), OptionalDouble.empty()));
      var at = g.getGeoLocation();
      var when = g.getGpsDate();
      Double direction = g.getDoubleObject(GpsDirectory.TAG_IMG_DIRECTION);
      return Optional.of(
          new PhotoFacts(
              at == null
                  ? Optional.empty()
                  : Optional.of(new Coordinate(at.getLongitude(), at.getLatitude())),
              when == null ? Optional.empty() : Optional.of(when.toInstant()),
              direction == null ? OptionalDouble.empty() : OptionalDouble.of(direction)));
    } catch (ImageProcessingException | IOException e) {
      return Optional.empty(); // told to the caller as "not a JPEG"
    }
  }
}
