package org.whinridge.app.layer;

import java.util.Optional;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.springframework.stereotype.Component;
import org.whinridge.core.place.GeometryJson;

/** What a map of a layer shows first. */
@Component
public class MapExtent {
  private final Layers layers;

  MapExtent(Layers layers) {
    this.layers = layers;
  }

  /**
   * What a map of the layer shows first: its features, else the area where it expects them, else
   * where the project's other layers lie; empty in a project without any.
   */
  public Optional<Envelope> of(Layer layer) {
    if (layer.extent().isPresent()) return layer.extent();
    Optional<Envelope> expected =
        GeometryJson.parse(layer.expectedArea()).map(Geometry::getEnvelopeInternal);
    if (expected.isPresent()) return expected;
    Envelope all = new Envelope();
    for (Layer l : layers.list(layer.projectId())) l.extent().ifPresent(all::expandToInclude);
    return Optional.of(all).filter(e -> !e.isNull());
  }

  /** An extent as "west,south,east,north" for pages; "" when there is none. */
  public static String text(Optional<Envelope> extent) {
    return extent
        .map(e -> e.getMinX() + "," + e.getMinY() + "," + e.getMaxX() + "," + e.getMaxY())
        .orElse("");
  }
}
