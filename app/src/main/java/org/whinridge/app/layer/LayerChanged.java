package org.whinridge.app.layer;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.layer.Feature;

/**
 * A layer has changed; told by {@link LayerNews} once that is committed.
 *
 * @param revision the layer's revision by this change
 * @param at the moment that stands with the layer as its last change
 * @param only what changed, when it was few; empty for anything
 */
public record LayerChanged(UUID layer, long revision, Instant at, Optional<Few> only) {
  /** A few changes: features as they are now, and the ids of those that are gone. */
  record Few(List<Feature> now, List<String> gone) {}

  /** One feature changed. */
  static LayerChanged one(UUID layer, long revision, Instant at, Feature f) {
    return new LayerChanged(layer, revision, at, Optional.of(new Few(List.of(f), List.of())));
  }
}
