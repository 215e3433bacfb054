package org.whinridge.app.ops;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.daybook.EarlierVisits;
import org.whinridge.app.form.FormFiles;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerQueries;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Project;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.demo.OstreyDrawings;
import org.whinridge.demo.OstreyForms;
import org.whinridge.demo.OstreyVisits;

/** The three forms of the Isle of Ostrey, published, with two years of visits. */
@Component
class DemoForms {
  /** Banks and drains are walked in spring and in autumn, all else is visited once a year. */
  private static final String TWICE_A_YEAR = "Banks and drains";

  private static final int MOST_FEATURES = 10_000;

  private final Forms forms;
  private final FormFiles files;
  private final Layers layers;
  private final LayerQueries queries;
  private final EarlierVisits earlier;

  DemoForms(
      Forms forms, FormFiles files, Layers layers, LayerQueries queries, EarlierVisits earlier) {
    this.forms = forms;
    this.files = files;
    this.layers = layers;
    this.queries = queries;
    this.earlier = earlier;
  }

  /** Makes them; gives the form for control structures. */
  UUID make(Project p, String coordinator, List<String> outdoors) {
    Map<String, Layer> byName = new LinkedHashMap<>();
    layers.list(p.id()).forEach(l -> byName.put(l.name(), l));
    UUID of = null;
    for (OstreyForms.Shipped s : OstreyForms.ALL) {
      Layer layer = byName.get(s.layer());
      Form form =
          OstreyForms.form(
              s,
              name -> byName.get(name).id().toString(),
              name ->
                  files
                      .keepPicture(p.id(), name + ".jpg", OstreyDrawings.jpeg(name), coordinator)
                      .toString());
      UUID id = forms.begin(p.id(), Optional.of(layer.id()), form, coordinator);
      int edition = forms.publish(p.id(), id, coordinator);
      earlier.keep(
          new EarlierVisits.With(id, edition, layer.id(), coordinator),
          visits(p, form, layer, outdoors));
      if (s.equals(OstreyForms.STRUCTURES)) of = id;
    }
    return of;
  }

  private List<EarlierVisits.Filled> visits(
      Project p, Form form, Layer layer, List<String> outdoors) {
    ExecutableForm ready = FormCompiler.compile(form, layer.schema()).form().orElseThrow();
    Map<String, PlaceIndex> around = new LinkedHashMap<>();
    for (Layer l : layers.list(p.id()))
      if (form.otherLayers().containsKey(l.id().toString()))
        around.put(l.id().toString(), queries.places(l));
    List<Feature> features = layers.first(layer, MOST_FEATURES);
    return new OstreyVisits(ready, around)
        .of(features, LocalDate.now(), layer.name().equals(TWICE_A_YEAR) ? 2 : 1, outdoors).stream()
            .map(
                m ->
                    new EarlierVisits.Filled(
                        m.feature(),
                        m.person(),
                        m.startedAt(),
                        m.endedAt(),
                        m.start(),
                        m.saved(),
                        m.result()))
            .toList();
  }
}
