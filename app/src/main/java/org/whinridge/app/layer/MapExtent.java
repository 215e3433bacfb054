package org.whinridge.app.layer;

import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Component;
import org.whinridge.app.project.Projects;
import org.whinridge.core.place.GeometryJson;

/** What a map of a layer shows first. */
@Component
public class MapExtent {
  private final Layers layers;
  private final Projects projects;

  MapExtent(Layers layers, Projects projects) {
    this.projects = projects;
    this.layers = layers;
  }

  /**
   * What a map of the layer shows first: its features, else the area where it expects them, else
   * where the project's other layers lie, else where the project expects them; empty in a project
   * that knows nothing of that.
   */
  public Optional<Envelope> of(Layer layer) {
    if (layer.extent().isPresent()) return layer.extent();
    Optional<Envelope> expected =
        GeometryJson.parse(layer.expectedArea()).map(Geometry::getEnvelopeInternal);
    if (expected.isPresent()) return expected;
    Envelope all = new Envelope();
    for (Layer l : layers.list(layer.projectId())) l.extent().ifPresent(all::expandToInclude);
    if (!all.isNull()) return Optional.of(all);
    return GeometryJson.parse(projects.byId(layer.projectId()).expectedArea())
        .map(Geometry::getEnvelopeInternal);
  }

  /** An extent as "west,south,east,north" for pages; "" when there is none. */
  public static String text(Optional<Envelope> extent) {
    return extent
        .map(e -> e.getMinX() + "," + e.getMinY() + "," + e.getMaxX() + "," + e.getMaxY())
        .orElse("");
  }
}
