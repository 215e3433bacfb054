package org.whinridge.app.form;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.LayerUse;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.said.Said;

/** Tells which forms are built on a layer, so that it is not taken from under them unseen. */
@Component
class FormsOnLayers implements LayerUse {
  private final Forms forms;

  FormsOnLayers(Forms forms) {
    this.forms = forms;
  }

  @Override
  public List<Said> of(UUID layer) {
    return forms.onLayer(layer).stream()
        .map(f -> Said.of("uses.form", "title", f.form().title()))
        .toList();
  }

  @Override
  public List<Said> of(UUID layer, String field) {
    return forms.onLayer(layer).stream()
        .filter(f -> f.form().questions().stream().anyMatch(q -> q.writesTo().equals(field)))
        .map(f -> Said.of("uses.theForm", "title", f.form().title()))
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
