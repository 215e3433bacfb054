package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.value.ValueType;

/**
 * The names that a form's rules may use: its questions, before.*, last.*, and what every visit
 * knows.
 */
final class FormScope implements Scope {
  private final Map<String, Known> names = new LinkedHashMap<>();

  FormScope(Form form, Schema schema) {
    for (Question q : form.questions()) {
      if (q.type() == QuestionType.READ) continue;
      Known k = new Known(q.name(), q.valueType(schema), q.label(), labels(q.codes()));
      names.put(q.name(), k);
      names.put(
          "last." + q.name(),
          new Known("last." + q.name(), k.type(), "the last visit's " + q.label(), k.codes()));
    }
    for (Field f : schema.fields())
      names.put(
          "before." + f.name(),
          new Known(
              "before." + f.name(),
              f.type().valueType(),
              "the asset's " + f.label(),
              labels(f.codes())));
    plain("place", ValueType.GEOMETRY, "the place");
    plain("fix.accuracy", ValueType.NUMBER, "the position's accuracy in metres");
    plain("device.person", ValueType.TEXT, "the person");
    plain("device.name", ValueType.TEXT, "the device");
    plain("visit.started", ValueType.DATE_TIME, "the start of the visit");
    plain("visit.edition", ValueType.NUMBER, "the edition");
  }

  private void plain(String name, ValueType type, String label) {
    names.put(name, new Known(name, type, label, List.of()));
  }

  static List<CodeLabel> labels(List<Code> codes) {
    List<CodeLabel> out = new ArrayList<>();
    for (Code c : codes) out.add(new CodeLabel(c.code(), c.label()));
    return out;
  }

  @Override
  public Optional<Known> find(String name) {
    return Optional.ofNullable(names.get(name));
  }

  @Override
  public Collection<String> names() {
    return names.keySet();
  }
}
