package org.whinridge.app.form;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.LayerUse;
import org.whinridge.app.layer.Layers;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.said.Said;

/**
 * Tells which forms are built on a layer or look something up in it, so that it is not taken from
 * under them unseen.
 */
@Component
class FormsOnLayers implements LayerUse {
  private final Forms forms;
  private final Layers layers;

  FormsOnLayers(Forms forms, Layers layers) {
    this.forms = forms;
    this.layers = layers;
  }

  /** The draft and the edition in use of each form that looks something up in the layer. */
  private Stream<Map.Entry<FormDraft, Form>> lookingUp(UUID layer) {
    return forms.list(layers.byId(layer).projectId()).stream()
        .flatMap(
            d ->
                Stream.concat(
                        Stream.of(d.form()),
                        (d.isInUse() ? forms.newest(d.id()) : Optional.<Edition>empty())
                            .map(Edition::form).stream())
                    .filter(f -> f.otherLayers().containsKey(layer.toString()))
                    .map(f -> Map.entry(d, f)));
  }

  @Override
  public List<Said> of(UUID layer) {
    return Stream.concat(forms.onLayer(layer).stream(), lookingUp(layer).map(Map.Entry::getKey))
        .map(f -> Said.of("uses.form", "title", f.form().title()))
        .distinct()
        .toList();
  }

  @Override
  public List<Said> of(UUID layer, String field) {
    return Stream.concat(
            forms.onLayer(layer).stream()
                .filter(
                    f -> f.form().questions().stream().anyMatch(q -> q.writesTo().equals(field))),
            lookingUp(layer)
                .filter(e -> e.getValue().takes(layer.toString(), field))
                .map(Map.Entry::getKey))
        .map(f -> Said.of("uses.theForm", "title", f.form().title()))
        .distinct()
        .toList();
  }

  @Override
  public Set<String> ranked(UUID layer) {
    return forms.onLayer(layer).stream()
        .flatMap(f -> f.form().questions().stream())
        .filter(q -> q.type() == QuestionType.RANKED && !q.writesTo().isEmpty())
        .map(Question::writesTo)
        .collect(Collectors.toUnmodifiableSet());
  }
}
