package org.whinridge.app.map;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
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

/** The project's map, kept for everybody. Layers that came since it was saved stand on it too. */
@Service
@Transactional(readOnly = true)
public class ProjectMaps {
  /** Layers larger than this begin as off, so that a map opens at once. */
  private static final int LARGE = 100_000;

  private final Projects projects;
  private final Layers layers;
  private final Basemaps basemaps;

  ProjectMaps(Projects projects, Layers layers, Basemaps basemaps) {
    this.projects = projects;
    this.layers = layers;
    this.basemaps = basemaps;
  }

  /** A project's map as it is now. */
  public ProjectMap of(UUID project) {
    Projects.SavedMap saved = projects.map(project);
    JsonObject o = saved.json().map(s -> Json.parse(s).asObject()).orElse(new JsonObject());
    Map<String, Layer> there = new LinkedHashMap<>();
    layers.list(project).stream()
        .filter(l -> l.schema().kind() != GeometryKind.TABLE)
        .sorted(Comparator.comparing(ProjectMaps::usualPlace))
        .forEach(l -> there.put(l.id().toString(), l));
    List<ProjectMap.Entry> out = new ArrayList<>();
    JsonValue entries = o.get("layers");
    if (entries != null)
      for (JsonValue e : entries.asArray()) {
        Layer l = there.remove(e.asObject().getString("id", ""));
        if (l != null) out.add(entry(l, e.asObject()));
      }
    int at = 0; // newer layers come on top, areas below
    for (Layer l : there.values()) {
      ProjectMap.Entry e =
          new ProjectMap.Entry(l.id().toString(), l.name(), "", l.count() <= LARGE, 1);
      if (l.schema().kind() == GeometryKind.POLYGON) out.add(e);
      else out.add(at++, e);
    }
    String basemap = o.getString("basemap", "");
    List<Basemaps.Basemap> bases = basemaps.list(project);
    String chosen =
        bases.stream().anyMatch(b -> b.id().equals(basemap)) ? basemap : bases.get(0).id();
    return new ProjectMap(chosen, out, saved.revision());
  }

  /** Points above lines above areas. */
  private static int usualPlace(Layer l) {
    return l.schema().kind().ordinal();
  }

  private static ProjectMap.Entry entry(Layer l, JsonObject e) {
    return new ProjectMap.Entry(
        l.id().toString(),
        l.name(),
        e.getString("shortName", ""),
        e.getBoolean("on", true),
        e.getDouble("opacity", 1));
  }

  /** Saves the map for everybody; what it says of layers that are not there is left out. */
  @Writing
  public ProjectMap save(UUID project, JsonObject sent) {
    JsonArray out = new JsonArray();
    JsonValue entries = sent.get("layers");
    if (entries != null && entries.isArray())
      for (JsonValue v : entries.asArray())
        if (v.isObject() && out.size() < 500) out.add(cleaned(v.asObject()));
    projects.saveMap(
        project,
        new JsonObject().add("basemap", text(sent, "basemap", 60)).add("layers", out).toString(),
        sent.get("revision") != null && sent.get("revision").isNumber()
            ? (long) sent.get("revision").asDouble()
            : -1);
    return of(project);
  }

  private static JsonObject cleaned(JsonObject e) {
    JsonValue opacity = e.get("opacity");
    double o = opacity != null && opacity.isNumber() ? opacity.asDouble() : 1;
    JsonValue on = e.get("on");
    return new JsonObject()
        .add("id", text(e, "id", 60))
        .add("shortName", text(e, "shortName", 40).strip())
        .add("on", on == null || !on.isBoolean() || on.asBoolean())
        .add("opacity", o >= 0 && o <= 1 ? o : 1);
  }

  private static String text(JsonObject o, String name, int most) {
    JsonValue v = o.get(name);
    String s = v != null && v.isString() ? v.asString() : "";
    return s.substring(0, Math.min(most, s.length()));
  }
}
