package org.whinridge.app.layer;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.whinridge.core.said.Said;

/** What is built on a layer, told by the modules that build on layers. */
public interface LayerUse {
  /** What uses the layer, each to be told: "the form “Structure visit”". */
  List<Said> of(UUID layer);

  /** What uses a field of the layer. */
  List<Said> of(UUID layer, String field);

  /** The fields whose lists are rankings, so that their order counts. */
  default Set<String> ranked(UUID layer) {
    return Set.of();
  }
}
