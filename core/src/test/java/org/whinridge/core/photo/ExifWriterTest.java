package org.whinridge.core.photo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.drew.imaging.jpeg.JpegMetadataReader;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.time.Instant;
import java.util.Arrays;
import java.util.OptionalDouble;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** Tags after CIPA DC-008 (Exif 2.32), read back by metadata-extractor. */
class ExifWriterTest {
  private static final Geotag TAG =
      new Geotag(
          -10.2034567,
          57.8912345,
          OptionalDouble.of(3.25),
          OptionalDouble.of(211.5),
          Instant.parse("2026-05-04T09:30:07Z"),
          60);

  @Test
  void aPictureWithoutExifGetsPlaceTimeDirectionAndAccuracy() throws Exception {
    byte[] plain = jpeg();
    byte[] tagged = ExifWriter.write(plain, TAG).orElseThrow();
    Metadata m = JpegMetadataReader.readMetadata(new ByteArrayInputStream(tagged));
    GpsDirectory g = m.getFirstDirectoryOfType(GpsDirectory.class);
    assertThat(g.getGeoLocation().getLatitude()).isCloseTo(57.8912345, within(1.5e-9));
    assertThat(g.getGeoLocation().getLongitude()).isCloseTo(-10.2034567, within(1.5e-9));
    assertThat(g.getGpsDate()).isEqualTo(TAG.at().toString());
    assertThat(g.getDouble(GpsDirectory.TAG_IMG_DIRECTION)).isEqualTo(211.5);
    assertThat(g.getString(GpsDirectory.TAG_IMG_DIRECTION_REF)).isEqualTo("T");
    assertThat(g.getDouble(0x1F)).isEqualTo(3.25);
    assertThat(g.getString(GpsDirectory.TAG_DATE_STAMP))
        .isEqualTo("2026:5:04".replace(":5:", ":05:"));
    assertThat(
            m.getFirstDirectoryOfType(ExifSubIFDDirectory.class)
                .getString(ExifSubIFDDirectory.TAG_DATETIME_ORIGINAL))
        .isEqualTo("2026:05:04 10:30:07");
    assertThat(pixels(tagged)).isEqualTo(pixels(plain));
    assertThat(m.getDirectories()).allSatisfy(d -> assertThat(d.getErrors()).isEmpty());
  }

  @Test
  void whatTheCameraWroteStaysInEitherByteOrder() throws Exception {
    for (boolean little : new boolean[] {true, false}) {
      byte[] camera = withCameraExif(jpeg(), little);
      Metadata m =
          JpegMetadataReader.readMetadata(
              new ByteArrayInputStream(ExifWriter.write(camera, TAG).orElseThrow()));
      ExifIFD0Directory d = m.getFirstDirectoryOfType(ExifIFD0Directory.class);
      assertThat(d.getInt(ExifIFD0Directory.TAG_ORIENTATION)).isEqualTo(6);
      assertThat(d.getString(ExifIFD0Directory.TAG_MAKE)).isEqualTo("Ostrey Optics");
      assertThat(m.getFirstDirectoryOfType(GpsDirectory.class).getGeoLocation().getLongitude())
          .isCloseTo(-10.2034567, within(1.5e-9));
    }
  }

  @Test
  void taggingTwiceKeepsTheNewerPlace() throws Exception {
    byte[] once = ExifWriter.write(jpeg(), TAG).orElseThrow();
    byte[] twice =
        ExifWriter.write(
                once,
                new Geotag(1, -2, OptionalDouble.empty(), OptionalDouble.empty(), TAG.at(), 0))
            .orElseThrow();
    GpsDirectory g =
        JpegMetadataReader.readMetadata(new ByteArrayInputStream(twice))
            .getFirstDirectoryOfType(GpsDirectory.class);
    assertThat(g.getGeoLocation().getLatitude()).isEqualTo(-2);
    assertThat(g.containsTag(GpsDirectory.TAG_IMG_DIRECTION)).isFalse();
  }

  @Test
  void whatIsNotAJpegIsLeftAloneAndNothingThrows() throws Exception {
    assertThat(ExifWriter.write(new byte[0], TAG)).isEmpty();
    assertThat(ExifWriter.write(new byte[] {(byte) 0x89, 'P', 'N', 'G', 0, 0}, TAG)).isEmpty();
    byte[] good = withCameraExif(jpeg(), true);
    Random random = new Random(5);
    for (int i = 0; i < 3000; i++) {
      byte[] bad = Arrays.copyOf(good, 2 + random.nextInt(good.length - 2));
      for (int k = 0; k < 4; k++)
        bad[random.nextInt(Math.min(bad.length, 120))] = (byte) random.nextInt();
      ExifWriter.write(bad, TAG); // must return, with a picture or without
    }
  }

  private static byte[] jpeg() throws Exception {
    BufferedImage image = new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB);
    image.createGraphics().fillRect(5, 5, 20, 10);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(image, "jpeg", out);
    return out.toByteArray();
  }

  private static int[] pixels(byte[] jpeg) throws Exception {
    BufferedImage i = ImageIO.read(new ByteArrayInputStream(jpeg));
    return i.getRGB(0, 0, i.getWidth(), i.getHeight(), null, 0, i.getWidth());
  }

  /** A camera's segment with a make and an orientation, written by hand. */
  private static byte[] withCameraExif(byte[] jpeg, boolean little) {
    byte[] make = "Ostrey Optics\0".getBytes(java.nio.charset.StandardCharsets.US_ASCII);
    java.nio.ByteBuffer t =
        java.nio.ByteBuffer.allocate(8 + 2 + 24 + 4 + make.length)
            .order(little ? java.nio.ByteOrder.LITTLE_ENDIAN : java.nio.ByteOrder.BIG_ENDIAN);
    t.put((little ? "II" : "MM").getBytes(java.nio.charset.StandardCharsets.US_ASCII))
        .putShort((short) 42)
        .putInt(8)
        .putShort((short) 2);
    t.putShort((short) 0x010F).putShort((short) 2).putInt(make.length).putInt(38);
    t.putShort((short) 0x0112)
        .putShort((short) 3)
        .putInt(1)
        .putShort((short) 6)
        .putShort((short) 0)
        .putInt(0)
        .put(make);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(jpeg, 0, 2);
    int length = 2 + 6 + t.capacity();
    out.writeBytes(
        new byte[] {
          (byte) 0xFF, (byte) 0xE1, (byte) (length >> 8), (byte) length, 'E', 'x', 'i', 'f', 0, 0
        });
    out.writeBytes(t.array());
    out.write(jpeg, 2, jpeg.length - 2);
    return out.toByteArray();
  }
}
