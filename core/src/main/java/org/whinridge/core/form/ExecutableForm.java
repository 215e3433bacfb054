package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Scope;

/** A form whose rules are read and sorted, ready to be filled any number of times. Immutable. */
public final class ExecutableForm {
  /** One question with its rules. */
  record Compiled(
      Question question,
      int section,
      Optional<Rule> sectionWhen,
      Optional<Rule> when,
      Optional<Rule> workOut,
      List<Rule> checks) {
    /** What must be known before this question's own value is. */
    Set<String> reads() {
      Set<String> out = new LinkedHashSet<>();
      sectionWhen.ifPresent(r -> out.addAll(r.names()));
      when.ifPresent(r -> out.addAll(r.names()));
      workOut.ifPresent(r -> out.addAll(r.names()));
      return out;
    }
  }

  private final Form form;
  private final Schema schema;
  private final Scope scope;
  private final Compiled[] order;
  private final Map<String, Integer> index = new LinkedHashMap<>();
  private final int[] sheetOrder;
  private final List<List<Integer>> valueDependents = new ArrayList<>();
  private final List<List<Integer>> checkDependents = new ArrayList<>();

  ExecutableForm(
      Form form, Schema schema, Scope scope, Map<String, Compiled> compiled, List<String> names) {
    this.form = form;
    this.schema = schema;
    this.scope = scope;
    order = new Compiled[names.size()];
    for (int i = 0; i < order.length; i++) {
      order[i] = compiled.get(names.get(i));
      index.put(names.get(i), i);
      valueDependents.add(new ArrayList<>());
      checkDependents.add(new ArrayList<>());
    }
    for (int i = 0; i < order.length; i++) {
      for (String n : order[i].reads())
        if (index.containsKey(n)) valueDependents.get(index.get(n)).add(i);
      Set<String> read = new LinkedHashSet<>();
      for (Rule r : order[i].checks()) read.addAll(r.names());
      for (String n : read)
        if (index.containsKey(n) && index.get(n) != i) checkDependents.get(index.get(n)).add(i);
    }
    sheetOrder = form.questions().stream().mapToInt(q -> index.get(q.name())).toArray();
  }

  /** The form. */
  public Form form() {
    return form;
  }

  /** The schema it was compiled against. */
  public Schema schema() {
    return schema;
  }

  /** The names its rules may use. */
  public Scope scope() {
    return scope;
  }

  int size() {
    return order.length;
  }

  Compiled at(int i) {
    return order[i];
  }

  int indexOf(String name) {
    return index.getOrDefault(name, -1);
  }

  int[] sheetOrder() {
    return sheetOrder;
  }

  List<Integer> valueDependents(int i) {
    return valueDependents.get(i);
  }

  List<Integer> checkDependents(int i) {
    return checkDependents.get(i);
  }
}
