package org.whinridge.app.round;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.form.Edition;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Refusal;

/** The forms of a round, and the layers on which its stops may lie. */
@Component
class RoundForms {
  /** The most forms of one round. */
  static final int MOST = 20;

  private final Forms forms;
  private final Layers layers;

  RoundForms(Forms forms, Layers layers) {
    this.forms = forms;
    this.layers = layers;
  }

  /**
   * A form that a round can have; minutes is how long a visit is planned to take, 0 when unsaid.
   */
  record One(UUID id, String title, int edition, int minutes, Layer layer) {}

  /** Forms in the order in which they were chosen. */
  record Chosen(List<One> forms) {
    /** Their layers, each once. */
    List<Layer> layers() {
      Map<UUID, Layer> out = new LinkedHashMap<>();
      for (One f : forms) out.putIfAbsent(f.layer.id(), f.layer);
      return List.copyOf(out.values());
    }

    /** How long all visits to a feature of a layer are planned to take. */
    int minutes(UUID layer) {
      return forms.stream().filter(f -> f.layer.id().equals(layer)).mapToInt(One::minutes).sum();
    }
  }

  /** Whether there is any that a new round can have. */
  boolean any(UUID project) {
    return forms.list(project).stream().anyMatch(f -> f.isInUse() && f.layer().isPresent());
  }

  /** All that a new round can have. */
  List<One> all(UUID project) {
    return forms.list(project).stream()
        .filter(f -> f.isInUse() && f.layer().isPresent())
        .map(f -> one(f, layers.get(project, f.layer().orElseThrow())))
        .toList();
  }

  /** These forms; refuses those that a round can't have. */
  Chosen of(UUID project, Collection<UUID> ids) {
    if (ids.isEmpty()) throw Refusal.refused("refused.roundNeedsForm");
    if (ids.size() > MOST) throw Refusal.refused("refused.roundTooManyForms", "most", MOST);
    List<One> out = new ArrayList<>();
    for (UUID id : new LinkedHashSet<>(ids)) {
      FormDraft f = forms.get(project, id);
      if (f.retired().isPresent())
        throw Refusal.refused("refused.formIsRetired", "title", f.form().title());
      if (f.edition() == 0)
        throw Refusal.refused("refused.noPublishedEditionYet", "title", f.form().title());
      Optional<UUID> layer = f.layer();
      if (layer.isEmpty()) throw Refusal.refused("refused.formWithoutLayer");
      out.add(one(f, layers.get(project, layer.get())));
    }
    return new Chosen(out);
  }

  private One one(FormDraft f, Layer layer) {
    Edition e = forms.newest(f.id()).orElseThrow();
    return new One(
        f.id(), e.form().title(), e.number(), e.form().settings().plannedMinutes(), layer);
  }
}
