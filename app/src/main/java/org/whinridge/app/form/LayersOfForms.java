package org.whinridge.app.form;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.form.LayerOfForm;
import org.whinridge.core.form.Question;
import org.whinridge.core.said.Said;

/** Makes the layer of a form that has none, and fields for questions that have none. */
@Service
class LayersOfForms {
  private final Forms forms;
  private final Layers layers;
  private final LayerMaking making;
  private final LayerChanges changes;
  private final Drafting drafting;

  LayersOfForms(
      Forms forms, Layers layers, LayerMaking making, LayerChanges changes, Drafting drafting) {
    this.forms = forms;
    this.layers = layers;
    this.making = making;
    this.changes = changes;
    this.drafting = drafting;
  }

  /**
   * Makes the layer as it was shown.
   *
   * @param revision of the draft that it was shown for
   */
  UUID make(UUID project, UUID form, long revision, String name, String systemCode, String person) {
    FormDraft draft = forms.get(project, form);
    if (draft.layer().isPresent()) throw Refusal.conflict("refused.formHasLayer");
    if (draft.revision() != revision) throw Refusal.conflict("refused.somebodyElseOrAnother");
    LayerOfForm made = LayerOfForm.of(draft.form());
    UUID layer =
        quietly(
            () ->
                making
                    .makeEmpty(
                        List.of(
                            new LayerMaking.NewLayer(
                                project,
                                name,
                                made.schema(),
                                Said.of("ledger.madeByForm", "form", draft.form().title()),
                                "",
                                List.of(),
                                systemCode,
                                "")),
                        person)
                    .get(0));
    drafting.onto(project, form, revision, layers.byId(layer), made.form(), person);
    return layer;
  }

  /** The questions of a draft for which its layer could get a field. */
  List<Question> candidates(FormDraft draft) {
    return draft.layer().isEmpty() ? List.of() : LayerOfForm.candidates(draft.form());
  }

  /** Gives the layer fields for some questions, which write to them from then on. */
  void addFields(UUID project, UUID form, Set<String> questions, String person) {
    if (questions.isEmpty()) return;
    FormDraft draft = forms.get(project, form);
    Layer seen = layers.byId(draft.layerId());
    LayerOfForm after = LayerOfForm.adding(draft.form(), seen.schema(), questions);
    if (after.schema().equals(seen.schema())) return;
    quietly(
        () ->
            changes.write(
                seen,
                "fields",
                Said.of("ledger.fieldsOfForm", "form", draft.form().title()),
                person,
                batch -> batch.schema(after.schema())));
    drafting.onto(project, form, draft.revision(), layers.byId(seen.id()), after.form(), person);
  }

  private interface Work<T> {
    T done() throws Exception;
  }

  private static <T> T quietly(Work<T> work) {
    try {
      return work.done();
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("changing the layer failed, nothing was changed", e);
    }
  }
}
