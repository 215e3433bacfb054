package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.layer.FeatureChange;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerFilter;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.fields.LayerFields;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.CodesFrom;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.Start;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * Layers as data on the server: whole or not at all, changes as acts with an undo, filters that
 * follow edits.
 */
class LayersTest extends SmallServerTest {
  private static final UserRequestPostProcessor COORDINATOR = user("coordinator");
  private static final Schema TABLE =
      new Schema(
          GeometryKind.TABLE,
          List.of(
              Field.of("code", "Code", FieldType.TEXT),
              Field.of("said", "Said", FieldType.TEXT),
              Field.of("n", "N", FieldType.WHOLE)),
          "code",
          List.of("code"));
  @Autowired MockMvc mvc;
  @Autowired Projects projects;
  @Autowired Layers layers;
  @Autowired LayerMaking making;
  @Autowired LayerChanges changes;
  @Autowired LayerFields fields;
  @Autowired LayerQueries queries;
  @Autowired JdbcTemplate jdbc;
  @Autowired ConfigurableApplicationContext context;

  private UUID project() {
    return projects.byKey("ostrey").id();
  }

  private static Feature row(String code, String said, double n) {
    return new Feature(
        Ids.next().toString(),
        Optional.empty(),
        Map.of("code", Value.text(code), "said", Value.text(said), "n", Value.of(n)),
        1);
  }

  private Layer table(String name, Feature... rows) throws Exception {
    return layers.byId(
        making.make(
            project(),
            name,
            TABLE,
            Said.text("test"),
            "coordinator",
            take -> List.of(rows).forEach(take)));
  }

  private long features() {
    return jdbc.queryForObject("select count(*) from feature", Long.class);
  }

  private List<String> names() {
    return layers.list(project()).stream().map(Layer::name).toList();
  }

  @Test
  void aLayerThatBreaksOffHalfwayIsGoneWithAllItsRows() {
    long before = features();
    assertThatExceptionOfType(IllegalStateException.class)
        .isThrownBy(
            () ->
                making.make(
                    project(),
                    "Half",
                    TABLE,
                    Said.text("test"),
                    "coordinator",
                    take -> {
                      for (int i = 0; i < 12_345; i++) take.accept(row("c" + i, "s", i));
                      assertThat(CompletableFuture.supplyAsync(this::names).join())
                          .as("nobody sees it yet")
                          .doesNotContain("Half");
                      throw new IllegalStateException("broken off");
                    }));
    assertThat(features()).isEqualTo(before);
    assertThat(jdbc.queryForObject("select count(*) from layer where name = 'Half'", Long.class))
        .isZero();
  }

  @Test
  void whatWasArrivingWhenTheServerStoppedIsTakenAwayAtItsStart() throws Exception {
    Layer l = table("Stopped", row("a", "x", 1), row("b", "y", 2));
    jdbc.update("update layer set state = 'arriving' where id = ?", l.id());
    jdbc.update("delete from ledger_entry where layer_id = ?", l.id());
    context.publishEvent(
        new ApplicationStartedEvent(
            new SpringApplication(), new String[0], context, Duration.ZERO));
    assertThat(
            jdbc.queryForObject(
                "select count(*) from feature where layer_id = ?", Long.class, l.id()))
        .isZero();
    assertThat(jdbc.queryForObject("select count(*) from layer where id = ?", Long.class, l.id()))
        .isZero();
  }

  @Test
  void anActIsTakenBackForWhatNobodyChangedSince() throws Exception {
    Layer l = table("Acts", row("a", "x", 1), row("b", "y", 2), row("c", "z", 3));
    List<Feature> all = layers.first(l, 10);
    LayerChanges.Done done =
        changes.write(
            l,
            "tidy",
            Said.text("test act"),
            "coordinator",
            b -> {
              for (Feature f : all)
                b.set(
                    UUID.fromString(f.id()), Map.of("said", Value.text("same")), Optional.empty());
              b.remove(UUID.fromString(all.get(2).id()));
              b.add(row("d", "new", 4));
            });
    assertThat(done.changed()).isEqualTo(3);
    assertThat(queries.count(layers.byId(l.id()), LayerFilter.written("said = 'same'")))
        .isEqualTo(2);
    // somebody changes one of them meanwhile
    layers.write(
        new FeatureChange(
            l.id(),
            UUID.fromString(all.get(0).id()),
            false,
            Map.of("said", Value.text("mine")),
            Optional.empty(),
            "reviewer",
            "desk",
            Optional.empty(),
            Optional.empty(),
            Said.text("by hand"),
            Layers.now()));
    assertThat(queries.count(layers.byId(l.id()), LayerFilter.written("said = 'mine'")))
        .as("the read model follows a single edit")
        .isEqualTo(1);
    LayerChanges.TakenBack back = changes.takeBack(l.id(), done.group(), "coordinator");
    assertThat(English.of(back.left()))
        .singleElement()
        .asString()
        .contains("a", "Said was changed since");
    Map<String, String> now = new java.util.TreeMap<>();
    layers.each(
        layers.byId(l.id()), f -> now.put(f.value("code").plain(), f.value("said").plain()));
    assertThat(now).isEqualTo(Map.of("a", "mine", "b", "y", "c", "z"));
    assertThatExceptionOfType(Refusal.class)
        .isThrownBy(() -> changes.takeBack(l.id(), done.group(), "coordinator"))
        .satisfies(English.says("taken back already"));
    assertThat(layers.history(layers.byId(l.id()), UUID.fromString(all.get(1).id())))
        .extracting(e -> e.cause())
        .startsWith("taken back", "tidy");
  }

  @Test
  void aCodeListTakenFromAnotherLayerKeepsInStep() throws Exception {
    Layer source = table("Species", row("OT", "Otter", 1), row("HE", "Heron", 2));
    CodesFrom from = new CodesFrom(source.id().toString(), "code", "said");
    Field coded =
        new Field(
            "species",
            "Species",
            FieldType.CODE,
            0,
            "",
            true,
            false,
            fields.codesOf(source, from),
            false,
            -1,
            Start.NOTHING,
            "",
            Optional.of(from),
            false,
            false);
    UUID sightings =
        making.make(
            project(),
            "Sightings",
            new Schema(GeometryKind.POINT, List.of(coded), "", List.of()),
            Said.text("test"),
            "coordinator",
            take -> {});
    List<Feature> rows = layers.first(source, 10);
    changes.write(
        source,
        "desk",
        Said.text("test"),
        "coordinator",
        b -> {
          b.set(
              UUID.fromString(rows.get(0).id()),
              Map.of("said", Value.text("Eurasian otter")),
              Optional.empty());
          b.remove(UUID.fromString(rows.get(1).id()));
          b.add(row("TE", "Teal", 3));
        });
    for (int i = 0; i < 100 && layers.byId(sightings).revision() == 1; i++) Thread.sleep(50);
    assertThat(layers.byId(sightings).schema().fields().get(0).codes())
        .as("the lists follow in the background")
        .containsExactly(
            Code.of("OT", "Eurasian otter"), new Code("HE", "Heron", true), Code.of("TE", "Teal"));
  }

  @Test
  void featuresOutsideTheExpectedAreaAreToldNotRefused() throws Exception {
    String area =
        "{\"type\":\"Polygon\",\"coordinates\":[[[-11,57],[-10,57],[-10,58],[-11,58],[-11,57]]]}";
    UUID id =
        making.make(
            new LayerMaking.NewLayer(
                project(),
                "In an area",
                new Schema(GeometryKind.POINT, List.of(), "", List.of()),
                Said.text("test"),
                "",
                List.of(),
                "EPSG:32629",
                area),
            "coordinator",
            take -> {
              for (double x : new double[] {-10.5, -10.2, -9})
                take.accept(
                    new Feature(
                        Ids.next().toString(),
                        Optional.of(
                            org.whinridge.core.place.GeometryJson.WGS84.createPoint(
                                new org.locationtech.jts.geom.Coordinate(x, 57.5))),
                        Map.of(),
                        1));
            });
    assertThat(queries.outside(layers.byId(id))).isEqualTo(1);
    assertThat(
            mvc.perform(get("/p/ostrey/layers/" + id).with(COORDINATOR))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .contains("1 feature lies outside");
  }

  private MockHttpServletResponse send(String path, String body) throws Exception {
    return mvc.perform(
            post(path).contentType("application/json").content(body).with(COORDINATOR).with(csrf()))
        .andReturn()
        .getResponse();
  }

  @Test
  void wrongSchemasAreRefusedInWordsAndNothingIsMade() throws Exception {
    long before = layers.count(project());
    for (String[] x :
        new String[][] {
          {"nonsense", "This is not JSON: line 1, column 1"},
          {"{\"layers\":[]}", "has no layer to make"},
          {
            "{\"layers\":[{\"name\":\"X\",\"schema\":{\"kind\":\"point\",\"fields\":[{\"label\":\"A\",\"name\":\"1 a; DROP TABLE\",\"type\":\"text\"}]}}]}",
            "can't be a storage name"
          },
          {
            "{\"layers\":[{\"name\":\"X\",\"schema\":{\"kind\":\"point\",\"fields\":[{\"label\":\"A\",\"type\":\"whole\",\"start\":{\"formula\":\"nothing(\"}}]}}]}",
            "can't be worked out"
          },
          {
            "{\"layers\":[{\"name\":\"\",\"schema\":{\"kind\":\"point\",\"fields\":[]}}]}",
            "a name of 1 to 120"
          },
          {
            "{\"layers\":[{\"name\":\"X\",\"system\":\"EPSG:1\",\"schema\":{\"kind\":\"point\",\"fields\":[]}}]}",
            "no coordinate system"
          },
          {
            "{\"layers\":[{\"name\":\"X\",\"schema\":{\"kind\":\"point\",\"fields\":[]}},{\"name\":\"X\",\"schema\":{\"kind\":\"point\",\"fields\":[]}}]}",
            "Two layers are called"
          }
        }) {
      MockHttpServletResponse r = send("/api/p/ostrey/layers", x[0]);
      assertThat(r.getStatus()).as(x[0]).isBetween(400, 422);
      assertThat(r.getContentAsString(StandardCharsets.UTF_8)).as(x[0]).contains(x[1]);
    }
    assertThat(layers.count(project())).isEqualTo(before);
  }

  @Test
  void codesArePastedAndFiltersAnswerWithTheirPlace() throws Exception {
    assertThat(
            Json.parse(
                    send("/api/p/ostrey/codes", "{\"text\":\"Good\\nBad\",\"codes\":\"NUMBERS\"}")
                        .getContentAsString(StandardCharsets.UTF_8))
                .toString())
        .isEqualTo(
            "{\"codes\":[{\"code\":\"1\",\"label\":\"Good\"},{\"code\":\"2\",\"label\":\"Bad\"}],\"told\":[]}");
    UUID id =
        layers.list(project()).stream()
            .filter(l -> l.name().equals("Control structures"))
            .findFirst()
            .orElseThrow()
            .id();
    MockHttpServletResponse r =
        mvc.perform(
                get("/api/p/ostrey/layers/" + id + "/features")
                    .param("filter", "condition = 'four'")
                    .with(COORDINATOR))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).isEqualTo(422);
    assertThat(r.getContentAsString(StandardCharsets.UTF_8)).contains("at character");
    for (String page : List.of("/values?field=no_such", "/values/no_such/merge"))
      assertThat(
              mvc.perform(
                      (page.contains("merge")
                              ? post("/p/ostrey/layers/" + id + page).with(csrf())
                              : get("/p/ostrey/layers/" + id + page))
                          .with(COORDINATOR))
                  .andReturn()
                  .getResponse()
                  .getStatus())
          .isIn(404, 302, 400);
  }

  @Test
  void readersLookAndChangeNothing() throws Exception {
    UUID id = layers.list(project()).get(0).id();
    for (String path : List.of("", "/fields", "/values", "/history"))
      assertThat(
              mvc.perform(get("/p/ostrey/layers/" + id + path).with(user("reader")))
                  .andReturn()
                  .getResponse()
                  .getStatus())
          .isEqualTo(200);
    for (String path :
        List.of(
            "/p/ostrey/layers/" + id + "/values/x/merge",
            "/api/p/ostrey/layers/" + id + "/fields",
            "/p/ostrey/layers/" + id + "/history/" + id + "/take-back"))
      assertThat(
              mvc.perform(post(path).with(user("reader")).with(csrf()))
                  .andReturn()
                  .getResponse()
                  .getStatus())
          .isEqualTo(403);
  }
}
