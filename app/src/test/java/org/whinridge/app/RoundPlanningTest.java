package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import net.sf.geographiclib.Geodesic;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.round.RoundAllows;
import org.whinridge.core.value.Value;

/** Planning rounds at the server: what is found, what it would be, what is made and what is not. */
class RoundPlanningTest extends DemoServerTest {
  private static final String ROUNDS = "/api/p/ostrey/rounds";
  @Autowired MockMvc mvc;
  @Autowired Layers layers;
  @Autowired Projects projects;
  @Autowired Forms forms;
  @Autowired Rounds rounds;
  @Autowired JdbcTemplate jdbc;

  private UUID project() {
    return projects.byKey("ostrey").id();
  }

  private Layer layer(String name) {
    return layers.list(project()).stream()
        .filter(l -> l.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  private UUID form(String title) {
    return forms.list(project()).stream()
        .filter(f -> f.form().title().equals(title))
        .findFirst()
        .orElseThrow()
        .id();
  }

  private MockHttpServletResponse sent(String to, JsonObject body) throws Exception {
    return mvc.perform(
            post(ROUNDS + to)
                .contentType("application/json")
                .content(body.toString())
                .with(user("coordinator"))
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private JsonObject asked(String to, JsonObject body) throws Exception {
    MockHttpServletResponse r = sent(to, body);
    String text = r.getContentAsString(StandardCharsets.UTF_8);
    assertThat(r.getStatus()).as(text).isEqualTo(200);
    return Json.parse(text).asObject();
  }

  private String refused(String to, JsonObject body) throws Exception {
    MockHttpServletResponse r = sent(to, body);
    assertThat(r.getStatus()).isBetween(400, 499);
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8))
        .asObject()
        .getString("message", "");
  }

  private static JsonArray texts(Iterable<?> all) {
    JsonArray a = new JsonArray();
    all.forEach(x -> a.add(x.toString()));
    return a;
  }

  private JsonObject on(String... names) {
    List<UUID> ids = new ArrayList<>();
    for (String n : names) ids.add(layer(n).id());
    return new JsonObject().add("layers", texts(ids));
  }

  private static List<String> found(JsonObject chosen) {
    List<String> out = new ArrayList<>();
    for (JsonValue l : chosen.get("layers").asArray())
      for (JsonValue f : l.asObject().get("features").asArray())
        out.add(f.asObject().getString("id", ""));
    return out;
  }

  private List<Feature> all(String layer) {
    return layers.first(layer(layer), 2000);
  }

  private static JsonObject shape(String type, String coordinates) {
    return new JsonObject().add("type", type).add("coordinates", Json.parse(coordinates));
  }

  @Test
  void aShapeFindsWhatItTouchesOnSeveralLayers() throws Exception {
    Envelope box = new Envelope(-10.25, -10.2, 57.88, 57.92);
    var rectangle = GeometryJson.WGS84.toGeometry(box);
    Set<String> expected = new HashSet<>();
    for (String name : List.of("Control structures", "Banks and drains", "Washlands"))
      for (Feature f : all(name))
        if (f.geometry().isPresent() && f.geometry().get().intersects(rectangle))
          expected.add(f.id());
    assertThat(expected).hasSizeGreaterThan(20);
    JsonObject chosen =
        asked(
            "/choosing",
            on("Control structures", "Banks and drains", "Washlands")
                .add("shape", GeometryJson.write(rectangle)));
    assertThat(found(chosen)).containsExactlyInAnyOrderElementsOf(expected);
    assertThat(chosen.get("layers").asArray()).hasSize(3);
  }

  /** Distances by GeographicLib, the reference implementation of Karney 2013. */
  @Test
  void whatLiesWithinSomeMetresIsMeasuredOverGround() throws Exception {
    Coordinate at = new Coordinate(-10.25, 57.885);
    Set<String> expected = new HashSet<>();
    for (Feature f : all("Control structures")) {
      Coordinate c = f.geometry().orElseThrow().getCoordinate();
      if (Geodesic.WGS84.Inverse(at.y, at.x, c.y, c.x).s12 <= 900) expected.add(f.id());
    }
    assertThat(expected).hasSizeBetween(2, 200);
    assertThat(
            found(
                asked(
                    "/choosing",
                    on("Control structures")
                        .add("shape", shape("Point", "[-10.25, 57.885]"))
                        .add("withinM", 900))))
        .containsExactlyInAnyOrderElementsOf(expected);
    assertThat(
            refused(
                "/choosing",
                on("Control structures")
                    .add("shape", shape("Point", "[-10.25, 57.885]"))
                    .add("withinM", 1e9)))
        .contains("50,000 m");
  }

  @Test
  void aShapeOverTheDateLineIsTakenAndOneBeyondThePolesIsRefused() throws Exception {
    JsonObject across =
        shape("Polygon", "[[[179, 57], [182, 57], [182, 58], [179, 58], [179, 57]]]");
    assertThat(found(asked("/choosing", on("Control structures").add("shape", across)))).isEmpty();
    JsonObject turned =
        shape(
            "Polygon",
            "[[[349.75, 57.88], [349.8, 57.88], [349.8, 57.92], [349.75, 57.92], [349.75, 57.88]]]");
    assertThat(found(asked("/choosing", on("Control structures").add("shape", turned))))
        .isNotEmpty();
    for (String bad :
        List.of(
            "[[[0, 80], [10, 80], [10, 95], [0, 95], [0, 80]]]",
            "[[[0, 0], [9000, 0], [9000, 10], [0, 10], [0, 0]]]"))
      assertThat(refused("/choosing", on("Control structures").add("shape", shape("Polygon", bad))))
          .contains("beyond the poles or more than once around", "as it was");
    assertThat(
            refused("/choosing", on("Control structures").add("shape", shape("Polygon", "[[1]]"))))
        .isNotBlank();
  }

  @Test
  void aRuleFindsWhatItHoldsForAndOneThatCannotBeReadSaysWhere() throws Exception {
    List<String> poor =
        all("Control structures").stream()
            .filter(f -> f.value("condition") instanceof Value.Num n && n.value() >= 4)
            .map(Feature::id)
            .toList();
    assertThat(poor).isNotEmpty();
    assertThat(found(asked("/choosing", on("Control structures").add("filter", "condition >= 4"))))
        .containsExactlyInAnyOrderElementsOf(poor);
    assertThat(refused("/choosing", on("Control structures").add("filter", "condition >> 4")))
        .isNotBlank();
    assertThat(found(asked("/choosing", on("Control structures")))).hasSize(240);
  }

  @Test
  void pastedTagsFindTheirFeaturesAndNameThoseThatHaveNone() throws Exception {
    List<Feature> some = all("Control structures").subList(0, 3);
    List<String> tags = some.stream().map(f -> f.value("tag").plain()).toList();
    String pasted =
        "\""
            + tags.get(0)
            + "\"\r\n"
            + tags.get(1).toLowerCase(java.util.Locale.ROOT)
            + ";"
            + tags.get(2)
            + "\t"
            + tags.get(0)
            + "\nNO-SUCH-TAG, <b>x</b>";
    JsonObject chosen =
        asked("/choosing", on("Control structures", "Washlands").add("tags", pasted));
    assertThat(found(chosen)).contains(some.get(0).id(), some.get(1).id(), some.get(2).id());
    assertThat(chosen.get("missing")).hasToString("[\"NO-SUCH-TAG\",\"<b>x</b>\"]");
    assertThat(chosen.get("twice")).hasToString("[\"" + tags.get(0) + "\"]");
  }

  @Test
  void whatWasNotVisitedSinceADayIsFound() throws Exception {
    LocalDate day =
        jdbc.queryForObject(
            "select cast(max(ended_at) as date) from visit where layer_id = ?",
            LocalDate.class,
            layer("Control structures").id());
    for (LocalDate since : List.of(LocalDate.of(2000, 1, 1), day.minusDays(60), day.plusDays(2))) {
      Set<String> visited =
          new HashSet<>(
              jdbc.queryForList(
                  "select distinct cast(feature_id as varchar) from visit where layer_id = ? and ended_at >= ? and state in ('waiting', 'accepted')",
                  String.class,
                  layer("Control structures").id(),
                  since.atStartOfDay(projects.byId(project()).zone()).toOffsetDateTime()));
      assertThat(
              found(asked("/choosing", on("Control structures").add("notSince", since.toString()))))
          .as(since.toString())
          .hasSize(240 - visited.size())
          .noneMatch(visited::contains);
    }
  }

  private JsonObject outlook(List<String> stops) {
    return new JsonObject()
        .add("forms", texts(List.of(form("Structure visit"), form("Washland visit"))))
        .add("stops", texts(stops));
  }

  private static double number(JsonValue o, String member) {
    return o.asObject().get(member).asDouble();
  }

  @Test
  void aRoundIsMeasuredOrderedAndSplitBeforeItIsMade() throws Exception {
    List<String> stops = new ArrayList<>();
    all("Control structures").subList(0, 40).forEach(f -> stops.add(f.id()));
    all("Washlands").subList(0, 3).forEach(f -> stops.add(f.id()));
    stops.add(UUID.randomUUID().toString());
    JsonObject given = asked("/outlook", outlook(stops));
    assertThat(given.getInt("gone", 0)).isEqualTo(1);
    assertThat(given.get("made").asArray()).hasSize(2);
    assertThat(given.get("made").toString()).contains("\"label\":\"Kind\"", "\"features\":40");
    JsonValue way = given.get("ways").asArray().get(0);
    // 12 minutes at a structure and 60 at a washland, 20 km/h on the way
    assertThat(number(way, "hours"))
        .isCloseTo((40 * 12 + 3 * 60) / 60.0 + number(way, "lengthM") / 20_000, within(1e-6));
    JsonValue best =
        asked("/outlook", outlook(stops).add("order", true)).get("ways").asArray().get(0);
    assertThat(number(best, "lengthM")).isLessThan(number(way, "lengthM") * 0.7);
    JsonArray two =
        asked("/outlook", outlook(stops).add("order", true).add("people", 2)).get("ways").asArray();
    assertThat(two).hasSize(2);
    double a = number(two.get(0), "hours");
    double b = number(two.get(1), "hours");
    assertThat(Math.abs(a - b) / Math.max(a, b)).isLessThan(0.1);
    assertThat(refused("/outlook", outlook(stops).add("people", 1000))).isNotBlank();
    assertThat(refused("/outlook", outlook(stops).add("travel", new JsonObject().add("kmh", 0))))
        .contains("km/h");
  }

  private JsonObject plan(String name) {
    return new JsonObject()
        .add("name", name)
        .add("forms", texts(List.of(form("Structure visit"), form("Washland visit"))))
        .add("allows", RoundAllows.STOPS.id());
  }

  private static JsonObject part(List<String> people, List<String> stops) {
    JsonArray all = new JsonArray();
    for (String s : stops) all.add(new JsonObject().add("id", s).add("note", "ring first"));
    return new JsonObject().add("people", texts(people)).add("stops", all);
  }

  private static JsonArray parts(JsonObject... all) {
    JsonArray a = new JsonArray();
    for (JsonObject p : all) a.add(p);
    return a;
  }

  @Test
  void aRoundHasItsStopsInTheOrderThatWasPlannedEachOnce() throws Exception {
    List<String> stops = new ArrayList<>();
    all("Washlands").subList(0, 2).forEach(f -> stops.add(f.id()));
    all("Control structures").subList(5, 9).forEach(f -> stops.add(f.id()));
    List<String> planned = new ArrayList<>(stops);
    planned.add(stops.get(0));
    planned.add(UUID.randomUUID().toString());
    JsonObject made =
        asked(
            "",
            plan("<b>By hand</b>")
                .add("note", "Park at the pump house")
                .add("due", LocalDate.now().plusDays(3).toString())
                .add("travel", Json.parse("{\"kmh\": 5, \"start\": [-10.2, 57.9]}"))
                .add("parts", parts(part(List.of(), planned))));
    String id = made.get("rounds").asArray().get(0).asString();
    Round r = rounds.get(project(), UUID.fromString(id));
    assertThat(r.stops())
        .extracting(s -> s.featureId().toString())
        .containsExactlyElementsOf(stops);
    assertThat(r.stops()).allSatisfy(s -> assertThat(s.note().text()).isEqualTo("ring first"));
    assertThat(r.isForAnyone()).isTrue();
    assertThat(r.forms()).containsExactly(form("Structure visit"), form("Washland visit"));
    assertThat(r.travel().kmh()).isEqualTo(5);
    String page =
        mvc.perform(get(made.getString("address", "")).with(user("coordinator")))
            .andReturn()
            .getResponse()
            .getContentAsString();
    assertThat(page)
        .contains("&lt;b&gt;By hand&lt;/b&gt;", "anyone of the project")
        .doesNotContain("<b>By hand");
    String copied =
        mvc.perform(get(ROUNDS + "/planning").param("like", id).with(user("coordinator")))
            .andReturn()
            .getResponse()
            .getContentAsString();
    JsonObject like = Json.parse(copied).asObject().get("like").asObject();
    assertThat(like.get("stops").asArray()).hasSize(stops.size());
    assertThat(like.getString("name", "")).isEqualTo("<b>By hand</b>");
  }

  @Test
  void stopsThatAreSplitBecomeRoundsNamedAfterWhoGoes() throws Exception {
    List<String> some = all("Control structures").stream().map(Feature::id).limit(10).toList();
    JsonObject made =
        asked(
            "",
            plan("Spring")
                .add(
                    "parts",
                    parts(
                        part(List.of("inspector1"), some.subList(0, 4)),
                        part(List.of("inspector2"), some.subList(4, 10)))));
    assertThat(made.getString("address", "")).isEqualTo("/p/ostrey/rounds");
    List<Round> both =
        made.get("rounds").asArray().values().stream()
            .map(v -> rounds.get(project(), UUID.fromString(v.asString())))
            .toList();
    assertThat(both)
        .extracting(Round::name)
        .containsExactly("Spring: inspector1", "Spring: inspector2");
    assertThat(both).extracting(r -> r.stops().size()).containsExactly(4, 6);
  }

  @Test
  void aRoundThatCannotBeIsRefusedInWordsAndNothingIsMade() throws Exception {
    List<String> some = all("Control structures").stream().map(Feature::id).limit(3).toList();
    JsonArray fit = parts(part(List.of("inspector1"), some));
    long before = rounds.count(project());
    assertThat(refused("", plan(" ").add("parts", fit))).contains("needs a name");
    assertThat(refused("", plan("x".repeat(121)).add("parts", fit))).contains("needs a name");
    assertThat(refused("", plan("x").add("parts", parts(part(List.of("nobody"), some)))))
        .contains("who goes");
    assertThat(
            refused(
                "",
                plan("x")
                    .add(
                        "parts",
                        parts(part(List.of(), some), part(List.of("inspector1"), List.of())))))
        .as("all or none")
        .contains("Nothing that is there is selected");
    assertThat(
            refused(
                "",
                plan("x")
                    .add("parts", parts(part(List.of(), List.of(UUID.randomUUID().toString()))))))
        .contains("Nothing that is there is selected");
    List<String> many = new ArrayList<>();
    for (int i = 0; i < 5001; i++) many.add(UUID.randomUUID().toString());
    many.add(many.get(0));
    assertThat(refused("", plan("x").add("parts", parts(part(List.of(), many)))))
        .contains("5,001 stops are selected", "at most 5,000", "as it was");
    assertThat(refused("", plan("x").add("parts", fit).add("due", "2020-01-01")))
        .contains("2020-01-01 has passed");
    assertThat(
            refused(
                "",
                plan("x")
                    .add("parts", fit)
                    .add("starts", LocalDate.now().plusDays(9).toString())
                    .add("due", LocalDate.now().plusDays(3).toString())))
        .contains("before it starts");
    assertThat(refused("", plan("x").add("parts", fit).add("due", "soon"))).contains("due");
    assertThat(refused("", plan("x").add("parts", fit).set("allows", "everything")))
        .contains("allows");
    assertThat(refused("", plan("x").add("parts", fit).set("forms", new JsonArray()))).isNotBlank();
    UUID draft = forms.fromLayer(project(), layer("Beats").id());
    assertThat(refused("", plan("x").add("parts", fit).set("forms", texts(List.of(draft)))))
        .contains("no published edition");
    assertThat(
            refused(
                "", plan("x").add("parts", fit).set("forms", texts(List.of(UUID.randomUUID())))))
        .isNotBlank();
    assertThat(rounds.count(project())).isEqualTo(before);
  }
}
