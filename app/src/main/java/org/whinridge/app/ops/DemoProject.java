package org.whinridge.app.ops;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.map.MapChoice;
import org.whinridge.app.map.ProjectMaps;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.RoundMaking;
import org.whinridge.core.access.Role;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.said.Said;
import org.whinridge.demo.Ostrey;
import org.whinridge.demo.OstreyLooks;
import org.whinridge.demo.Relief;

/**
 * Makes the Isle of Ostrey, an ordinary project to try things in: six layers, a published form, a
 * round.
 */
@Component
class DemoProject {
  private final Projects projects;
  private final LayerMaking making;
  private final Forms forms;
  private final RoundMaking rounds;
  private final Layers layers;
  private final Looks looks;
  private final Basemaps basemaps;
  private final ProjectMaps maps;
  private final Members members;

  DemoProject(
      Projects projects,
      LayerMaking making,
      Forms forms,
      RoundMaking rounds,
      Layers layers,
      Looks looks,
      Basemaps basemaps,
      ProjectMaps maps,
      Members members) {
    this.members = members;
    this.layers = layers;
    this.looks = looks;
    this.basemaps = basemaps;
    this.maps = maps;
    this.projects = projects;
    this.making = making;
    this.forms = forms;
    this.rounds = rounds;
  }

  /**
   * Makes it.
   *
   * @param people who is what in it, at least one coordinator
   * @param coordinator who makes its layers, form and round
   * @param goesOut who has the round
   */
  Project make(
      String key, String name, Map<String, Role> people, String coordinator, String goesOut)
      throws Exception {
    Ostrey isle = new Ostrey();
    Project p =
        projects.make(
            key,
            name,
            "EPSG:32629",
            "+proj=utm +zone=29 +datum=WGS84 +units=m +no_defs",
            isle.basemap());
    people.forEach((account, role) -> members.give(p.id(), account, role));
    fill(p, isle, coordinator, goesOut);
    return p;
  }

  private void fill(Project p, Ostrey isle, String coordinator, String goesOut) throws Exception {
    UUID structures =
        make(
            p,
            coordinator,
            "Control structures",
            Ostrey.structuresSchema(),
            "the board's register",
            isle.structures(),
            OstreyLooks.structures());
    UUID beats =
        make(
            p,
            coordinator,
            "Beats",
            Ostrey.beatsSchema(),
            "the board's beats",
            isle.beats(),
            OstreyLooks.beats());
    make(
        p,
        coordinator,
        "Banks and drains",
        Ostrey.linesSchema(),
        "the board's register",
        isle.lines(),
        OstreyLooks.lines());
    make(
        p,
        coordinator,
        "Washlands",
        Ostrey.washlandsSchema(),
        "the board's register",
        isle.washlands(),
        OstreyLooks.washlands());
    make(
        p,
        coordinator,
        "Soil units",
        Ostrey.soilSchema(),
        "the island's soil survey",
        isle.soils(),
        OstreyLooks.soils());
    make(
        p,
        coordinator,
        "Marker posts",
        Ostrey.postsSchema(),
        "the board's register",
        isle.posts(),
        OstreyLooks.posts());
    ground(p, coordinator);
    UUID form = forms.fromLayer(p.id(), structures);
    design(p, form, beats);
    forms.publish(p.id(), form, coordinator);
    rounds.make(
        p.id(),
        new RoundMaking.Plan(
            structures,
            form,
            "Saltings, before the autumn tides",
            "Park at the pump house. The gate key hangs behind the door.",
            Optional.of(LocalDate.now().plusDays(14)),
            goesOut,
            Optional.of(new Envelope(-10.315, -10.255, 57.872, 57.897)),
            List.of(),
            true),
        coordinator);
  }

  private UUID make(
      Project p,
      String coordinator,
      String name,
      Schema schema,
      String source,
      List<Feature> features,
      Look look)
      throws Exception {
    UUID id =
        making.make(
            p.id(), name, schema, Said.text(source), coordinator, take -> features.forEach(take));
    looks.save(layers.get(p.id(), id), look, 0);
    return id;
  }

  /** The relief basemap, and a map with the soil survey switched off. */
  private void ground(Project p, String coordinator) throws Exception {
    Path folder = Files.createTempDirectory("relief");
    try {
      Path file = folder.resolve("relief.mbtiles");
      Relief.write(file);
      basemaps.add(p.id(), UUID.randomUUID(), "Relief", file, coordinator);
    } finally {
      FileSystemUtils.deleteRecursively(folder);
    }
    maps.save(
        p.id(),
        new MapChoice(
            Basemaps.PLAIN,
            maps.of(p.id()).layers().stream()
                .map(
                    e ->
                        new MapChoice.Entry(
                            e.id(),
                            e.name().equals("Banks and drains") ? "Banks" : "",
                            !e.name().equals("Soil units"),
                            null))
                .toList(),
            0L));
  }

  /** The demo form: what is asked, checked, worked out and looked up. */
  private void design(Project p, UUID form, UUID beats) {
    edit(p, form, new JsonObject().add("op", "title").add("value", "Structure visit"));
    set(p, form, "tag", "unique", Json.TRUE);
    set(p, form, "kind", "need", Json.value("needed"));
    set(p, form, "condition", "need", Json.value("needed"));
    set(
        p,
        form,
        "condition",
        "hint",
        Json.value(
            "1 very good: as built. 3 fair: works, wear shows. 5 very poor: may fail this season."));
    set(
        p,
        form,
        "silt_depth_mm",
        "askWhen",
        Json.value("kind IN ('tide_flap', 'sluice', 'outfall')"));
    set(
        p,
        form,
        "silt_depth_mm",
        "checks",
        new JsonArray()
            .add(
                check(
                    "silt_depth_mm BETWEEN 0 AND width_mm",
                    "Silt of {silt_depth_mm} mm can't be deeper than the width of {width_mm} mm",
                    "firm"))
            .add(
                check(
                    "silt_depth_mm <= 200",
                    "{silt_depth_mm} mm is unusually deep; look again",
                    "soft")));
    set(
        p,
        form,
        "bearing_deg",
        "checks",
        new JsonArray()
            .add(
                check(
                    "bearing_deg BETWEEN 0 AND 360",
                    "A bearing runs from 0 to 360 degrees",
                    "firm")));
    set(
        p,
        form,
        "beat",
        "prefill",
        new JsonArray()
            .add(
                new JsonObject()
                    .add("from", "place")
                    .add("layer", beats.toString())
                    .add("layerName", "Beats")
                    .add("field", "beat")));
    set(p, form, "last_inspected", "workOut", Json.value("today()"));
    edit(
        p,
        form,
        new JsonObject()
            .add("op", "add")
            .add("section", 0)
            .add(
                "question",
                new JsonObject()
                    .add("name", "silt_share")
                    .add("label", "Silted share of the width")
                    .add("type", "decimal")
                    .add("unit", "%")
                    .add("decimals", 1)
                    .add("askWhen", "silt_depth_mm IS NOT NULL AND width_mm IS NOT NULL")
                    .add("workOut", "silt_depth_mm / width_mm * 100")));
    for (int i = 0; i < 3; i++)
      edit(p, form, new JsonObject().add("op", "move").add("question", "silt_share").add("by", -1));
    set(p, form, "photo", "label", Json.value("Photo of the structure"));
  }

  private static JsonObject check(String rule, String message, String weight) {
    return new JsonObject().add("rule", rule).add("message", message).add("weight", weight);
  }

  private void set(Project p, UUID form, String question, String property, JsonValue value) {
    edit(
        p,
        form,
        new JsonObject()
            .add("op", "set")
            .add("question", question)
            .add("property", property)
            .add("value", value));
  }

  private void edit(Project p, UUID form, JsonObject edit) {
    forms.edit(p.id(), form, forms.get(p.id(), form).revision(), edit);
  }
}
