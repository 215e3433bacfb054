package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.head;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.patch;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.HexFormat;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.whinridge.demo.DemoPhoto;

/** Photos of visits, in pieces, damaged, and from other people. */
class PhotoTest extends DeviceTest {
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
            mvc.perform(head(place).header("Tus-Resumable", "1.0.0").with(INSPECTOR))
                .andReturn()
                .getResponse()
                .getHeader("Upload-Offset"))
        .isEqualTo("1000");
    assertThat(
            mvc.perform(head(place).header("Tus-Resumable", "1.0.0").with(OTHER))
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

  private MockHttpServletResponse create(String photo, long length, UserRequestPostProcessor who)
      throws Exception {
    return mvc.perform(
            post("/api/day/uploads")
                .header("Tus-Resumable", "1.0.0")
                .header("Upload-Length", length)
                .header(
                    "Upload-Metadata",
                    "photo "
                        + Base64.getEncoder()
                            .encodeToString(photo.getBytes(StandardCharsets.UTF_8)))
                .with(who)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private MockHttpServletResponse append(String place, long offset, byte[] bytes) throws Exception {
    return mvc.perform(
            patch(place)
                .header("Tus-Resumable", "1.0.0")
                .header("Upload-Offset", offset)
                .contentType("application/offset+octet-stream")
                .content(bytes)
                .with(INSPECTOR)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }
}
