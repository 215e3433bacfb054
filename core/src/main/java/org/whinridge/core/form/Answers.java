package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.whinridge.core.value.Value;

/**
 * The state of one filling, by the form's order of evaluation. An answer that is not asked is kept
 * aside in {@link #values}.
 */
final class Answers {
  final Value[] values;
  final Provenance[] provenance;
  final boolean[] asked;
  final String[] notes;
  final List<List<OpenPoint>> points = new ArrayList<>();
  final Set<String> confirmedSoft = new LinkedHashSet<>();

  Answers(int size) {
    values = new Value[size];
    provenance = new Provenance[size];
    asked = new boolean[size];
    notes = new String[size];
    Arrays.fill(values, Value.EMPTY);
    Arrays.fill(provenance, Provenance.NONE);
    Arrays.fill(notes, "");
    for (int i = 0; i < size; i++) points.add(List.of());
  }

  void put(int i, Value v, Provenance p) {
    values[i] = v;
    provenance[i] = v.isEmpty() && p.kind() != Provenance.Kind.TYPED ? Provenance.NONE : p;
  }

  Value visible(int i) {
    return asked[i] ? values[i] : Value.EMPTY;
  }
}
