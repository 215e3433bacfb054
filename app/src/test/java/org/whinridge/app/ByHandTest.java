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
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** What is made, drawn and typed at the desk: limits, defaults, one act once, others in the way. */
@ActiveProfiles("demo")
class ByHandTest extends FilesTest {
  private static final String FIELDS =
      "[{'name':'tag','label':'Tag','unique':true,'nullable':false,'length':6},"
          + "{'name':'kind','label':'Kind','type':'code','codes':[{'code':'a','label':'A'},{'code':'b','label':'B','retired':true}]},"
          + "{'name':'n','label':'N','type':'whole'},{'name':'t','label':'T','type':'time'},"
          + "{'name':'e','label':'Easting','type':'decimal','readOnly':true,'start':{'formula':'easting(place)'}},"
          + "{'name':'made','label':'Made','start':{'fixed':'by hand'}},{'name':'id','label':'Id','type':'unique_id'}]";
  private static int count;
  @Autowired LayerMaking making;
  @Autowired LayerChanges changes;
  @Autowired PlatformTransactionManager transactions;

  private static JsonObject json(String s) {
    return Json.parse(s.replace('\'', '"')).asObject();
  }

  private Layer made() throws Exception {
    Schema schema =
        Schema.read(
            json(
                "{'kind':'point','tagField':'tag','captionFields':['tag'],'fields':"
                    + FIELDS
                    + "}"));
    return layers.byId(
        making.make(
            projects.byKey("ostrey").id(),
            "By hand " + ++count,
            schema,
            Said.text("made at the desk"),
            "coordinator",
            take -> {}));
  }

  private static JsonObject fresh(String set) {
    return json("{'isNew':true,'geometry':{'type':'Point','coordinates':[-10.2,57.9]},'set':"
            + set
            + "}")
        .add("id", UUID.randomUUID().toString());
  }

  private static String body(UUID act, JsonObject... edits) {
    JsonArray all = new JsonArray();
    for (JsonObject e : edits) all.add(e);
    return new JsonObject().add("act", act.toString()).add("edits", all).toString();
  }

  private MockHttpServletResponse write(Layer layer, String body) throws Exception {
    return mvc.perform(
            post("/api/p/ostrey/layers/" + layer.id() + "/edits")
                .contentType("application/json")
                .content(body)
                .contentType("application/json")
                .with(COORDINATOR)
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private static String said(MockHttpServletResponse r) throws Exception {
    return Json.parse(r.getContentAsString(StandardCharsets.UTF_8))
        .asObject()
        .getString("message", "");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{}|Tag: this must have a value",
        "{'tag':'far too long'}|Tag: at most 6 characters; this has 12",
        "{'tag':'T','kind':'x'}|Kind: “x” is not in the code list",
        "{'tag':'T','kind':'b'}|Kind: “B” is retired",
        "{'tag':'T','n':3.7}|N: “3.7” is not a whole number",
        "{'tag':'T','n':'abc'}|N: “abc” is not a whole number",
        "{'tag':'T','t':'25:99'}|T: “25:99” is not a time of day",
        "{'tag':'T','e':5}|Easting: this is filled by itself",
        "{'tag':'T','id':'mine'}|Id: this is filled by itself"
      })
  void limitsHoldWhereThingsAreDrawn(String set, String problem) throws Exception {
    Layer layer = made();
    MockHttpServletResponse r = write(layer, body(UUID.randomUUID(), fresh(set)));
    assertThat(r.getStatus()).isEqualTo(422);
    assertThat(said(r)).contains(problem, "Nothing was written");
    assertThat(layers.byId(layer.id()).count()).isZero();
  }

  @Test
  void aTagIsUniqueOnTheLayerAndWithinOneAct() throws Exception {
    Layer layer = made();
    assertThat(
            said(write(layer, body(UUID.randomUUID(), fresh("{'tag':'A'}"), fresh("{'tag':'A'}")))))
        .contains("Tag: another feature has “A” already");
    JsonObject a = fresh("{'tag':'A'}");
    assertThat(write(layer, body(UUID.randomUUID(), a)).getStatus()).isEqualTo(200);
    assertThat(said(write(layer, body(UUID.randomUUID(), fresh("{'tag':'A'}")))))
        .contains("another feature has “A” already");
    // given up and taken in one act
    JsonObject gives = json("{'version':1,'set':{'tag':'B'}}").add("id", a.getString("id", ""));
    assertThat(write(layer, body(UUID.randomUUID(), gives, fresh("{'tag':'A'}"))).getStatus())
        .isEqualTo(200);
    assertThat(layers.byId(layer.id()).count()).isEqualTo(2);
    // set anew by the one that has it, after another took it
    JsonObject keeps = json("{'version':2,'set':{'tag':'B'}}").add("id", a.getString("id", ""));
    assertThat(said(write(layer, body(UUID.randomUUID(), fresh("{'tag':'B'}"), keeps))))
        .contains("another feature has “B” already");
  }

  /** In layers of none and of one feature the answer came as a failure after the commit. */
  @Test
  void anActSentAgainIsWrittenOnce() throws Exception {
    Layer layer = made();
    for (int i = 1; i <= 3; i++) {
      UUID act = UUID.randomUUID();
      String body = body(act, fresh("{'tag':'T" + i + "'}"));
      assertThat(isWritten(layer, act)).isFalse();
      for (int again = 0; again < 2; again++)
        assertThat(write(layer, body).getStatus()).as("feature %d", i).isEqualTo(200);
      assertThat(layers.byId(layer.id()).count()).isEqualTo(i);
      assertThat(isWritten(layer, act)).isTrue();
      assertThat(features(layer)).hasSize(i);
    }
  }

  private boolean isWritten(Layer layer, UUID act) throws Exception {
    return Json.parse(
            mvc.perform(
                    get("/api/p/ostrey/layers/" + layer.id() + "/acts/" + act).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .asObject()
        .getBoolean("written", false);
  }

  private JsonArray features(Layer layer) throws Exception {
    return Json.parse(
            mvc.perform(get("/api/p/ostrey/layers/" + layer.id() + "/features").with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject()
        .get("features")
        .asArray();
  }

  /** Plans an update of a layer by its tag; gives the problem, or "". */
  private String updated(String page, Layer layer, String... more) throws Exception {
    List<String> all =
        new ArrayList<>(
            List.of(
                "take_0",
                "on",
                "target_0",
                "update",
                "into_0",
                layer.id().toString(),
                "key_0",
                "tag"));
    all.addAll(List.of(more));
    return decide(page, all.toArray(new String[0]));
  }

  @Test
  void defaultsFillThemselvesAtTheDeskAndInUpdatesAndFollow() throws Exception {
    Layer layer = made();
    JsonObject a = fresh("{'tag':'A'}");
    write(layer, body(UUID.randomUUID(), a));
    String page = upload("more.csv", "tag,lon,lat\nB,-10.21,57.91\n");
    assertThat(
            updated(
                page, layer, "x_0", "lon", "y_0", "lat", "place_0", "on", "system_0", "EPSG:4326"))
        .isEmpty();
    act(page, "confirm");
    Map<String, Feature> by = byKey(layers.byId(layer.id()), "tag");
    assertThat(by).containsOnlyKeys("A", "B");
    east(by.get("A"), -10.2, 57.9);
    east(by.get("B"), -10.21, 57.91);
    for (Feature f : by.values()) {
      assertThat(f.value("made")).isEqualTo(Value.text("by hand"));
      assertThat(f.value("id")).isEqualTo(Value.text(f.id()));
    }
    JsonObject moved =
        json("{'version':1,'geometry':{'type':'Point','coordinates':[-10.3,57.9]},'set':{}}")
            .add("id", a.getString("id", ""));
    UUID act = UUID.randomUUID();
    assertThat(write(layer, body(act, moved)).getStatus()).isEqualTo(200);
    east(byKey(layers.byId(layer.id()), "tag").get("A"), -10.3, 57.9);
    changes.takeBack(layer.id(), act, "coordinator");
    east(byKey(layers.byId(layer.id()), "tag").get("A"), -10.2, 57.9);
  }

  private static void east(Feature f, double lon, double lat) {
    double e = CoordinateSystem.utmNorth(29).project(new Coordinate(lon, lat)).orElseThrow().x;
    assertThat(((Value.Num) f.value("e")).value()).isCloseTo(e, within(0.001));
  }

  /** Somebody holds the layer for longer than a lock is waited for. */
  @Test
  void drawingAndFieldsSayThatSomebodyIsWriting() throws Exception {
    Layer layer = made();
    CountDownLatch locked = new CountDownLatch(1);
    CountDownLatch done = new CountDownLatch(1);
    CompletableFuture<Void> other =
        CompletableFuture.runAsync(
            () ->
                new TransactionTemplate(transactions)
                    .executeWithoutResult(
                        t -> {
                          layers.lock(layer.id(), UUID.randomUUID());
                          locked.countDown();
                          try {
                            done.await();
                          } catch (InterruptedException e) {
                            Thread.currentThread().interrupt();
                          }
                        }));
    locked.await();
    List<CompletableFuture<MockHttpServletResponse>> all = new ArrayList<>();
    all.add(later(() -> write(layer, body(UUID.randomUUID(), fresh("{'tag':'A'}")))));
    all.add(
        later(
            () ->
                mvc.perform(
                        post("/api/p/ostrey/layers/" + layer.id() + "/fields")
                            .contentType("application/json")
                            .content(
                                new JsonObject()
                                    .add("schema", layer.schema().json())
                                    .add("seen", layer.revision())
                                    .toString())
                            .with(COORDINATOR)
                            .with(csrf()))
                    .andReturn()
                    .getResponse()));
    for (var r : all) {
      assertThat(r.get().getStatus()).isEqualTo(409);
      assertThat(said(r.get())).contains("Somebody is writing to this just now");
    }
    done.countDown();
    other.join();
  }

  private interface Call {
    MockHttpServletResponse now() throws Exception;
  }

  private static CompletableFuture<MockHttpServletResponse> later(Call call) {
    return CompletableFuture.supplyAsync(
        () -> {
          try {
            return call.now();
          } catch (Exception e) {
            throw new IllegalStateException(e);
          }
        });
  }

  @Test
  void ofTwoLayersMadeUnderOneNameAtOnceOneIsToldSo() throws Exception {
    CountDownLatch half = new CountDownLatch(1);
    CountDownLatch go = new CountDownLatch(1);
    Schema schema = new Schema(GeometryKind.TABLE, List.of(), "", List.of());
    UUID project = projects.byKey("ostrey").id();
    CompletableFuture<UUID> first =
        CompletableFuture.supplyAsync(
            () -> {
              try {
                return making.make(
                    project,
                    "Twice",
                    schema,
                    Said.text("test"),
                    "coordinator",
                    take -> {
                      half.countDown();
                      go.await();
                    });
              } catch (Exception e) {
                throw new IllegalStateException(e);
              }
            });
    half.await();
    org.assertj.core.api.Assertions.assertThatThrownBy(
            () ->
                making.make(project, "Twice", schema, Said.text("test"), "coordinator", take -> {}))
        .isInstanceOf(Refusal.class)
        .satisfies(English.says("already has a layer called “Twice”"));
    go.countDown();
    assertThat(layers.byId(first.get()).name()).isEqualTo("Twice");
  }

  @Test
  void aChangeOfFieldsTellsWhatIsBuiltOnThem() throws Exception {
    Layer layer = layer("Control structures");
    List<org.whinridge.core.layer.Field> without =
        layer.schema().fields().stream().filter(f -> !f.name().equals("kind")).toList();
    List<org.whinridge.core.layer.Field> retyped =
        layer.schema().fields().stream()
            .map(f -> f.name().equals("kind") ? f.as(org.whinridge.core.layer.FieldType.TEXT) : f)
            .toList();
    for (var fields : List.of(without, retyped)) {
      String told =
          mvc.perform(
                  post("/api/p/ostrey/layers/" + layer.id() + "/fields/preview")
                      .contentType("application/json")
                      .content(
                          new JsonObject()
                              .add(
                                  "schema",
                                  new Schema(layer.schema().kind(), fields, "tag", List.of("tag"))
                                      .json())
                              .toString())
                      .with(COORDINATOR)
                      .with(csrf()))
              .andReturn()
              .getResponse()
              .getContentAsString(StandardCharsets.UTF_8);
      assertThat(told)
          .contains("The look of the layer uses “Kind”", "The form “")
          .contains("\"seen\":" + layer.revision());
    }
  }

  /** The form page steps through all features, not only through the first 200. */
  @Test
  void everyFeatureCanProveAForm() throws Exception {
    Layer layer = layer("Control structures");
    String form =
        html("/p/ostrey/forms").replaceAll("(?s).*?/p/ostrey/forms/([0-9a-f-]{36})\".*", "$1");
    JsonObject state =
        Json.parse(
                mvc.perform(get("/api/p/ostrey/forms/" + form).with(COORDINATOR))
                    .andReturn()
                    .getResponse()
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject();
    assertThat(state.getInt("features", 0)).isEqualTo(layer.count()).isGreaterThan(200);
    assertThat(state.get("lookups").asArray())
        .extracting(l -> l.asObject().get("lookUp").asObject().getString("how", "containing"))
        .contains("containing", "nearest");
    JsonArray more =
        Json.parse(
                mvc.perform(
                        get("/api/p/ostrey/forms/" + form + "/proof?from=200").with(COORDINATOR))
                    .andReturn()
                    .getResponse()
                    .getContentAsString(StandardCharsets.UTF_8))
            .asArray();
    assertThat(more).hasSize(layer.count() - 200);
  }

  @Test
  void severalLayersAreMadeAllOrNone() {
    UUID project = projects.byKey("ostrey").id();
    long before = layers.count(project);
    Schema schema = new Schema(GeometryKind.TABLE, List.of(), "", List.of());
    org.assertj.core.api.Assertions.assertThatThrownBy(
            () ->
                making.makeEmpty(
                    List.of("First of three", "Washlands", "Third of three").stream()
                        .map(
                            n ->
                                LayerMaking.NewLayer.of(
                                    project, n, schema, Said.text("made at the desk")))
                        .toList(),
                    "coordinator"))
        .isInstanceOf(Refusal.class);
    assertThat(layers.count(project)).isEqualTo(before);
  }

  @Test
  void whatWasShownAndHasGrownOldIsRefusedWithWhatChanged() throws Exception {
    Layer layer = made();
    JsonObject a = fresh("{'tag':'A','n':1}");
    write(layer, body(UUID.randomUUID(), a));
    String page = upload("n.csv", "tag,n\nA,5\n");
    assertThat(updated(page, layer)).isEmpty();
    Layer shown = layers.byId(layer.id());
    write(
        layer,
        body(
            UUID.randomUUID(),
            json("{'version':1,'set':{'n':2}}").add("id", a.getString("id", ""))));
    act(page, "confirm");
    assertThat(html(page))
        .contains("has changed since this was shown: at the desk: 1 changed (coordinator)");
    assertThat(byKey(layers.byId(layer.id()), "tag").get("A").value("n")).isEqualTo(Value.of(2));
    for (String path : List.of("values/n/merge", "fields")) {
      MockHttpServletResponse r =
          path.equals("fields")
              ? mvc.perform(
                      post("/api/p/ostrey/layers/" + layer.id() + "/fields")
                          .contentType("application/json")
                          .content(
                              new JsonObject()
                                  .add("schema", shown.schema().json())
                                  .add("seen", shown.revision())
                                  .toString())
                          .with(COORDINATOR)
                          .with(csrf()))
                  .andReturn()
                  .getResponse()
              : null;
      String told =
          r != null
              ? said(r)
              : English.of(
                  (Said)
                      mvc.perform(
                              post("/p/ostrey/layers/" + layer.id() + "/" + path)
                                  .param("spelling", "2")
                                  .param("good", "3")
                                  .param("seen", String.valueOf(shown.revision()))
                                  .with(COORDINATOR)
                                  .with(csrf()))
                          .andReturn()
                          .getFlashMap()
                          .get("problem"));
      assertThat(told).as(path).contains("has changed since this was shown", "look at it again");
    }
    // counted anew it is written, and what it overwrote is told
    assertThat(updated(page, layer)).isEmpty();
    act(page, "confirm");
    assertThat(html(page)).contains("“A”: N was “2”, is “5”.");
  }

  @Test
  void pagesThatServeToWriteAreForThoseWhoMay() throws Exception {
    Layer layer = made();
    for (String role : List.of("reader", "reviewer", "inspector"))
      for (String path :
          List.of("/layers/make", "/layers/" + layer.id() + "/draw", "/rounds/new")) {
        var r =
            mvc.perform(
                    get("/p/ostrey" + path)
                        .with(user(role.equals("inspector") ? "inspector1" : role)))
                .andReturn()
                .getResponse();
        assertThat(r.getStatus()).as(role + " " + path).isEqualTo(403);
      }
    String own =
        mvc.perform(get("/p/ostrey/layers/" + layer.id()).with(user("reader")))
            .andReturn()
            .getResponse()
            .getContentAsString();
    assertThat(own).contains("no features yet").doesNotContain("Draw or type the first one");
  }

  @Test
  void aSplitOfNothingOffersNoFields() throws Exception {
    String page = "/p/ostrey/layers/" + layer("Control structures").id() + "/values?field=notes";
    assertThat(html(page + "&separator=~")).contains("None of the").doesNotContain("/notes/split");
    assertThat(html(page + "&separator=e")).contains("values are split", "/notes/split");
  }

  @Test
  void aRoundIsPlannedByChoosingItsFormFirst() throws Exception {
    assertThat(html("/p/ostrey/rounds/new")).contains("round-planner");
  }

  @Test
  void anAreaThatCrossesItselfFiltersAndAFieldCalledInIsFiltered() throws Exception {
    Schema schema = Schema.read(json("{'kind':'polygon','fields':[{'name':'in','label':'In'}]}"));
    Feature bow =
        Feature.read(
            json(
                "{'id':'"
                    + UUID.randomUUID()
                    + "','geometry':{'type':'Polygon','coordinates':[[[-10.3,57.8],[-10.1,58],[-10.1,57.8],[-10.3,58],[-10.3,57.8]]]},'properties':{'in':'it\\u2019s'}}"),
            schema);
    UUID id =
        making.make(
            projects.byKey("ostrey").id(),
            "Bows " + ++count,
            schema,
            Said.text("test"),
            "coordinator",
            take -> take.accept(bow));
    for (String filter :
        List.of(
            "S_INTERSECTS(place, POLYGON ((-10.3 57.8, -10.1 58, -10.1 57.8, -10.3 58, -10.3 57.8)))",
            "S_WITHIN(place, POLYGON ((-10.4 57.7, -10 58.1, -10 57.7, -10.4 58.1, -10.4 57.7))) OR TRUE",
            "\"in\" = 'it\u2019s'")) {
      MockHttpServletResponse r =
          mvc.perform(
                  get("/api/p/ostrey/layers/" + id + "/features")
                      .param("filter", filter)
                      .with(COORDINATOR))
              .andReturn()
              .getResponse();
      assertThat(r.getStatus()).as(filter + r.getContentAsString()).isEqualTo(200);
      assertThat(Json.parse(r.getContentAsString()).asObject().getInt("count", 0)).isEqualTo(1);
    }
    assertThat(html("/p/ostrey/layers/" + id + "/values?field=in"))
        .contains("filter=%22in%22%20%3D%20");
  }

  @Test
  void askingForTheReportBeforeAFileHasArrivedDropsNothing() throws Exception {
    String begun =
        Json.parse(
                mvc.perform(post("/api/p/ostrey/bring-in").with(COORDINATOR).with(csrf()))
                    .andReturn()
                    .getResponse()
                    .getContentAsString())
            .asObject()
            .getString("id", "");
    assertThat(begun).isNotEmpty();
    MockHttpServletResponse r =
        mvc.perform(get(PAGE + "/" + begun).with(COORDINATOR).accept("text/html"))
            .andReturn()
            .getResponse();
    assertThat(r.getContentAsString()).contains("No file of these has arrived whole yet");
    byte[] file = "tag\nX\n".getBytes(StandardCharsets.UTF_8);
    String place =
        mvc.perform(
                post("/api/p/ostrey/bring-in/uploads")
                    .header("Tus-Resumable", "1.0.0")
                    .header("Upload-Length", file.length)
                    .header("Upload-Metadata", "lot " + base64(begun) + ",name " + base64("a.csv"))
                    .with(COORDINATOR)
                    .with(csrf()))
            .andReturn()
            .getResponse()
            .getHeader("Location");
    mvc.perform(
        org.springframework.test.web.servlet.request.MockMvcRequestBuilders.patch(place)
            .header("Tus-Resumable", "1.0.0")
            .header("Upload-Offset", 0)
            .contentType("application/offset+octet-stream")
            .content(file)
            .with(COORDINATOR)
            .with(csrf()));
    waitFor(PAGE + "/" + begun);
    assertThat(html(PAGE + "/" + begun)).contains("a.csv");
  }

  private static String base64(String s) {
    return java.util.Base64.getEncoder().encodeToString(s.getBytes(StandardCharsets.UTF_8));
  }
}
