package org.whinridge.app.layer;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;

/** What every page about one layer begins with. */
@Component
public class LayerPage {
  private final DeskPage desk;
  private final Layers layers;
  private final MapExtent extents;

  LayerPage(DeskPage desk, Layers layers, MapExtent extents) {
    this.desk = desk;
    this.layers = layers;
    this.extents = extents;
  }

  /** Opens a page about a layer of a project, with the layer and its extent for the template. */
  public Layer open(String project, UUID id, Model model) {
    Project p = desk.open(project, "layers", model);
    Layer layer = layers.get(p.id(), id);
    model.addAttribute("layer", layer);
    model.addAttribute("extent", MapExtent.text(extents.of(layer)));
    return layer;
  }
}
