package org.whinridge.app.layer;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.layer.Feature;

/**
 * A layer has changed; told within the transaction that changes it, or after it.
 *
 * @param revision the layer's revision by this change
 * @param only what changed, when it was few; empty for anything
 */
public record LayerChanged(UUID layer, long revision, Optional<Few> only) {
  /** A few changes: features as they are now, and the ids of those that are gone. */
  public record Few(List<Feature> now, List<String> gone) {}

  /** One feature changed. */
  static LayerChanged one(UUID layer, long revision, Feature f) {
    return new LayerChanged(layer, revision, Optional.of(new Few(List.of(f), List.of())));
  }

  /** Anything may have changed. */
  static LayerChanged anything(UUID layer, long revision) {
    return new LayerChanged(layer, revision, Optional.empty());
  }
}
