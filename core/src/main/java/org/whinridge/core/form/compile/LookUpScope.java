package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.rules.Scope;

/**
 * The names that a look-up's filter may use: the fields of the layer looked up, bare, and the
 * form's names behind {@code answers.}.
 */
public final class LookUpScope implements Scope {
  private final LayerScope layer;
  private final Scope form;

  /** The names of a filter over {@code layer} in a form with these names. */
  public LookUpScope(Schema layer, Scope form) {
    this.layer = new LayerScope(layer);
    this.form = form;
  }

  @Override
  public Optional<Known> find(String name) {
    if (!name.startsWith(LookUp.ANSWERS)) return layer.find(name);
    return form.find(name.substring(LookUp.ANSWERS.length()))
        .map(k -> new Known(name, k.type(), k.label(), k.codes(), k.unit()));
  }

  @Override
  public Optional<String> insteadOf(String name) {
    return layer.find(name).isEmpty() && form.find(name).isPresent()
        ? Optional.of(LookUp.ANSWERS + name)
        : Optional.empty();
  }

  @Override
  public Collection<String> names() {
    List<String> out = new ArrayList<>(layer.names());
    for (String n : form.names()) out.add(LookUp.ANSWERS + n);
    return out;
  }
}
