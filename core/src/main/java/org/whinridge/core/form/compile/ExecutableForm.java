package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.Scope;

/**
 * A form whose rules are read and sorted, ready to be filled any number of times. Immutable.
 *
 * <p>Its questions and named rules stand in an order of evaluation, each after what it reads. Rules
 * ask by slot: the first slots are the questions in that order, then come the other names.
 */
public final class ExecutableForm {
  /** A list section: its name, its place in the form, and the indices of its questions. */
  public record ListPart(String name, int section, Section.Rows rows, int[] questions) {}

  /** A name that is no question: a column or the rows of a list, or what a visit knows. */
  public record Extra(String name, int list, int column) {}

  private final Form form;
  private final Schema schema;
  private final Scope scope;
  private final Compiled[] order;
  private final int[] local;
  private final Map<String, Integer> index = new LinkedHashMap<>();
  private final List<ListPart> lists = new ArrayList<>();
  private final List<Extra> extras = new ArrayList<>();
  private final int topSize;
  private final int[][] sheet;
  private final Dependents dependents;

  ExecutableForm(Form form, Schema schema, Scope scope, List<Compiled> sorted) {
    this.form = form;
    this.schema = schema;
    this.scope = scope;
    order = new Compiled[sorted.size()];
    local = new int[order.length];
    for (int i = 0; i < order.length; i++) index.put(sorted.get(i).name(), i);
    sheet = new int[form.sections().size()][];
    for (int s = 0; s < sheet.length; s++) {
      Section section = form.sections().get(s);
      sheet[s] = section.questions().stream().mapToInt(q -> index.get(q.name())).toArray();
      if (!section.isList()) continue;
      for (int k = 0; k < sheet[s].length; k++) local[sheet[s][k]] = k;
      lists.add(new ListPart(section.name(), s, section.rows().orElseThrow(), sheet[s]));
    }
    int top = 0;
    for (int i = 0; i < order.length; i++) if (sorted.get(i).list() < 0) local[i] = top++;
    topSize = top;
    Map<String, Integer> slots = new LinkedHashMap<>(index);
    for (int i = 0; i < order.length; i++)
      order[i] = sorted.get(i).bound(name -> slots.computeIfAbsent(name, this::extra));
    dependents = new Dependents(this);
  }

  private int extra(String name) {
    int list = -1;
    int column = -1;
    for (int l = 0; l < lists.size(); l++) {
      String of = lists.get(l).name();
      if (name.equals(of)) list = l;
      else if (name.startsWith(of + ".") && index.containsKey(name.substring(of.length() + 1))) {
        list = l;
        column = index.get(name.substring(of.length() + 1));
      }
    }
    extras.add(new Extra(name, list, column));
    return order.length + extras.size() - 1;
  }

  /** The form. */
  public Form form() {
    return form;
  }

  /** The schema it was compiled against. */
  public Schema schema() {
    return schema;
  }

  /** The names that its rules may use outside of lists. */
  public Scope scope() {
    return scope;
  }

  /**
   * How many questions and named rules it has; each has a number, in the order in which they are
   * evaluated.
   */
  public int size() {
    return order.length;
  }

  /** The question or named rule of a number. */
  public Compiled at(int i) {
    return order[i];
  }

  /** The place of a question among the answers of the visit, or of its row. */
  public int local(int i) {
    return local[i];
  }

  /** How many answers the visit has outside of rows. */
  public int topSize() {
    return topSize;
  }

  /** The number of a question or named rule; less than 0 when there is none of that name. */
  public int indexOf(String name) {
    return index.getOrDefault(name, -1);
  }

  /** The list sections, in the order of the sheet. */
  public List<ListPart> lists() {
    return lists;
  }

  /** The number of a list; less than 0 when there is none of that name. */
  public int listOf(String name) {
    for (int l = 0; l < lists.size(); l++) if (lists.get(l).name().equals(name)) return l;
    return -1;
  }

  /** The name of the hidden condition under which a list is asked; no question can have it. */
  static String gateName(String list) {
    return "list " + list;
  }

  /** The hidden condition under which a list is asked; less than 0 when it always is. */
  public int gate(int list) {
    return indexOf(gateName(lists.get(list).name()));
  }

  /** What a slot beyond the questions stands for. */
  public Extra extraAt(int slot) {
    return extras.get(slot - order.length);
  }

  /** The questions of a section in the order of the sheet. */
  public int[] sheet(int section) {
    return sheet[section];
  }

  /** Who must be evaluated again when something changes. */
  public Dependents dependents() {
    return dependents;
  }
}
