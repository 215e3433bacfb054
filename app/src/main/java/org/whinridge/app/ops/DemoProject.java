package org.whinridge.app.ops;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.LayerQueries;
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
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.round.RoundWay;
import org.whinridge.core.round.Travel;
import org.whinridge.core.said.Said;
import org.whinridge.demo.Ostrey;
import org.whinridge.demo.OstreyLooks;
import org.whinridge.demo.Relief;

/**
 * Makes the Isle of Ostrey, an ordinary project to try things in: six layers, three published forms
 * with two years of visits, a round.
 */
@Component
class DemoProject {
  private final Projects projects;
  private final LayerMaking making;
  private final DemoForms forms;
  private final RoundMaking rounds;
  private final Layers layers;
  private final LayerQueries queries;
  private final Looks looks;
  private final Basemaps basemaps;
  private final ProjectMaps maps;
  private final Members members;

  DemoProject(
      Projects projects,
      LayerMaking making,
      DemoForms forms,
      RoundMaking rounds,
      Layers layers,
      LayerQueries queries,
      Looks looks,
      Basemaps basemaps,
      ProjectMaps maps,
      Members members) {
    this.members = members;
    this.layers = layers;
    this.queries = queries;
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
    List<String> inspectors =
        people.entrySet().stream()
            .filter(e -> e.getValue() == Role.INSPECTOR)
            .map(Map.Entry::getKey)
            .toList();
    fill(p, isle, coordinator, goesOut, inspectors.isEmpty() ? List.of(goesOut) : inspectors);
    return p;
  }

  private void fill(
      Project p, Ostrey isle, String coordinator, String goesOut, List<String> outdoors)
      throws Exception {
    UUID structures =
        make(
            p,
            coordinator,
            "Control structures",
            Ostrey.structuresSchema(),
            "the board's register",
            isle.structures(),
            OstreyLooks.structures());
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
    UUID form = forms.make(p, coordinator, outdoors);
    rounds.make(
        p.id(),
        RoundMaking.Plan.of(
                "Saltings, before the autumn tides", form, goesOut, saltings(p, structures))
            .with(
                "Park at the pump house. The gate key hangs behind the door.",
                LocalDate.now().plusDays(14)),
        coordinator);
  }

  /** The structures of the saltings, in the order of the shortest way. */
  private List<UUID> saltings(Project p, UUID structures) {
    Envelope box = new Envelope(-10.315, -10.255, 57.872, 57.897);
    List<Feature> there = queries.in(layers.get(p.id(), structures), box);
    List<RoundWay.Stop> stops =
        there.stream().map(f -> new RoundWay.Stop(f.geometry().map(Geodesy::anchor), 0)).toList();
    return RoundWay.best(stops, Travel.USUAL.how(1)).get(0).stops().stream()
        .map(i -> UUID.fromString(there.get(i).id()))
        .toList();
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
}
