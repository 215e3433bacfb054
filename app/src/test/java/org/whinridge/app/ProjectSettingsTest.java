package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.MapExtent;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectDays;
import org.whinridge.app.project.ProjectMaking;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Units;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.demo.Relief;

/** Units, time zone, expected area and basemap of a project: said at its making, changed later. */
class ProjectSettingsTest extends SmallServerTest {
  private static final String PERSON = "coordinator";
  @TempDir Path tmp;
  @Autowired MockMvc mvc;
  @Autowired Projects projects;
  @Autowired ProjectMaking making;
  @Autowired ProjectDays days;
  @Autowired LayerMaking layerMaking;
  @Autowired Layers layers;
  @Autowired LayerQueries queries;
  @Autowired MapExtent extents;
  @Autowired Basemaps basemaps;
  @Autowired DataFolder data;
  @Autowired PlatformTransactionManager transactions;

  private static final Schema POINTS =
      new Schema(
          GeometryKind.POINT,
          List.of(Field.of("mark", "Mark", FieldType.TEXT)),
          "mark",
          List.of("mark"));

  private static Feature point(double lon, double lat) {
    return new Feature(
        UUID.randomUUID().toString(),
        Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(lon, lat))),
        Map.of("mark", Value.text("M")),
        1);
  }

  private Project made(String name, String units, String zone, String area) {
    return making.make(new ProjectMaking.Plan(name, "", "EPSG:32629", units, zone, area), PERSON);
  }

  @Test
  void whatWasSaidIsKeptAndSaidAgain() {
    Project p = made("West shore", "feet", "America/Halifax", "-10.4, 57.75, -10, 58.05");
    Project read = projects.byId(p.id());
    assertThat(read.units()).isEqualTo(Units.FEET);
    assertThat(read.zone()).isEqualTo(ZoneId.of("America/Halifax"));
    assertThat(making.plan(read).area()).isEqualTo("-10.4, 57.75, -10, 58.05");
    Project plain = projects.byId(made("Plain", "", "", "").id());
    assertThat(plain.units()).isEqualTo(Units.METRIC);
    assertThat(plain.zone()).isEqualTo(ZoneId.of("UTC"));
    assertThat(plain.expectedArea()).isEmpty();
  }

  @Test
  void whatCantBeIsRefusedAndNoProjectIsThere() {
    String[][] poor = {
      {"cubits", "UTC", ""}, {"", "Ostrey/Skerrow", ""}, {"", "", "1,2,3"}, {"", "", "1,4,3,2"}
    };
    long before = projects.all().size();
    for (String[] p : poor)
      assertThatThrownBy(() -> made("Poor", p[0], p[1], p[2])).as(String.join("|", p)).isNotNull();
    assertThat(projects.all()).hasSize((int) before);
  }

  /** 2026-11-30 at 02:00 in UTC is still the 29th in Halifax and the 30th in Auckland. */
  @Test
  void eachProjectHasItsOwnDay() {
    Instant at = Instant.parse("2026-11-30T02:00:00Z");
    assertThat(days.day(made("Far west", "", "America/Halifax", "").id(), at))
        .hasToString("2026-11-29");
    assertThat(days.day(made("Far east", "", "Pacific/Auckland", "").id(), at))
        .hasToString("2026-11-30");
  }

  @Test
  void newLayersExpectTheirFeaturesWhereTheProjectDoes() throws Exception {
    Project p = made("Expecting", "", "", "-10.4, 57.75, -10, 58.05");
    UUID layer =
        layerMaking.make(
            p.id(),
            "Marks",
            POINTS,
            Said.of("ledger.madeAtTheDesk"),
            PERSON,
            take -> {
              take.accept(point(-10.2, 57.9));
              take.accept(point(10.2, 57.9));
            });
    assertThat(queries.outside(layers.byId(layer))).isEqualTo(1);
    UUID empty =
        layerMaking.make(
            p.id(), "Nothing yet", POINTS, Said.of("ledger.madeAtTheDesk"), PERSON, take -> {});
    assertThat(MapExtent.text(extents.of(layers.byId(empty)))).isEqualTo("-10.4,57.75,-10.0,58.05");
  }

  private MockHttpServletResponse settings(Project p, String zone, String area) throws Exception {
    return mvc.perform(
            post("/p/" + p.key() + "/about")
                .param("name", "Renamed")
                .param("units", "feet")
                .param("zone", zone)
                .param("area", area)
                .with(user(PERSON))
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  @Test
  void thePageChangesThemAllOrNone() throws Exception {
    Project p = made("To be renamed", "", "", "");
    settings(p, "Nowhere", "");
    assertThat(projects.byId(p.id()).name()).isEqualTo("To be renamed");
    assertThat(settings(p, "Europe/Dublin", "170, -48, -176, -33").getRedirectedUrl())
        .isEqualTo("/p/" + p.key() + "/about");
    assertThat(projects.byId(p.id()).name()).isEqualTo("Renamed");
    assertThat(
            mvc.perform(get("/p/" + p.key() + "/about").with(user(PERSON)))
                .andReturn()
                .getResponse()
                .getContentAsString())
        .contains("170, -48, -176, -33", "Europe/Dublin", "data-units=\"feet\"");
  }

  /** A basemap's file does not outlive the copying that failed. */
  @Test
  void aCopyThatFailsLeavesNoFile() throws Exception {
    Project from = made("With a basemap", "", "", "");
    UUID id = UUID.randomUUID();
    Path relief = tmp.resolve("relief.mbtiles");
    Relief.write(relief);
    basemaps.add(from.id(), id, "Relief", relief, PERSON);
    Project to = made("Without", "", "", "");
    long before = files();
    assertThatThrownBy(
            () ->
                new TransactionTemplate(transactions)
                    .executeWithoutResult(
                        t -> {
                          try {
                            basemaps.copy(from.id(), id, to.id(), PERSON);
                          } catch (IOException e) {
                            throw new java.io.UncheckedIOException(e);
                          }
                          assertThat(files()).isEqualTo(before + 1);
                          throw new IllegalStateException("the store is full");
                        }))
        .hasMessage("the store is full");
    assertThat(files()).isEqualTo(before);
    assertThat(basemaps.list(to.id())).noneMatch(b -> b.grid().isPresent());
  }

  private long files() {
    return java.util.Objects.requireNonNull(data.folder("basemaps").toFile().list()).length;
  }
}
