package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.formats.photos.Pictures;
import org.whinridge.formats.source.RawFeature;

/** What photos say of themselves, and what becomes of it. */
class PhotosHoldTest {
  @TempDir Path home;

  private List<RawFeature> features(String name, byte[] bytes) throws Exception {
    Path f = Files.write(home.resolve(name), bytes);
    return Gdal.features(Gdal.open(Files.createTempDirectory(home, "s"), f));
  }

  @Test
  void theOriginalMomentWithItsOffsetIsTheMomentTaken() throws Exception {
    byte[] jpeg =
        new ExifBytes()
            .taken("2026:05:04 11:30:00", "+02:00")
            .at(57.91, -10.25)
            .altitude(12, true)
            .looking(210)
            .described("Flap hangs on one hinge")
            .jpeg();
    // read by another program too, so that the test's own bytes are known to be EXIF
    Path f = Files.write(home.resolve("a.jpg"), jpeg);
    assertThat(Gdal.run("gdalinfo", f.toString()))
        .contains("EXIF_DateTimeOriginal=2026:05:04 11:30:00")
        .contains("EXIF_GPSAltitude=(12)");
    RawFeature p = features("a.jpg", jpeg).get(0);
    assertThat(p.properties())
        .containsEntry("photo", Value.text("a.jpg"))
        .containsEntry("taken", new Value.Moment(Instant.parse("2026-05-04T09:30:00Z")))
        .containsEntry("altitude_m", Value.of(-12))
        .containsEntry("direction_deg", Value.of(210))
        .containsEntry("description", Value.text("Flap hangs on one hinge"));
    assertThat(p.geometry().get().getCoordinate().x).isCloseTo(-10.25, within());
    assertThat(p.geometry().get().getCoordinate().y).isCloseTo(57.91, within());
    assertThat(English.of(p.problem())).isEmpty();
    assertThat(p.pictures()).hasSize(1);
  }

  private static org.assertj.core.data.Offset<Double> within() {
    return org.assertj.core.data.Offset.offset(1e-6);
  }

  @Test
  void aClockWithoutZoneIsToldAndNoClockIsNoMoment() throws Exception {
    RawFeature p =
        features("a.jpg", new ExifBytes().taken("2026:05:04 11:30:00", "").jpeg()).get(0);
    assertThat(p.properties())
        .containsEntry("taken", new Value.Moment(Instant.parse("2026-05-04T11:30:00Z")));
    assertThat(English.of(p.problem())).contains("no zone").contains("no position");
    assertThat(
            features("b.jpg", new ExifBytes().taken("0000:00:00 00:00:00", "").jpeg())
                .get(0)
                .properties())
        .doesNotContainKey("taken");
  }

  @Test
  void nullAndNullIsNoPlace() throws Exception {
    for (byte[] jpeg :
        List.of(new ExifBytes().at(0, 0).jpeg(), new ExifBytes().atNothing().jpeg())) {
      RawFeature p = features("a.jpg", jpeg).get(0);
      assertThat(p.geometry()).isEmpty();
      assertThat(English.of(p.problem())).contains("no position");
    }
  }

  @Test
  void cutOffUnreadableAndMisnamedPicturesAreTold() throws Exception {
    byte[] whole = new ExifBytes().at(57.91, -10.25).jpeg();
    RawFeature cut = features("cut.jpg", Arrays.copyOf(whole, whole.length - 40)).get(0);
    assertThat(English.of(cut.problem())).contains("cut off");
    assertThat(cut.geometry()).isPresent();
    assertThat(cut.pictures()).hasSize(1);
    assertThat(English.of(features("photo.dat", whole).get(0).problem()))
        .contains("does not end as one");
    Path broken = Files.write(home.resolve("broken.jpg"), Arrays.copyOf(whole, 20));
    Path text = Files.writeString(home.resolve("text.jpg"), "this is no picture");
    Sources.Opened o = Gdal.open(Files.createTempDirectory(home, "s"), broken, text);
    assertThat(o.sources()).isEmpty();
    assertThat(o.notUnderstood())
        .extracting(n -> English.of(n.why()))
        .anyMatch(w -> w.contains("can't be read"))
        .anyMatch(w -> w.contains("no picture, though"));
  }

  @Test
  void aPngWithAPositionIsAPhotoToo() throws Exception {
    RawFeature p = features("a.png", new ExifBytes().at(57.91, -10.25).png()).get(0);
    assertThat(p.geometry().get().getCoordinate().x).isCloseTo(-10.25, within());
    assertThat(English.of(p.problem())).contains("PNG, kept as JPEG");
    byte[] kept = Files.readAllBytes(p.pictures().get(0));
    assertThat(Pictures.isJpeg(kept)).isTrue();
  }
}
