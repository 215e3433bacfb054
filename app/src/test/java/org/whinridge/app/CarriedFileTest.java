package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.patch;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.daybook.CarriedFiles;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.access.Role;
import org.whinridge.demo.DemoPhoto;

/** What a device carried, brought in as a file by a coordinator. */
class CarriedFileTest extends SmallServerTest {
  private static int next;
  @TempDir Path tmp;
  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;
  @Autowired SmallProject small;
  @Autowired CarriedFiles carried;
  @Autowired Photos photos;
  private final byte[] photo = DemoPhoto.jpeg("OS-21", "weir", "2026-05-04");
  private SmallProject.Held held;
  private String coordinator;
  private String inspector;

  @BeforeEach
  void aProjectOfItsOwn() throws Exception {
    held = project();
  }

  private SmallProject.Held project() throws Exception {
    int n = ++next;
    coordinator = "coordinator-" + n;
    inspector = "inspector-" + n;
    return small.make(
        "carried-" + n,
        "Carried " + n,
        Map.of(Role.COORDINATOR, coordinator, Role.INSPECTOR, inspector));
  }

  private JsonObject visit(SmallProject.Held of, String person) throws Exception {
    JsonObject feature =
        Json.parse(
                mvc.perform(
                        get("/api/day/rounds/" + of.round() + "/parts/features-" + of.layer())
                            .with(user(person)))
                    .andReturn()
                    .getResponse()
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject()
            .get("features")
            .asArray()
            .get(0)
            .asObject();
    return SmallVisit.of(feature, of.round(), person);
  }

  private JsonObject withPhoto(JsonObject visit, String id) {
    return visit.set(
        "photos",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("id", id)
                    .add("question", "photo")
                    .add("sha256", Sha256.of(photo))
                    .add("bytes", photo.length)));
  }

  private JsonObject document(JsonObject... visits) {
    JsonArray all = new JsonArray();
    for (JsonObject v : visits) all.add(v);
    return new JsonObject()
        .add("format", "whinridge-carried")
        .add("version", 1)
        .add("id", UUID.randomUUID().toString())
        .add("person", inspector)
        .add("device", "the phone with the broken radio")
        .add("deviceId", "device-a")
        .add("visits", all);
  }

  private Path file(JsonObject document, Map<String, byte[]> pictures) throws IOException {
    Path out = Files.createTempFile(tmp, "carried", ".zip");
    try (OutputStream to = Files.newOutputStream(out);
        ZipOutputStream zip = new ZipOutputStream(to)) {
      zip.putNextEntry(new ZipEntry("hand-in.json"));
      zip.write(document.toString().getBytes(StandardCharsets.UTF_8));
      for (Map.Entry<String, byte[]> p : pictures.entrySet()) {
        zip.putNextEntry(new ZipEntry(p.getKey()));
        zip.write(p.getValue());
      }
    }
    return out;
  }

  private CarriedFiles.Brought bring(Path file) throws IOException {
    return carried.bring(held.project(), file, coordinator);
  }

  private String state(JsonObject visit) {
    return jdbc.queryForObject(
        "select state from visit where id = ?",
        String.class,
        UUID.fromString(visit.getString("id", "")));
  }

  @Test
  void visitsAndPhotosAreThereAfterAndOnceOnly() throws Exception {
    String id = UUID.randomUUID().toString();
    JsonObject v = withPhoto(visit(held, inspector), id);
    JsonObject broken =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("round", held.round().toString());
    Path file =
        file(
            document(v, broken),
            Map.of(
                "photos/" + id + ".jpg",
                photo,
                "photos/" + UUID.randomUUID() + ".jpg",
                photo,
                "../evil.jpg",
                photo));
    for (int i = 0; i < 2; i++) {
      CarriedFiles.Brought b = bring(file);
      assertThat(b)
          .isEqualTo(
              new CarriedFiles.Brought(
                  inspector, "the phone with the broken radio", 1, 1, 0, 0, 1, 1));
      assertThat(state(v)).isEqualTo("waiting");
      assertThat(photos.find(UUID.fromString(id)).orElseThrow().received()).isTrue();
    }
    assertThat(
            jdbc.queryForObject(
                "select count(*) from visit where round_id = ?", Integer.class, held.round()))
        .isEqualTo(1);
    assertThat(
            jdbc.queryForList("select person, brought_by from hand_in where person = ?", inspector))
        .as("whose it is, and who brought it")
        .singleElement()
        .satisfies(row -> assertThat(row.values()).contains(inspector, coordinator));
  }

  /** Who goes out no more may still have carried something. */
  @Test
  void whoIsNotInTheProjectAnyMoreLosesNothing() throws Exception {
    JsonObject v = visit(held, inspector);
    jdbc.update("delete from member where account = ?", inspector);
    jdbc.update("update account set state = 'deactivated' where name = ?", inspector);
    assertThat(bring(file(document(v), Map.of())).visits()).isEqualTo(1);
    assertThat(state(v)).isEqualTo("waiting");
  }

  /** The coordinator of one project brings nothing into another, for nobody. */
  @Test
  void onlyWhatIsOfTheProjectIsTaken() throws Exception {
    SmallProject.Held mine = held;
    String me = inspector;
    SmallProject.Held theirs = project();
    String id = UUID.randomUUID().toString();
    JsonObject other = withPhoto(visit(theirs, inspector), id);
    String them = inspector;
    inspector = me;
    CarriedFiles.Brought b =
        carried.bring(
            mine.project(),
            file(document(other), Map.of("photos/" + id + ".jpg", photo)),
            coordinator);
    assertThat(b.visits()).isZero();
    assertThat(b.elsewhere()).isEqualTo(1);
    assertThat(b.unwanted()).isEqualTo(1);
    // said to be another person's than the round's: it is no visit, and kept apart
    JsonObject own = visit(mine, me);
    inspector = them;
    b = carried.bring(mine.project(), file(document(own), Map.of()), coordinator);
    assertThat(b.visits()).isZero();
    assertThat(b.setAside()).isEqualTo(1);
  }

  @Test
  void whatIsNoSuchFileIsRefusedAndNothingKept() throws Exception {
    JsonObject v = visit(held, inspector);
    Path good = file(document(v), Map.of());
    byte[] bytes = Files.readAllBytes(good);
    Map<String, Path> poor = new LinkedHashMap<>();
    poor.put("refused.carriedNoArchive", Files.write(tmp.resolve("cut"), Arrays.copyOf(bytes, 60)));
    byte[] garbled = bytes.clone();
    for (int i = 45; i < 80; i++) garbled[i] ^= 0x5a; // within the packed document
    Path broken = Files.write(tmp.resolve("garbled"), garbled);
    assertThatThrownBy(() -> bring(broken)).isInstanceOf(Refusal.class);
    poor.put("refused.carriedOther", file(document(v).set("format", "something else"), Map.of()));
    poor.put("refused.carriedNewer", file(document(v).set("version", 2), Map.of()));
    poor.put("refused.carriedDamaged", file(document(v).set("person", ""), Map.of()));
    poor.put("refused.handInNoId", file(document(v).set("id", "x"), Map.of()));
    poor.forEach(
        (why, file) ->
            assertThatThrownBy(() -> bring(file))
                .as(why)
                .isInstanceOfSatisfying(
                    Refusal.class, e -> assertThat(e.said().key()).isEqualTo(why)));
    assertThat(
            jdbc.queryForObject(
                "select count(*) from visit where round_id = ?", Integer.class, held.round()))
        .isZero();
  }

  /**
   * Bytes that are not those announced are not taken, and no more of them is read than announced.
   */
  @Test
  void damagedPhotosStayOnTheDevice() throws Exception {
    String longer = UUID.randomUUID().toString();
    String other = UUID.randomUUID().toString();
    JsonObject v = withPhoto(visit(held, inspector), longer);
    v.get("photos")
        .asArray()
        .add(new JsonObject(v.get("photos").asArray().get(0).asObject()).set("id", other));
    byte[] changed = photo.clone();
    changed[500] ^= 1;
    CarriedFiles.Brought b =
        bring(
            file(
                document(v),
                Map.of(
                    "photos/" + longer + ".jpg",
                    Arrays.copyOf(photo, photo.length + 1_000_000),
                    "photos/" + other + ".jpg",
                    changed)));
    assertThat(b.visits()).isEqualTo(1);
    assertThat(b.photos()).isZero();
    assertThat(b.unwanted()).isEqualTo(2);
    assertThat(photos.find(UUID.fromString(longer)).orElseThrow().received()).isFalse();
  }

  @Test
  void itComesInPiecesAndIsReportedToWhoMayKnow() throws Exception {
    JsonObject v = visit(held, inspector);
    byte[] bytes = Files.readAllBytes(file(document(v), Map.of()));
    String home = "/api/p/" + held.project().key() + "/carried-uploads";
    String place =
        mvc.perform(
                post(home)
                    .header("Tus-Resumable", "1.0.0")
                    .header("Upload-Length", bytes.length)
                    .with(user(coordinator))
                    .with(csrf()))
            .andReturn()
            .getResponse()
            .getHeader("Location");
    MockHttpServletResponse sent =
        mvc.perform(
                patch(place)
                    .header("Tus-Resumable", "1.0.0")
                    .header("Upload-Offset", "0")
                    .contentType("application/offset+octet-stream")
                    .content(bytes)
                    .with(user(coordinator))
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(sent.getStatus()).as(sent.getContentAsString()).isEqualTo(204);
    assertThat(state(v)).isEqualTo("waiting");
    String report = "/api/p/" + held.project().key() + "/carried/" + place.replaceAll(".*/", "");
    assertThat(
            mvc.perform(get(report).with(user(coordinator)))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .contains("\"visits\":1");
    assertThat(mvc.perform(get(report).with(user(inspector))).andReturn().getResponse().getStatus())
        .isEqualTo(403);
  }
}
