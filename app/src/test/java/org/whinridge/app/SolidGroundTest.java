package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.context.TestPropertySource;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.fields.LayerFields;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** What a visit may claim, what taking back takes back, what is set aside, what is bounded. */
@TestPropertySource(
    properties = {"whinridge.hand-ins-a-day=3000000", "whinridge.photos-a-day=30000000"})
class SolidGroundTest extends DeviceTest {
  @Autowired LayerChanges changes;
  @Autowired LayerFields fields;
  @Autowired JdbcTemplate jdbc;

  private String html(String path) throws Exception {
    return mvc.perform(get(path).with(COORDINATOR))
        .andReturn()
        .getResponse()
        .getContentAsString(StandardCharsets.UTF_8);
  }

  private String act(String path, String... parameters) throws Exception {
    var q = post(path).with(COORDINATOR).with(csrf());
    for (int i = 0; i < parameters.length; i += 2) q = q.param(parameters[i], parameters[i + 1]);
    Map<String, Object> flash = new LinkedHashMap<>(mvc.perform(q).andReturn().getFlashMap());
    return English.of((Said) flash.getOrDefault("done", flash.get("problem")));
  }

  @Test
  void whatDoesNotHoldIsLeftOutAndToldTheReviewer() throws Exception {
    JsonObject v = visit("with claims");
    Value cost = now(v).value("cost_centre");
    v.get("set").asObject().add("cost_centre", "mine").add("gone_field", "kept on the visit");
    v.set(
        "geometry",
        Json.parse(
            "{\"type\":\"Polygon\",\"coordinates\":[[[-10.2,57.9],[-10.1,57.9],[-10.1,58],[-10.2,57.9]]]}"));
    assertThat(sent(v).getString("state", "")).isEqualTo("waiting");
    assertThat(page(v))
        .contains(
            "belongs to the office and is not written from outdoors",
            "the layer has no field “gone_field” any more",
            "it brings a Polygon, but the layer holds points");
    assertThat(decide(v, "accept")).startsWith("Accepted");
    assertThat(now(v).value("cost_centre")).isEqualTo(cost);
    assertThat(now(v).geometry().orElseThrow().getGeometryType()).isEqualTo("Point");
    assertThat(now(v).value("notes")).isEqualTo(Value.text("with claims"));
  }

  /** A base made up to look like today's value would pass over what the desk wrote since. */
  @Test
  void aBaseThatThePackNeverHadIsAClash() throws Exception {
    JsonObject v = visit("from outdoors");
    meanwhile(v, "notes", Value.text("written at the desk since"));
    v.get("base").asObject().get("values").asObject().set("notes", "written at the desk since");
    assertThat(sent(v).getBoolean("clash", false)).isTrue();
    assertThat(page(v)).contains("it says it was taken out with Notes as");
    JsonObject w = visit("of a version to come");
    w.get("base").asObject().set("version", 4711);
    assertThat(sent(w).getBoolean("clash", false)).isTrue();
    assertThat(page(w)).contains("version 4711 of the feature, which the layer never had");
  }

  @Test
  void takingBackTwiceLeavesWhatAnotherPersonSetInBetween() throws Exception {
    JsonObject v = visit("the same words");
    sent(v);
    assertThat(decide(v, "accept")).startsWith("Accepted");
    assertThat(decide(v, "take-back")).startsWith("Taken back");
    for (String f : List.of("notes", "width_mm"))
      meanwhile(v, f, f.equals("notes") ? Value.text("the same words") : Value.of(777));
    assertThat(decide(v, "accept")).startsWith("Accepted");
    decide(v, "take-back");
    assertThat(now(v).value("notes")).as("the desk's own").isEqualTo(Value.text("the same words"));
    assertThat(now(v).value("width_mm")).isEqualTo(Value.of(777));
  }

  @Test
  void anActOfManyIsNotTakenBackOverAnothersSameValue() throws Exception {
    JsonObject v = visit("unused");
    UUID feature = UUID.fromString(v.getString("feature", ""));
    Value before = now(v).value("notes");
    LayerChanges.Done tidy =
        changes.write(
            layer(),
            "tidy",
            Said.text("t"),
            "coordinator",
            b -> b.set(feature, Map.of("notes", Value.text("same")), Optional.empty()));
    meanwhile(v, "notes", Value.text("other"));
    meanwhile(v, "notes", Value.text("same"));
    LayerChanges.TakenBack back = changes.takeBack(layer().id(), tidy.group(), "coordinator");
    assertThat(back.left()).hasSize(1);
    assertThat(now(v).value("notes")).isEqualTo(Value.text("same")).isNotEqualTo(before);
  }

  /** The page of the values was loaded before somebody changed the fields. */
  @Test
  void anActOnFieldsThatChangedSinceIsRefusedUnderTheLock() throws Exception {
    var seen = layer();
    Schema more =
        new Schema(
            seen.schema().kind(),
            java.util.stream.Stream.concat(
                    seen.schema().fields().stream(),
                    java.util.stream.Stream.of(
                        Field.of(
                            "added_since", "Added since", org.whinridge.core.layer.FieldType.TEXT)))
                .toList(),
            seen.schema().tagField(),
            seen.schema().captionFields());
    fields.change(seen, more, "coordinator");
    org.assertj.core.api.Assertions.assertThatThrownBy(
            () -> changes.write(seen, "tidy", Said.text("t"), "coordinator", b -> {}))
        .satisfies(English.says("changed the fields of “Control structures” meanwhile"));
    assertThat(layer().schema().field("added_since")).isPresent();
  }

  @Test
  void aDateThatMustBeUniqueIsHeldAgainstTheLayerAsADate() throws Exception {
    var queries = context(org.whinridge.app.layer.LayerQueries.class);
    var day = new Value.Day(java.time.LocalDate.of(2026, 5, 4));
    assertThat(queries.isTaken(layer(), "installed", day, "")).isFalse();
    assertThat(queries.isTaken(layer(), "installed", Value.text("it's soon"), "")).isFalse();
    JsonObject v = visit("dated");
    meanwhile(v, "installed", day);
    assertThat(queries.isTaken(layer(), "installed", day, "")).isTrue();
    assertThat(queries.isTaken(layer(), "installed", day, v.getString("feature", ""))).isFalse();
  }

  @Autowired org.springframework.context.ApplicationContext beans;

  private <T> T context(Class<T> type) {
    return beans.getBean(type);
  }

  @Test
  void whatIsSetAsideIsKeptUnderItsOwnIdWhoeverSendsThatId() throws Exception {
    String id = UUID.randomUUID().toString();
    for (String text : List.of("first words", "second words"))
      assertThat(sent(new JsonObject().add("id", id).add("precious", text)).getString("state", ""))
          .isEqualTo("set aside");
    send(
        handIn(
            UUID.randomUUID().toString(),
            new JsonObject().add("id", id).add("precious", "somebody else's words")),
        OTHER);
    sent(new JsonObject().add("id", id).add("precious", "first words"));
    assertThat(
            jdbc.queryForList(
                "select document from set_aside where sent_id = ? order by received_at",
                String.class,
                id))
        .hasSize(3)
        .anyMatch(s -> s.contains("first"))
        .anyMatch(s -> s.contains("second"))
        .anyMatch(s -> s.contains("somebody"));
    JsonObject good = visit("and it can come as a visit after all").set("id", id);
    assertThat(sent(good).getString("state", "")).isEqualTo("waiting");
  }

  @Test
  void whatIsSetAsideIsReadAgainGivenToAPersonOrPutAway() throws Exception {
    JsonObject v = visit("of an edition to come").set("edition", 99);
    assertThat(sent(v).getString("reason", "")).contains("edition 99 of its form is not known");
    String path = "/p/ostrey/hand-ins/set-aside";
    String id = newest(path);
    assertThat(act(path + "/" + id + "/read-again")).contains("still can't be read");
    assertThat(act(path + "/" + id + "/give", "to", "nobody")).contains("Choose who");
    assertThat(act(path + "/" + id + "/give", "to", "inspector2", "note", "ask at the pump house"))
        .contains("inspector2 finds it");
    JsonValue given = contact(OTHER).get("given").asArray().get(0);
    assertThat(given.asObject().getString("note", "")).isEqualTo("ask at the pump house");
    assertThat(act(path + "/" + id + "/put-away", "reason", " ")).contains("Say why");
    assertThat(act(path + "/" + id + "/put-away", "reason", "a test")).startsWith("Put away");
    assertThat(act(path + "/" + id + "/read-again")).contains("“put away” already");
    assertThat(html(path)).doesNotContain(id);
    assertThat(html(path + "?all=true")).contains(id, "a test");

    JsonObject w = visit("before its edition was there").set("edition", 2);
    sent(w);
    String other = newest(path);
    jdbc.update(
        "insert into edition (id, form_id, number, content, layer_schema, published_at, published_by) select random_uuid(), form_id, 2, content, layer_schema, published_at, published_by from edition where number = 1");
    assertThat(act(path + "/" + other + "/read-again")).contains("waits for review");
    assertThat(page(w)).contains("before its edition was there");
    jdbc.update("delete from edition where number = 2");
  }

  @Test
  void whatWasSetAsideNeverTakesThePlaceOfATextThatCameSince() throws Exception {
    JsonObject v = visit("the older text").set("edition", 98);
    assertThat(sent(v).getString("state", "")).isEqualTo("set aside");
    String path = "/p/ostrey/hand-ins/set-aside";
    String id = newest(path);
    JsonObject mended = visit("the newer text").set("id", v.getString("id", ""));
    assertThat(sent(mended).getString("state", "")).isEqualTo("waiting");
    jdbc.update(
        "insert into edition (id, form_id, number, content, layer_schema, published_at, published_by) select random_uuid(), form_id, 98, content, layer_schema, published_at, published_by from edition where number = 1");
    assertThat(act(path + "/" + id + "/read-again")).contains("still can't be read");
    assertThat(html(path)).contains("another text of this visit came since");
    assertThat(page(v)).contains("the newer text").doesNotContain("the older text");
    jdbc.update("delete from edition where number = 98");
  }

  @Test
  void aVisitOfAnotherAgeIsSetAsideWithTheReason() throws Exception {
    JsonObject v = visit("long ago").set("startedAt", "-500000000-01-01T00:00:00Z");
    assertThat(sent(v).getString("reason", "")).contains("startedAt lies in another age");
  }

  private String newest(String path) throws Exception {
    return html(path).replaceAll("(?s).*?data-set-aside=\"([^\"]+)\".*", "$1");
  }

  private JsonObject contact(
      org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors
              .UserRequestPostProcessor
          who,
      String... ids)
      throws Exception {
    JsonArray asked = new JsonArray();
    for (String id : ids) asked.add(id);
    return Json.parse(
            mvc.perform(
                    post("/api/day/contact")
                        .contentType("application/json")
                        .content(new JsonObject().add("visits", asked).toString())
                        .with(who)
                        .with(csrf()))
                .andReturn()
                .getResponse()
                .getContentAsString(StandardCharsets.UTF_8))
        .asObject();
  }

  @Test
  void aContactTellsOfOldVisitsAndOnlyOfOnesOwn() throws Exception {
    JsonObject v = visit("to be asked for");
    sent(v);
    JsonObject a = contact(INSPECTOR, v.getString("id", ""), UUID.randomUUID().toString());
    assertThat(a.get("visits").asArray()).hasSize(1);
    assertThat(a.get("visits").asArray().get(0).asObject().getString("hash", "")).hasSize(64);
    assertThat(contact(OTHER, v.getString("id", "")).get("visits").asArray()).isEmpty();
    MockHttpServletResponse r =
        mvc.perform(
                post("/api/day/contact")
                    .contentType("application/json")
                    .content("{")
                    .with(INSPECTOR)
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).isEqualTo(400);
  }

  /** A lock that is not had in time, at the second try neither, is told in words. */
  @Test
  void whoeverWaitsTooLongForALayerIsToldToTryAgain() throws Exception {
    JsonObject v = visit("waits for a lock");
    sent(v);
    CountDownLatch locked = new CountDownLatch(1);
    CountDownLatch done = new CountDownLatch(1);
    CompletableFuture<Void> writer =
        CompletableFuture.runAsync(
            () ->
                new TransactionTemplate(context(PlatformTransactionManager.class))
                    .executeWithoutResult(
                        t -> {
                          layers.lock(layer().id(), UUID.fromString(v.getString("feature", "")));
                          locked.countDown();
                          try {
                            done.await();
                          } catch (InterruptedException e) {
                            Thread.currentThread().interrupt();
                          }
                        }));
    locked.await();
    MockHttpServletResponse r =
        mvc.perform(
                post("/p/ostrey/hand-ins/" + v.getString("id", "") + "/accept")
                    .with(COORDINATOR)
                    .with(csrf())
                    .accept("text/html"))
            .andReturn()
            .getResponse();
    done.countDown();
    writer.join();
    assertThat(r.getStatus()).isEqualTo(409);
    assertThat(r.getContentAsString()).contains("Somebody is writing to this just now");
    assertThat(decide(v, "accept")).startsWith("Accepted");
  }

  @Test
  void listsComePageByPage() throws Exception {
    JsonArray all = part("features").get("features").asArray();
    for (int i = 0; i < 55; i++) sent(visit(all.get(20).asObject(), "page " + i));
    String first = html("/p/ostrey/hand-ins");
    assertThat(first.split("<tr>").length).isBetween(51, 120);
    assertThat(first).contains("page 1 of 2", "rel=\"next\"");
    assertThat(html("/p/ostrey/hand-ins?page=2")).contains("page 2 of 2", "rel=\"prev\"");
    assertThat(html("/p/ostrey/hand-ins?page=99")).contains("page 2 of 2");
  }

  @Test
  void whatOnePersonHandsInOnADayIsBoundedInWords() throws Exception {
    int status = 200;
    String said = "";
    for (int i = 0; i < 12 && status == 200; i++) {
      MockHttpServletResponse r =
          send(
              handIn(
                  UUID.randomUUID().toString(),
                  new JsonObject().add("n", i).add("much", "x".repeat(400_000))),
              COORDINATOR);
      status = r.getStatus();
      said = r.getContentAsString(StandardCharsets.UTF_8);
    }
    assertThat(status).isEqualTo(429);
    assertThat(said)
        .contains("coordinator has handed in 3 MB of visits today", "stay on the device");
  }

  /** What is here and what is on its way count alike. */
  @Test
  void whatOnePersonSendsOfPhotosOnADayIsBoundedInWords() throws Exception {
    byte[] large = new byte[20_000_000];
    List<MockHttpServletResponse> begun = new java.util.ArrayList<>();
    for (int i = 0; i < 4; i++) {
      large[0] = (byte) i;
      String id = UUID.randomUUID().toString();
      sent(withPhoto(id, large, "a large photo"));
      begun.add(create(id, large.length, INSPECTOR));
      if (i == 0)
        assertThat(append(begun.get(0).getHeader("Location"), 0, large).getStatus()).isEqualTo(204);
    }
    assertThat(begun)
        .extracting(MockHttpServletResponse::getStatus)
        .containsExactly(201, 201, 429, 429);
    assertThat(begun.get(2).getContentAsString(StandardCharsets.UTF_8))
        .contains("inspector1 has sent 30 MB of photos today", "stay on the device");
  }

  /** A caption that became office only vanishes from captions outdoors, too. */
  @Test
  void nothingThatBelongsToTheOfficeIsInAPack() throws Exception {
    String lastVisit =
        "{\"id\":\"x\",\"state\":{\"answers\":{\"cost_centre\":{\"value\":\"SECRET-1\"},\"notes\":{\"value\":\"seen\"}}},\"kept\":{\"cost_centre\":\"SECRET-2\"}}";
    JsonObject v = visit("a last visit");
    sent(v);
    decide(v, "accept");
    jdbc.update(
        "update visit set document = ? where id = ?",
        lastVisit,
        UUID.fromString(v.getString("id", "")));
    var seen = layer();
    List<Field> now =
        seen.schema().fields().stream()
            .map(f -> f.name().equals("kind") ? f.inOffice() : f)
            .toList();
    assertThat(seen.schema().captionFields()).contains("kind");
    fields.change(
        seen,
        new Schema(
            seen.schema().kind(), now, seen.schema().tagField(), seen.schema().captionFields()),
        "coordinator");
    try {
      JsonObject features = part("features");
      assertThat(features.get("features").asArray()).hasSizeGreaterThan(10);
      for (JsonValue f : features.get("features").asArray())
        assertThat(f.asObject().getString("caption", "")).doesNotContain(" · ").isNotBlank();
      String all = "";
      for (String name : List.of("form", "features", "last", "map")) all += part(name).toString();
      assertThat(all)
          .doesNotContain("SECRET", "cost_centre", "\"kind\":\"sluice\"")
          .contains("seen");
      assertThat(part("map").toString()).doesNotContain("\"field\":\"kind\"");
    } finally {
      fields.change(layer(), seen.schema(), "coordinator");
    }
  }
}
