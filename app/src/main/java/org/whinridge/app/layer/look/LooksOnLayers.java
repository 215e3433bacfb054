package org.whinridge.app.layer.look;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.LayerUse;
import org.whinridge.app.layer.Layers;
import org.whinridge.core.said.Said;

/** Tells which fields a layer's own look reads. */
@Component
class LooksOnLayers implements LayerUse {
  private final Layers layers;
  private final Looks looks;

  LooksOnLayers(Layers layers, Looks looks) {
    this.layers = layers;
    this.looks = looks;
  }

  /** A look goes with its layer and holds nobody back. */
  @Override
  public List<Said> of(UUID layer) {
    return List.of();
  }

  @Override
  public List<Said> of(UUID layer, String field) {
    return looks.of(layers.byId(layer)).look().fields().contains(field)
        ? List.of(Said.of("uses.theLook"))
        : List.of();
  }
}
