package org.whinridge.app.map;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.place.GeometryKind;
import tools.jackson.databind.json.JsonMapper;

/** The project's map, kept for everybody. Layers that came since it was saved stand on it too. */
@Service
@Transactional(readOnly = true)
public class ProjectMaps {
  /** Layers larger than this begin as off, so that a map opens at once. */
  private static final int LARGE = 100_000;

  private final Projects projects;
  private final Layers layers;
  private final Basemaps basemaps;
  private final JsonMapper json;

  ProjectMaps(Projects projects, Layers layers, Basemaps basemaps, JsonMapper json) {
    this.json = json;
    this.projects = projects;
    this.layers = layers;
    this.basemaps = basemaps;
  }

  /** A project's map as it is now. */
  public ProjectMap of(UUID project) {
    Projects.SavedMap saved = projects.map(project);
    MapChoice chosen =
        saved.json().map(s -> json.readValue(s, MapChoice.class)).orElse(MapChoice.none());
    Map<String, Layer> there = new LinkedHashMap<>();
    layers.list(project).stream()
        .filter(l -> l.schema().kind() != GeometryKind.TABLE)
        .sorted(Comparator.comparing(ProjectMaps::usualPlace))
        .forEach(l -> there.put(l.id().toString(), l));
    List<ProjectMap.Entry> out = new ArrayList<>();
    for (MapChoice.Entry e : chosen.layers()) {
      Layer l = there.remove(e.id());
      if (l != null)
        out.add(
            new ProjectMap.Entry(l.id().toString(), l.name(), e.shortName(), e.on(), e.opacity()));
    }
    int at = 0; // newer layers come on top, areas below
    for (Layer l : there.values()) {
      ProjectMap.Entry e =
          new ProjectMap.Entry(l.id().toString(), l.name(), "", l.count() <= LARGE, 1);
      if (l.schema().kind() == GeometryKind.POLYGON) out.add(e);
      else out.add(at++, e);
    }
    List<Basemaps.Basemap> bases = basemaps.list(project);
    String basemap =
        bases.stream().anyMatch(b -> b.id().equals(chosen.basemap()))
            ? chosen.basemap()
            : bases.get(0).id();
    return new ProjectMap(basemap, out, saved.revision());
  }

  /** Points above lines above areas. */
  private static int usualPlace(Layer l) {
    return l.schema().kind().ordinal();
  }

  /** Which basemap a project that nobody saved a map of shows first. */
  @Writing
  public void begin(UUID project, String basemap) {
    save(project, new MapChoice(basemap, List.of(), projects.map(project).revision()));
  }

  /** Saves the map for everybody; what it says of layers that are not there is left out. */
  @Writing
  public ProjectMap save(UUID project, MapChoice sent) {
    projects.saveMap(
        project,
        json.writeValueAsString(new MapChoice(sent.basemap(), sent.layers(), null)),
        sent.revision() == null ? -1 : sent.revision());
    return of(project);
  }
}
