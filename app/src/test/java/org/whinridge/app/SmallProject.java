package org.whinridge.app;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.test.context.TestComponent;
import org.springframework.context.annotation.Profile;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.JdbcTemplate;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.RoundMaking;
import org.whinridge.core.access.Role;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.said.Said;
import org.whinridge.demo.Ostrey;

/**
 * What most tests of the server need, and no more: the project "ostrey" in UTM zone 29 north, the
 * layer "Control structures" with five points of the isle, a form of it with three questions
 * (condition, silt depth, notes) in its first edition, and a round of the five for inspector1.
 */
@TestComponent
@Profile("!demo")
@Order(0)
class SmallProject implements ApplicationRunner {
  private static final List<String> ASKED = List.of("condition", "silt_depth_mm", "notes");
  private final JdbcTemplate jdbc;
  private final Projects projects;
  private final LayerMaking making;
  private final Forms forms;
  private final Drafting drafting;
  private final RoundMaking rounds;
  private final Members members;

  SmallProject(
      JdbcTemplate jdbc,
      Projects projects,
      LayerMaking making,
      Forms forms,
      Drafting drafting,
      RoundMaking rounds,
      Members members) {
    this.members = members;
    this.drafting = drafting;
    this.jdbc = jdbc;
    this.projects = projects;
    this.making = making;
    this.forms = forms;
    this.rounds = rounds;
  }

  @Override
  public void run(ApplicationArguments args) throws Exception {
    if (!projects.all().isEmpty()) return;
    Map<Role, String> people = new EnumMap<>(Role.class);
    for (Role role : Role.values())
      people.put(role, role == Role.INSPECTOR ? "inspector1" : role.id());
    make("ostrey", "Isle of Ostrey", people);
  }

  /** What a project holds. */
  record Held(Project project, UUID layer, UUID feature, UUID form, UUID round) {}

  /** Makes such a project, with a new account for each of its people. */
  Held make(String key, String name, Map<Role, String> people) throws Exception {
    Project p =
        projects.make(
            key, name, "EPSG:32629", "+proj=utm +zone=29 +datum=WGS84 +units=m +no_defs", null);
    people.forEach(
        (role, account) -> {
          jdbc.update(
              "insert into account (name, password_hash, keeper) values (?, '', false)", account);
          members.give(p.id(), account, role);
        });
    List<Feature> five = new ArrayList<>();
    for (Feature f : new Ostrey().structures().subList(0, 5))
      // an id is a feature's own in the whole store
      five.add(
          key.equals("ostrey")
              ? f
              : new Feature(UUID.randomUUID().toString(), f.geometry(), f.values(), f.version()));
    String coordinator = people.get(Role.COORDINATOR);
    UUID layer =
        making.make(
            p.id(),
            "Control structures",
            Ostrey.structuresSchema(),
            Said.text("five of the board's register"),
            coordinator,
            take -> five.forEach(take));
    UUID form = forms.fromLayer(p.id(), layer);
    for (var q : forms.get(p.id(), form).form().questions())
      if (!ASKED.contains(q.name()))
        drafting.edit(
            p.id(),
            form,
            forms.get(p.id(), form).revision(),
            new JsonObject().add("op", "remove").add("question", Json.value(q.name())),
            coordinator);
    forms.publish(p.id(), form, coordinator);
    UUID round =
        rounds
            .make(
                p.id(),
                RoundMaking.Plan.of(
                    "Five structures",
                    form,
                    people.get(Role.INSPECTOR),
                    five.stream().map(f -> UUID.fromString(f.id())).toList()),
                coordinator)
            .rounds()
            .get(0);
    return new Held(p, layer, UUID.fromString(five.get(0).id()), form, round);
  }
}
