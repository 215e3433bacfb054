package org.whinridge.app.layer;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.BandStation;

@Component
class LayersStation implements BandStation {
  private final Layers layers;

  LayersStation(Layers layers) {
    this.layers = layers;
  }

  @Override
  public int order() {
    return 1;
  }

  @Override
  public String path() {
    return "layers";
  }

  @Override
  public String key() {
    return "l";
  }

  @Override
  public long count(UUID project) {
    return layers.count(project);
  }
}
