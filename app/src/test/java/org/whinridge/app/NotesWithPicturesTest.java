package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.AbstractMockHttpServletRequestBuilder;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.core.access.Role;

/** Notes of rounds and stops have pictures, which travel with the round. */
class NotesWithPicturesTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired DataFolder data;

  private SmallProject.Held held;
  private final Map<Role, String> people = new EnumMap<>(Role.class);

  @BeforeEach
  void another() throws Exception {
    int n = ++next;
    for (Role r : Role.values()) people.put(r, "note-" + r.id() + "-" + n);
    held = small.make("notes-" + n, "Notes " + n, people);
  }

  private MockHttpServletResponse done(AbstractMockHttpServletRequestBuilder<?> q, Role who)
      throws Exception {
    return mvc.perform(q.with(user(people.get(who))).with(csrf())).andReturn().getResponse();
  }

  private JsonObject json(AbstractMockHttpServletRequestBuilder<?> q, Role who) throws Exception {
    MockHttpServletResponse r = done(q, who);
    String text = r.getContentAsString(StandardCharsets.UTF_8);
    assertThat(r.getStatus()).as(text).isEqualTo(200);
    return Json.parse(text).asObject();
  }

  private String api() {
    return "/api/p/" + held.project().key() + "/";
  }

  /** Keeps a picture of another width each time, so that none is another again. */
  private String picture(int width) throws Exception {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(new BufferedImage(width, 40, BufferedImage.TYPE_BYTE_BINARY), "png", out);
    return json(
            multipart(api() + "round-pictures")
                .file(new MockMultipartFile("file", "gate.png", "", out.toByteArray())),
            Role.COORDINATOR)
        .getString("id", "");
  }

  private MockHttpServletResponse plan(List<String> ofRound, List<String> ofStop) throws Exception {
    JsonObject stop =
        new JsonObject()
            .add("id", held.feature().toString())
            .add("note", "key under the stone")
            .add("pictures", Json.array(ofStop.toArray(String[]::new)));
    JsonObject part =
        new JsonObject()
            .add("people", Json.array(people.get(Role.INSPECTOR)))
            .add("stops", new JsonArray().add(stop));
    JsonObject plan =
        new JsonObject()
            .add("name", "With pictures")
            .add("note", " ")
            .add("pictures", Json.array(ofRound.toArray(String[]::new)))
            .add("forms", Json.array(held.form().toString()))
            .add("parts", new JsonArray().add(part));
    return done(
        post(api() + "rounds").contentType("application/json").content(plan.toString()),
        Role.COORDINATOR);
  }

  private static List<String> texts(JsonArray all) {
    return all.values().stream().map(v -> v.asString()).toList();
  }

  @Test
  void theyTravelWithTheRoundAreSeenAtTheDeskAndComeAlongInACopy() throws Exception {
    String way = picture(60);
    String gate = picture(61);
    MockHttpServletResponse made = plan(List.of(way), List.of(gate, way, gate));
    assertThat(made.getStatus()).as(made.getContentAsString()).isEqualTo(200);
    String round =
        Json.parse(made.getContentAsString()).asObject().get("rounds").asArray().get(0).asString();
    String pack = "/api/day/rounds/" + round;
    JsonObject manifest = json(get(pack + "/manifest"), Role.INSPECTOR);
    List<String> files = new ArrayList<>();
    for (var p : manifest.get("parts").asArray())
      if (p.asObject().getString("name", "").startsWith("file-"))
        files.add(p.asObject().getString("name", ""));
    assertThat(files).containsExactly("file-" + way, "file-" + gate);
    assertThat(manifest.get("told").toString()).contains("\"pictures\"");
    JsonObject plan = json(get(pack + "/parts/round?hash=x"), Role.INSPECTOR);
    assertThat(texts(plan.get("round").asObject().get("pictures").asArray())).containsExactly(way);
    JsonObject stop = plan.get("stops").asArray().get(0).asObject();
    assertThat(texts(stop.get("pictures").asArray())).containsExactly(gate, way);
    JsonObject file = json(get(pack + "/parts/file-" + gate + "?hash=x"), Role.INSPECTOR);
    assertThat(file.getString("type", "")).isEqualTo("image/jpeg");
    // a picture that no note of this round has is no part of it
    assertThat(
            done(get(pack + "/parts/file-" + picture(62) + "?hash=x"), Role.INSPECTOR).getStatus())
        .isEqualTo(404);
    JsonObject live = json(get(api() + "rounds/" + round + "/live"), Role.REVIEWER);
    assertThat(texts(live.get("stops").asArray().get(0).asObject().get("pictures").asArray()))
        .containsExactly(gate, way);
    String page = "/p/" + held.project().key() + "/rounds/" + round;
    for (String at : List.of(page, page + "/print"))
      assertThat(done(get(at), Role.COORDINATOR).getContentAsString())
          .contains("form-files/" + way);
    assertThat(done(get(page + "/print"), Role.COORDINATOR).getContentAsString())
        .contains("form-files/" + gate);
    JsonObject copied =
        json(get(api() + "rounds/planning?like=" + round), Role.COORDINATOR).get("like").asObject();
    assertThat(texts(copied.get("pictures").asArray())).containsExactly(way);
    assertThat(copied.get("stops").asArray().get(0).asObject().get("pictures").asArray())
        .hasSize(2);
  }

  @Test
  void whatIsNoPictureOfThisProjectOrTooManyIsRefusedAndNothingIsMade() throws Exception {
    List<String> seven = new ArrayList<>();
    for (int i = 0; i < 7; i++) seven.add(picture(70 + i));
    MockHttpServletResponse many = plan(List.of(), seven);
    assertThat(many.getStatus()).isEqualTo(422);
    assertThat(many.getContentAsString(StandardCharsets.UTF_8)).contains("at most 6 pictures");
    MockHttpServletResponse words = plan(List.of("../../etc/passwd"), List.of());
    assertThat(words.getStatus()).isEqualTo(422);
    String theirs = picture(80);
    another();
    MockHttpServletResponse foreign = plan(List.of(theirs), List.of());
    assertThat(foreign.getStatus()).isEqualTo(422);
    assertThat(foreign.getContentAsString(StandardCharsets.UTF_8)).contains("not kept here");
    JsonObject me = json(get("/api/day/me"), Role.INSPECTOR);
    assertThat(me.get("rounds").asArray()).hasSize(1);
    assertThat(
            done(
                    multipart(api() + "round-pictures")
                        .file(new MockMultipartFile("file", "x.png", "", new byte[3])),
                    Role.INSPECTOR)
                .getStatus())
        .isEqualTo(403);
  }

  @Test
  void thePackOfARoundIsMadeBeforeADeviceAsksForIt() throws Exception {
    String gate = picture(90);
    MockHttpServletResponse made = plan(List.of(), List.of(gate));
    String round =
        Json.parse(made.getContentAsString()).asObject().get("rounds").asArray().get(0).asString();
    Path there = data.folder("packs").resolve(round);
    Set<String> named = Set.of();
    for (int i = 0; i < 200 && !named.contains("file-" + gate); i++) {
      Thread.sleep(50);
      named = names(there);
    }
    assertThat(named).as("nobody asked yet").contains("round", "file-" + gate);
    JsonObject manifest = json(get("/api/day/rounds/" + round + "/manifest"), Role.INSPECTOR);
    assertThat(names(there)).hasSameSizeAs(manifest.get("parts").asArray());
  }

  private static Set<String> names(Path folder) throws Exception {
    if (!Files.isDirectory(folder)) return Set.of();
    try (Stream<Path> all = Files.list(folder)) {
      return all.map(p -> p.getFileName().toString())
          .filter(n -> !n.endsWith(".new"))
          .map(n -> n.substring(0, n.lastIndexOf('.')))
          .collect(Collectors.toSet());
    }
  }
}
