package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.whinridge.app.form.FormBeginning;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.FeatureChange;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.RoundMaking;
import org.whinridge.app.round.Rounds;
import org.whinridge.core.access.Role;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.round.StopState;
import org.whinridge.core.round.Travel;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Packs told before they are taken out and known again; rounds on paper; forms out of files. */
class RoundPacksTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired FormBeginning beginning;
  @Autowired Layers layers;
  @Autowired LayerMaking layerMaking;
  @Autowired Looks looks;
  @Autowired Rounds rounds;
  @Autowired JdbcTemplate jdbc;
  @Autowired RoundMaking making;
  private SmallProject.Held held;
  private final Map<Role, String> people = new EnumMap<>(Role.class);

  @BeforeEach
  void another() throws Exception {
    int n = ++next;
    for (Role r : Role.values()) people.put(r, "pack-" + r.id() + "-" + n);
    held = small.make("packs-" + n, "Packs " + n, people);
  }

  private MockHttpServletResponse done(MockHttpServletRequestBuilder q, Role who) throws Exception {
    return mvc.perform(q.with(user(people.get(who))).with(csrf())).andReturn().getResponse();
  }

  private String text(MockHttpServletRequestBuilder q, Role who) throws Exception {
    MockHttpServletResponse r = done(q, who);
    String text = r.getContentAsString(StandardCharsets.UTF_8);
    assertThat(r.getStatus()).as(text).isEqualTo(200);
    return text;
  }

  private JsonObject json(MockHttpServletRequestBuilder q, Role who) throws Exception {
    return Json.parse(text(q, who)).asObject();
  }

  private String api() {
    return "/api/p/" + held.project().key() + "/rounds/";
  }

  private JsonObject manifest() throws Exception {
    return json(get("/api/day/rounds/" + held.round() + "/manifest"), Role.INSPECTOR);
  }

  private String stamp() throws Exception {
    return json(get("/api/day/me"), Role.INSPECTOR)
        .get("rounds")
        .asArray()
        .get(0)
        .asObject()
        .getString("stamp", "");
  }

  /** Thirty devices at once have one manifest made; a contact says when there is another. */
  @Test
  void aPackIsMadeOnceAndAContactSaysWhenItIsAnother() throws Exception {
    JsonObject first = manifest();
    assertThat(manifest()).isEqualTo(first);
    assertThat(stamp()).isEqualTo(first.getString("stamp", ""));
    layers.write(
        new FeatureChange(
            held.layer(),
            held.feature(),
            false,
            Map.of("notes", Value.text("seen")),
            Optional.empty(),
            people.get(Role.COORDINATOR),
            "desk",
            Optional.empty(),
            Optional.empty(),
            Said.text("seen"),
            Instant.now()));
    assertThat(stamp()).isNotEqualTo(first.getString("stamp", ""));
    JsonObject second = manifest();
    assertThat(second.getString("stamp", "")).isEqualTo(stamp());
    assertThat(changed(first, second))
        .contains("features-" + held.layer())
        .doesNotContain("form-" + held.form(), "basemap");
  }

  private static List<String> changed(JsonObject a, JsonObject b) {
    List<String> before = a.get("parts").asArray().values().stream().map(Object::toString).toList();
    return b.get("parts").asArray().values().stream()
        .filter(p -> !before.contains(p.toString()))
        .map(p -> p.asObject().getString("name", ""))
        .toList();
  }

  @Test
  void howLargeAPackIsIsToldBeforeItsRoundIsMade() throws Exception {
    JsonObject plan =
        new JsonObject()
            .add("name", "Not made")
            .add("forms", new JsonArray().add(held.form().toString()))
            .add(
                "parts",
                new JsonArray()
                    .add(
                        new JsonObject()
                            .add("people", new JsonArray())
                            .add(
                                "stops",
                                new JsonArray()
                                    .add(new JsonObject().add("id", held.feature().toString())))));
    JsonObject told =
        json(
            post(api() + "pack").contentType("application/json").content(plan.toString()),
            Role.COORDINATOR);
    JsonObject assets =
        told.get("parts").asArray().values().stream()
            .map(p -> p.asObject())
            .filter(p -> p.getString("part", "").equals("assets"))
            .findFirst()
            .orElseThrow();
    assertThat(assets.getInt("n", 0)).isEqualTo(1);
    assertThat(assets.getInt("of", 0)).isEqualTo(5);
    long sum = 0;
    for (var p : told.get("parts").asArray()) sum += p.asObject().getLong("bytes", 0);
    assertThat(sum).isEqualTo(told.getLong("bytes", -1));
    JsonObject made = json(get(api() + held.round() + "/pack"), Role.REVIEWER);
    assertThat(made.getLong("bytes", 0)).isEqualTo(manifest().getLong("bytes", -1));
  }

  @Test
  void aRoundIsHandedOverByLinkAndOnPaper() throws Exception {
    UUID odd =
        making
            .make(
                held.project().id(),
                RoundMaking.Plan.of(
                    "<b>North</b> & south",
                    held.form(),
                    people.get(Role.INSPECTOR),
                    List.of(held.feature())),
                people.get(Role.COORDINATOR))
            .rounds()
            .get(0);
    String page = "/p/" + held.project().key() + "/rounds/" + odd;
    assertThat(text(get(page + "/hand-over"), Role.REVIEWER))
        .contains("/day#round=" + odd)
        .contains("data:image/svg")
        .contains("&lt;b&gt;North&lt;/b&gt; &amp; south");
    assertThat(text(get(page + "/print"), Role.REVIEWER))
        .contains("<svg xmlns")
        .contains("&lt;b&gt;North")
        .contains("m long. North is up.");
    assertThat(done(get(page + "/print"), Role.READER).getStatus()).isEqualTo(403);
  }

  private JsonObject part(UUID round, String name) throws Exception {
    return json(get("/api/day/rounds/" + round + "/parts/" + name), Role.INSPECTOR);
  }

  /**
   * A layer of the map that is too large for features travels as tiles, but not what the office
   * keeps.
   */
  @Test
  void aLargeLayerOfTheMapTravelsAsTiles() throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(
                Field.of("tag", "Tag", FieldType.TEXT),
                Field.of("cost", "Cost centre", FieldType.TEXT).inOffice()),
            "tag",
            List.of("tag"));
    UUID many =
        layerMaking.make(
            held.project().id(),
            "Many",
            schema,
            Said.text("made"),
            people.get(Role.COORDINATOR),
            take -> {
              for (int i = 0; i < 5_100; i++)
                take.accept(
                    new Feature(
                        UUID.randomUUID().toString(),
                        Optional.of(
                            GeometryJson.WGS84.createPoint(
                                new Coordinate(-10.3 + (i % 100) * 1e-4, 57.88 + i / 100 * 1e-4))),
                        Map.of("tag", Value.text("M-" + i)),
                        1));
            });
    UUID open = open(GeometryJson.parse(square(-10.31, 57.87, -10.25, 57.9)).orElseThrow());
    JsonObject manifest = json(get("/api/day/rounds/" + open + "/manifest"), Role.INSPECTOR);
    assertThat(manifest.get("parts").toString()).contains("tiles-" + many);
    assertThat(manifest.get("told").toString()).contains("\"part\":\"tiles\",\"name\":\"Many\"");
    JsonObject map =
        part(open, "map").get("layers").asArray().values().stream()
            .map(l -> l.asObject())
            .filter(l -> l.getString("id", "").equals(many.toString()))
            .findFirst()
            .orElseThrow();
    assertThat(map.getBoolean("tiled", false)).isTrue();
    assertThat(map.get("features").asArray()).isEmpty();
    JsonObject tiles = part(open, "tiles-" + many);
    assertThat(tiles.getInt("most", 0)).isGreaterThan(tiles.getInt("least", 99));
    assertThat(tiles.get("tiles").asObject().names())
        .isNotEmpty()
        .allMatch(k -> k.matches("\\d+/\\d+/\\d+"));
    looks.save(
        layers.byId(many),
        Look.read(
            Look.plain(GeometryKind.POINT).with(new Look.Label("{cost}", 12, 0)).json().toString()),
        0);
    assertThat(
            json(get("/api/day/rounds/" + open + "/manifest"), Role.INSPECTOR)
                .get("parts")
                .toString())
        .as("its look shows what stays in the office")
        .doesNotContain("tiles-" + many);
  }

  private static String square(double west, double south, double east, double north) {
    return "{\"type\":\"Polygon\",\"coordinates\":[[[%1$s,%2$s],[%3$s,%2$s],[%3$s,%4$s],[%1$s,%4$s],[%1$s,%2$s]]]}"
        .formatted(west, south, east, north);
  }

  /** An open round in an area. */
  private UUID open(Geometry area) {
    return making
        .make(
            held.project().id(),
            new RoundMaking.Plan(
                "Area",
                Note.NONE,
                new Round.When(Optional.empty(), Optional.empty(), 0),
                List.of(held.form()),
                RoundAllows.ANY,
                Optional.of(area),
                Travel.USUAL,
                false,
                List.of(new RoundMaking.Part(List.of(people.get(Role.INSPECTOR)), List.of()))),
            people.get(Role.COORDINATOR))
        .rounds()
        .get(0);
  }

  private UUID points(String name, Coordinate... at) throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(Field.of("tag", "Tag", FieldType.TEXT)),
            "tag",
            List.of("tag"));
    return layerMaking.make(
        held.project().id(),
        name,
        schema,
        Said.text("made"),
        people.get(Role.COORDINATOR),
        take -> {
          for (Coordinate c : at)
            take.accept(
                new Feature(
                    UUID.randomUUID().toString(),
                    Optional.of(GeometryJson.WGS84.createPoint(c)),
                    Map.of(),
                    1));
        });
  }

  /** In an open round what lies in its area travels, and an area may go on across the date line. */
  @Test
  void whatLiesInItsAreaTravels() throws Exception {
    Feature first = layers.feature(layers.byId(held.layer()), held.feature()).orElseThrow();
    Coordinate c = first.geometry().orElseThrow().getCoordinate();
    UUID open =
        open(
            GeometryJson.parse(square(c.x - 1e-5, c.y - 1e-5, c.x + 1e-5, c.y + 1e-5))
                .orElseThrow());
    JsonArray there = part(open, "features-" + held.layer()).get("features").asArray();
    assertThat(there).hasSize(1);
    assertThat(there.get(0).asObject().getString("id", "")).isEqualTo(held.feature().toString());
    UUID beside = points("Beside", new Coordinate(179.5, -16.5), new Coordinate(0, -16.5));
    JsonObject plan =
        new JsonObject()
            .add("name", "Over the line")
            .add("forms", new JsonArray().add(held.form().toString()))
            .add("allows", RoundAllows.NEW.id())
            .add("area", Json.parse(square(179, -17, 181, -16)))
            .add(
                "parts",
                new JsonArray()
                    .add(
                        new JsonObject()
                            .add("people", new JsonArray())
                            .add("stops", new JsonArray())));
    String id =
        json(
                post(api().substring(0, api().length() - 1))
                    .contentType("application/json")
                    .content(plan.toString()),
                Role.COORDINATOR)
            .get("rounds")
            .asArray()
            .get(0)
            .asString();
    assertThat(part(UUID.fromString(id), "features-" + held.layer()).get("features").asArray())
        .isEmpty();
    // what lies between the two sides of the line the other way round does not travel
    JsonObject onMap =
        part(UUID.fromString(id), "map").get("layers").asArray().values().stream()
            .map(l -> l.asObject())
            .filter(l -> l.getString("id", "").equals(beside.toString()))
            .findFirst()
            .orElseThrow();
    assertThat(onMap.get("features").asArray()).hasSize(1);
    assertThat(onMap.get("features").toString()).contains("179.5");
    plan.set("area", Json.parse("{\"type\":\"Point\",\"coordinates\":[0,0]}"));
    assertThat(
            done(
                    post(api().substring(0, api().length() - 1))
                        .contentType("application/json")
                        .content(plan.toString()),
                    Role.COORDINATOR)
                .getStatus())
        .isEqualTo(422);
  }

  /** What did not travel is found while there is a link, where the round allows it. */
  @Test
  void assetsThatDidNotTravelAreFoundAtTheOffice() throws Exception {
    Feature first = layers.feature(layers.byId(held.layer()), held.feature()).orElseThrow();
    String tag = first.value("tag").plain();
    Coordinate c = first.geometry().orElseThrow().getCoordinate();
    UUID open =
        open(GeometryJson.parse(square(c.x + 1, c.y + 1, c.x + 1.1, c.y + 1.1)).orElseThrow());
    String at = "/api/day/rounds/" + open + "/assets?";
    assertThat(text(get(at + "text=" + tag.toLowerCase(java.util.Locale.ROOT)), Role.INSPECTOR))
        .contains(held.feature().toString())
        .contains("\"caption\"");
    assertThat(text(get(at + "lon=" + c.x + "&lat=" + c.y + "&within=5"), Role.INSPECTOR))
        .contains(held.feature().toString());
    assertThat(text(get(at).param("text", "%'_\\"), Role.INSPECTOR)).isEqualTo("[]");
    for (String bad : new String[] {"text=a", "lon=999&lat=1", "lon=1", "lon=1&lat=1&within=1e9"})
      assertThat(done(get(at + bad), Role.INSPECTOR).getStatus()).as(bad).isEqualTo(422);
    assertThat(text(get("/api/day/rounds/" + held.round() + "/assets?text=" + tag), Role.INSPECTOR))
        .as("a round of stops alone")
        .isEqualTo("[]");
  }

  /** Where people are is for those alone who send them there. */
  @Test
  void positionsAreToldToThoseAloneWhoPlan() throws Exception {
    UUID telling =
        making
            .make(
                held.project().id(),
                RoundMaking.Plan.of(
                        "Telling", held.form(), people.get(Role.INSPECTOR), List.of(held.feature()))
                    .with("", LocalDate.of(2099, 1, 1)),
                people.get(Role.COORDINATOR))
            .rounds()
            .get(0);
    jdbc.update(
        "insert into device (id, account, own_id, name, paired_at, paired_by, contact_at, lon, lat, position_at) values (random_uuid(), ?, 'x', 'phone', now(), 'code', now(), -10.2, 57.9, now())",
        people.get(Role.INSPECTOR));
    assertThat(text(get(api() + telling + "/live"), Role.COORDINATOR)).contains("\"at\":[-10.2");
    assertThat(text(get(api() + telling + "/live"), Role.REVIEWER))
        .contains("\"contact\"")
        .doesNotContain("\"at\":[");
  }

  /** A stop is taken by the one who starts it, as their device tells at a contact. */
  @Test
  void aStopIsTakenByTheOneWhoStartsIt() throws Exception {
    UUID shared =
        making
            .make(
                held.project().id(),
                new RoundMaking.Plan(
                    "Shared",
                    Note.NONE,
                    new Round.When(Optional.empty(), Optional.empty(), 0),
                    List.of(held.form()),
                    RoundAllows.STOPS,
                    Optional.empty(),
                    Travel.USUAL,
                    false,
                    List.of(
                        new RoundMaking.Part(
                            List.of(), List.of(new RoundMaking.Stop(held.feature(), Note.NONE))))),
                people.get(Role.COORDINATOR))
            .rounds()
            .get(0);
    assertThat(begun(shared, Role.INSPECTOR)).isEqualTo(200);
    Round.Stop stop = rounds.get(held.project().id(), shared).stops().get(0);
    assertThat(stop.state()).isEqualTo(StopState.STARTED);
    assertThat(stop.person()).hasValue(people.get(Role.INSPECTOR));
    // who comes second takes nothing away
    assertThat(begun(shared, Role.COORDINATOR)).isEqualTo(200);
    assertThat(rounds.get(held.project().id(), shared).stops().get(0).person())
        .hasValue(people.get(Role.INSPECTOR));
    // somebody of another project reaches nothing here, though it is for anyone
    Map<Role, String> others = new EnumMap<>(Role.class);
    for (Role r : Role.values()) others.put(r, "other-" + people.get(r));
    small.make("other-" + held.project().key(), "Other " + next, others);
    UUID second =
        making
            .make(
                held.project().id(),
                new RoundMaking.Plan(
                    "For anyone",
                    Note.NONE,
                    new Round.When(Optional.empty(), Optional.empty(), 0),
                    List.of(held.form()),
                    RoundAllows.STOPS,
                    Optional.empty(),
                    Travel.USUAL,
                    false,
                    List.of(
                        new RoundMaking.Part(
                            List.of(), List.of(new RoundMaking.Stop(held.feature(), Note.NONE))))),
                people.get(Role.COORDINATOR))
            .rounds()
            .get(0);
    mvc.perform(
        post("/api/day/contact")
            .contentType("application/json")
            .content(begunBody(second))
            .with(user(others.get(Role.INSPECTOR)))
            .with(csrf()));
    assertThat(rounds.get(held.project().id(), second).stops().get(0).state())
        .isEqualTo(StopState.TO_DO);
    // a round that is somebody else's is left alone, without a word of it
    assertThat(begun(held.round(), Role.COORDINATOR)).isEqualTo(200);
    assertThat(rounds.get(held.project().id(), held.round()).stops().get(0).state())
        .isEqualTo(StopState.TO_DO);
  }

  private String begunBody(UUID round) {
    return "{\"visits\":[],\"begun\":[{\"round\":\"%s\",\"feature\":\"%s\"}]}"
        .formatted(round, held.feature());
  }

  private int begun(UUID round, Role who) throws Exception {
    return done(
            post("/api/day/contact").contentType("application/json").content(begunBody(round)), who)
        .getStatus();
  }

  /** A form that was opened from a file on a device is known again when the project has it. */
  @Test
  void aFormOfAFileIsKnownAgain(@TempDir Path tmp) throws Exception {
    String file =
        "{\"title\":\"Gate check\",\"sections\":[{\"title\":\"\",\"questions\":[{\"name\":\"gate\",\"label\":\"Gate\",\"type\":\"text\"}]}]}";
    String hash =
        org.whinridge.app.shell.Sha256.of(
            Form.read(file).json().toString().getBytes(StandardCharsets.UTF_8));
    UUID open =
        making
            .make(
                held.project().id(),
                new RoundMaking.Plan(
                    "Open",
                    Note.NONE,
                    new Round.When(Optional.empty(), Optional.empty(), 0),
                    List.of(held.form()),
                    RoundAllows.NEW,
                    Optional.empty(),
                    Travel.USUAL,
                    false,
                    List.of(new RoundMaking.Part(List.of(people.get(Role.INSPECTOR)), List.of()))),
                people.get(Role.COORDINATOR))
            .rounds()
            .get(0);
    String at = "/api/day/rounds/" + open + "/form-files/" + hash;
    assertThat(done(get(at), Role.INSPECTOR).getStatus()).isEqualTo(404);
    UUID form =
        beginning
            .fromFile(
                held.project().id(),
                Optional.of(held.layer()),
                Files.writeString(tmp.resolve("gates.json"), file),
                people.get(Role.COORDINATOR))
            .form();
    assertThat(done(get(at), Role.INSPECTOR).getStatus())
        .as("not while it is a draft")
        .isEqualTo(404);
    forms.publish(held.project().id(), form, people.get(Role.COORDINATOR));
    JsonObject work = json(get(at), Role.INSPECTOR);
    assertThat(work.getString("id", "")).isEqualTo(form.toString());
    assertThat(work.getInt("edition", 0)).isEqualTo(1);
    // a round of stops alone takes its own forms only
    assertThat(
            done(get("/api/day/rounds/" + held.round() + "/form-files/" + hash), Role.INSPECTOR)
                .getStatus())
        .isEqualTo(404);
    JsonObject v =
        SmallVisit.of(
            json(get("/api/day/rounds/" + open + "/parts/features-" + held.layer()), Role.INSPECTOR)
                .get("features")
                .asArray()
                .get(0)
                .asObject(),
            open,
            people.get(Role.INSPECTOR));
    assertThat(sent(v.add("formFile", hash))).isEqualTo("set aside");
    JsonObject bound = v.set("id", UUID.randomUUID().toString()).add("form", form.toString());
    assertThat(sent(bound)).isEqualTo("waiting");
  }

  private String sent(JsonObject visit) throws Exception {
    JsonObject handIn =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("device", "phone")
            .add("person", people.get(Role.INSPECTOR))
            .add("visits", new JsonArray().add(visit));
    return json(
            post("/api/day/hand-ins").contentType("application/json").content(handIn.toString()),
            Role.INSPECTOR)
        .get("visits")
        .asArray()
        .get(0)
        .asObject()
        .getString("state", "");
  }
}
