package org.whinridge.app.form;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Field;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.read.UniqueValues;
import org.whinridge.core.visit.VisitStart;

/** What lies around a form that is run at the server: the layers that it asks. */
@Component
class AroundForms {
  private final Layers layers;
  private final LayerQueries queries;

  AroundForms(Layers layers, LayerQueries queries) {
    this.layers = layers;
    this.queries = queries;
  }

  /** The layers that look-ups of a form ask, by id. */
  Map<String, PlaceIndex> lookups(Project project, Form form) {
    Map<String, PlaceIndex> around = new LinkedHashMap<>();
    Set<String> asked = form.otherLayers().keySet();
    for (Layer l : layers.list(project.id()))
      if (asked.contains(l.id().toString())) around.put(l.id().toString(), queries.places(l));
    return around;
  }

  /** The project's coordinate system. */
  static Optional<CoordinateSystem> system(Project project) {
    return CoordinateSystem.of(project.systemCode(), project.systemDefinition());
  }

  /** Which values the features of a layer have in its unique fields. */
  VisitStart.Taken taken(Layer layer) {
    Map<String, UniqueValues> ready = new LinkedHashMap<>();
    return (field, value, self) ->
        layer.schema().field(field).filter(Field::unique).isPresent()
            && ready.computeIfAbsent(field, f -> queries.unique(layer, f)).isTaken(value, self);
  }
}
