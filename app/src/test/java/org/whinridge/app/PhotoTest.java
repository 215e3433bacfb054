package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.ApplicationContext;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.whinridge.app.photo.Photos;
import org.whinridge.demo.DemoPhoto;

/** Photos of visits, in pieces, damaged, and from other people. */
class PhotoTest extends DeviceTest {
  @Autowired Photos photos;
  @Autowired ApplicationContext beans;

  @Test
  void aPhotoArrivesInPiecesAndOnlyWhole() throws Exception {
    byte[] photo = DemoPhoto.jpeg("OS-7", "weir", "2026-05-04");
    String sha = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(photo));
    JsonObject v = visit("with a photo");
    String id = UUID.randomUUID().toString();
    v.set(
        "photos",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("id", id)
                    .add("question", "photo")
                    .add("sha256", sha)
                    .add("bytes", photo.length)
                    .add(
                        "geotag",
                        new JsonObject().add("lat", 57.9).add("lon", -10.2).add("accuracy", 4))));
    sent(v);
    String place = create(id, photo.length, INSPECTOR).getHeader("Location");
    assertThat(create(UUID.randomUUID().toString(), 10, INSPECTOR).getStatus()).isEqualTo(404);
    assertThat(create(id, photo.length + 1, INSPECTOR).getStatus()).isEqualTo(409);
    assertThat(append(place, 0, java.util.Arrays.copyOf(photo, 1000)).getHeader("Upload-Offset"))
        .isEqualTo("1000");
    assertThat(append(place, 0, photo).getStatus()).as("an old offset").isEqualTo(409);
    assertThat(
            mvc.perform(
                    org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head(place)
                        .header("Tus-Resumable", "1.0.0")
                        .with(INSPECTOR))
                .andReturn()
                .getResponse()
                .getHeader("Upload-Offset"))
        .isEqualTo("1000");
    assertThat(
            mvc.perform(
                    org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head(place)
                        .header("Tus-Resumable", "1.0.0")
                        .with(OTHER))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    assertThat(page(v)).contains("still on the device");
    assertThat(
            append(place, 1000, java.util.Arrays.copyOfRange(photo, 1000, photo.length))
                .getStatus())
        .isEqualTo(204);
    assertThat(page(v))
        .doesNotContain("still on the device")
        .contains("57.90000°, -10.20000°, ±4 m");
    assertThat(
            mvc.perform(get("/api/p/ostrey/photos/" + id + "?whole=true").with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsByteArray())
        .isEqualTo(photo);

    JsonObject w = visit("with a damaged photo");
    String other = UUID.randomUUID().toString();
    byte[] damaged = photo.clone();
    damaged[500] ^= 1;
    w.set(
        "photos",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("id", other)
                    .add("question", "photo")
                    .add("sha256", sha.replace(sha.charAt(0), sha.charAt(0) == 'a' ? 'b' : 'a'))
                    .add("bytes", photo.length)));
    sent(w);
    assertThat(
            append(create(other, photo.length, INSPECTOR).getHeader("Location"), 0, damaged)
                .getStatus())
        .isEqualTo(422);
    assertThat(page(w)).contains("still on the device");
  }

  private MockHttpServletResponse head(String place, UserRequestPostProcessor who)
      throws Exception {
    return mvc.perform(
            org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head(place)
                .header("Tus-Resumable", "1.0.0")
                .with(who))
        .andReturn()
        .getResponse();
  }

  private boolean received(String id) {
    return photos.find(UUID.fromString(id)).orElseThrow().received();
  }

  /**
   * As a kill leaves it: all bytes are here, nobody has taken them; also when they lie under their
   * hash already.
   */
  @Test
  void aWholeUploadIsTakenWhenItIsAskedFor() throws Exception {
    for (boolean kept : new boolean[] {false, true}) {
      byte[] photo = DemoPhoto.jpeg("OS-8 " + kept, "weir", "2026-05-04");
      String id = UUID.randomUUID().toString();
      sent(withPhoto(id, photo, "killed " + kept));
      String place = create(id, photo.length, INSPECTOR).getHeader("Location");
      Path data = data().folder("uploads").resolve(place.replaceAll(".*/", "") + ".bin");
      Files.write(data, photo);
      String sha = org.whinridge.app.shell.Sha256.of(photo);
      if (kept)
        org.whinridge.app.shell.Durable.keep(
            data, data().folder("photos").resolve(sha.substring(0, 2)).resolve(sha + ".jpg"));
      assertThat(received(id)).isFalse();
      MockHttpServletResponse r = head(place, INSPECTOR);
      assertThat(r.getStatus()).isEqualTo(200);
      assertThat(r.getHeader("Upload-Offset")).isEqualTo(String.valueOf(photo.length));
      assertThat(received(id)).isTrue();
      assertThat(data).doesNotExist();
      assertThat(head(place, INSPECTOR).getStatus()).as("it is over").isEqualTo(404);
      assertThat(create(id, photo.length, INSPECTOR).getStatus()).as("it is here").isEqualTo(409);
    }
  }

  /** As an older server left it: the bytes were moved away, the note of the upload stayed. */
  @Test
  void anUploadWhoseBytesAreGoneIsOverAndNotAFailure() throws Exception {
    byte[] photo = DemoPhoto.jpeg("OS-9", "weir", "2026-05-04");
    String id = UUID.randomUUID().toString();
    sent(withPhoto(id, photo, "moved"));
    String place = create(id, photo.length, INSPECTOR).getHeader("Location");
    Files.delete(data().folder("uploads").resolve(place.replaceAll(".*/", "") + ".bin"));
    assertThat(head(place, INSPECTOR).getStatus()).isEqualTo(410);
    assertThat(head(place, INSPECTOR).getStatus()).isEqualTo(404);
  }

  @Test
  void aPhotoHasAFewUploadsAndOnlyItsSenderMaySendIt() throws Exception {
    byte[] photo = DemoPhoto.jpeg("OS-10", "weir", "2026-05-04");
    String id = UUID.randomUUID().toString();
    JsonObject v = withPhoto(id, photo, "by device a");
    send(
        Json.parse(handIn(UUID.randomUUID().toString(), v))
            .asObject()
            .add("deviceId", "device-a")
            .toString(),
        INSPECTOR);
    assertThat(create(id, photo.length, INSPECTOR).getStatus()).as("no device said").isEqualTo(404);
    assertThat(create(id, "device-b", photo.length, INSPECTOR).getStatus()).isEqualTo(404);
    assertThat(create(id, "device-a", photo.length, OTHER).getStatus()).isEqualTo(404);
    String first = null;
    for (int i = 0; i < 20; i++) {
      String place = create(id, "device-a", photo.length, INSPECTOR).getHeader("Location");
      if (first == null) first = place;
    }
    assertThat(head(first, INSPECTOR).getStatus()).as("the oldest made room").isEqualTo(404);
    try (var files = Files.list(data().folder("uploads"))) {
      assertThat(files.filter(f -> read(f).contains(id))).hasSize(3);
    }
  }

  private static String read(Path f) {
    try {
      return f.toString().endsWith(".info") ? Files.readString(f) : "";
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  /** Somebody who knows the hash of another's photo gets nothing by it. */
  @Test
  void aHashAloneAttachesNothing() throws Exception {
    byte[] photo = DemoPhoto.jpeg("OS-11", "weir", "2026-05-04");
    String id = UUID.randomUUID().toString();
    sent(withPhoto(id, photo, "whose photo it is"));
    append(create(id, photo.length, INSPECTOR).getHeader("Location"), 0, photo);
    assertThat(received(id)).isTrue();
    String other = UUID.randomUUID().toString();
    sent(withPhoto(other, photo, "who knows its hash"));
    assertThat(received(other)).isFalse();
  }

  /** Many megapixels are read in steps, one picture at a time. */
  @Test
  void largePicturesAreShrunkWithinTheirMemory() throws Exception {
    java.awt.image.BufferedImage wide =
        new java.awt.image.BufferedImage(9000, 9000, java.awt.image.BufferedImage.TYPE_BYTE_GRAY);
    java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
    javax.imageio.ImageIO.write(wide, "jpg", out);
    byte[] photo = out.toByteArray();
    String id = UUID.randomUUID().toString();
    sent(withPhoto(id, photo, "of 81 megapixels"));
    append(create(id, photo.length, INSPECTOR).getHeader("Location"), 0, photo);
    byte[] small =
        mvc.perform(get("/api/p/ostrey/photos/" + id).with(COORDINATOR))
            .andReturn()
            .getResponse()
            .getContentAsByteArray();
    var read = javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(small));
    assertThat(read.getWidth()).isEqualTo(900);
  }

  private org.whinridge.app.shell.DataFolder data() {
    return beans.getBean(org.whinridge.app.shell.DataFolder.class);
  }
}
