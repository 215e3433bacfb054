package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Fold;
import org.whinridge.core.value.ValueType;

/**
 * The names that a form's rules may use: its questions and named rules, the columns of its lists,
 * before.*, last.*, and what every visit knows. Inside a list section the questions of the same row
 * come by their bare names.
 */
final class FormScope implements Scope {
  /** The names that every visit knows besides questions and fields. */
  static final List<String> VISIT =
      List.of(
          "place",
          "fix.accuracy",
          "fix.satellites",
          "fix.height",
          "device.bearing",
          "device.person",
          "device.name",
          "visit.started",
          "visit.edition");

  private final Map<String, Known> names = new LinkedHashMap<>();
  private final Map<String, String> elsewhere = new LinkedHashMap<>();
  private final Map<String, Integer> labels = new LinkedHashMap<>();

  /** The names inside the list section of that name; "" for the names outside of lists. */
  FormScope(Form form, Schema schema, String inside) {
    for (Section s : form.sections()) {
      if (s.isList()) list(s, schema, s.name().equals(inside));
      else for (Question q : s.questions()) question(q, schema, q.name());
    }
    for (NamedRule r : form.rules())
      names.put(r.name(), new Known(r.name(), ValueType.YES_NO, r.label(), List.of()));
    for (Field f : schema.fields())
      names.put(
          "before." + f.name(),
          new Known(
              "before." + f.name(),
              f.type().valueType(),
              Said.of("name.before", "label", f.label()),
              labels(f.codes()),
              f.unit()));
    plain("place", ValueType.GEOMETRY, Said.of("name.place"));
    plain("fix.accuracy", ValueType.NUMBER, Said.of("name.accuracy"));
    plain("fix.satellites", ValueType.NUMBER, Said.of("name.satellites"));
    names.put(
        "fix.height",
        new Known("fix.height", ValueType.NUMBER, Said.of("name.height"), List.of(), "m"));
    names.put(
        "device.bearing",
        new Known("device.bearing", ValueType.NUMBER, Said.of("name.bearing"), List.of(), "°"));
    plain("device.person", ValueType.TEXT, Said.of("name.person"));
    plain("device.name", ValueType.TEXT, Said.of("name.device"));
    plain("visit.started", ValueType.DATE_TIME, Said.of("name.started"));
    plain("visit.edition", ValueType.NUMBER, Said.of("name.edition"));
    for (Known k : names.values()) labels.merge(Fold.lower(k.label().toString()), 1, Integer::sum);
  }

  private void list(Section s, Schema schema, boolean inside) {
    names.put(s.name(), new Known(s.name(), ValueType.LIST, s.title(), List.of()));
    for (Question q : s.questions()) {
      if (!q.type().hasAnswer()) continue;
      String column = s.name() + "." + q.name();
      names.put(
          column,
          new Known(
              column,
              ValueType.LIST,
              Said.of("name.column", "label", q.label(), "list", s.title()),
              labels(q.codes()),
              q.unit()));
      if (inside) question(q, schema, q.name());
      else elsewhere.put(q.name(), column);
    }
  }

  private void question(Question q, Schema schema, String name) {
    if (!q.type().hasAnswer()) return;
    Known k =
        new Known(name, q.valueType(schema), Said.text(q.label()), labels(q.codes()), q.unit());
    names.put(name, k);
    String last = "last." + q.name();
    names.put(
        last,
        new Known(last, k.type(), Said.of("name.last", "label", q.label()), k.codes(), k.unit()));
  }

  private void plain(String name, ValueType type, Said label) {
    names.put(name, new Known(name, type, label, List.of(), ""));
  }

  static List<CodeLabel> labels(List<Code> codes) {
    List<CodeLabel> out = new ArrayList<>();
    for (Code c : codes) out.add(new CodeLabel(c.code(), c.label()));
    return out;
  }

  @Override
  public boolean isShared(Said label) {
    return labels.getOrDefault(Fold.lower(label.toString()), 0) > 1;
  }

  @Override
  public Optional<Known> find(String name) {
    return Optional.ofNullable(names.get(name));
  }

  @Override
  public Optional<String> insteadOf(String name) {
    return Optional.ofNullable(elsewhere.get(name));
  }

  @Override
  public Collection<String> names() {
    return names.keySet();
  }
}
