package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Field;

/**
 * The questions of a workbook: the names they get here, their types and codes, and the lists they
 * stand in. Several questions in different groups may share a name there; here each gets its own.
 */
final class Names {
  /** Words of the rules language, which a name in a rule would be taken for. */
  private static final Set<String> WORDS =
      Set.of("and", "or", "not", "like", "between", "in", "is", "null", "div", "true", "false");

  /**
   * A question.
   *
   * @param list the list section that holds it; "" for none
   * @param codes the codes it is answered with; none for free answers
   * @param row its row in the survey
   * @param groups the groups it stands in, outermost first
   */
  record Known(
      String name,
      QuestionType type,
      String list,
      List<String> codes,
      int row,
      List<String> groups) {
    Known as(QuestionType other) {
      return new Known(name, other, list, codes, row, groups);
    }
  }

  private final Map<Integer, Known> byRow = new LinkedHashMap<>();
  private final Map<String, List<Integer>> rows = new LinkedHashMap<>();
  private final Set<String> taken = new LinkedHashSet<>();
  private final Map<String, String> lists = new LinkedHashMap<>();

  /** A name that Whinridge can have for one that a workbook has: letters, digits, underscores. */
  static String sound(String old) {
    if (Field.isName(old)) return old;
    return Field.nameFrom(old.replace('-', '_').replace('.', '_'));
  }

  /** Adds a question under a name that is its own, which differs when it is no name or taken. */
  Known add(
      String old,
      QuestionType type,
      String list,
      List<String> codes,
      int row,
      List<String> groups) {
    Known k = new Known(free(sound(old)), type, list, codes, row, List.copyOf(groups));
    byRow.put(row, k);
    rows.computeIfAbsent(old, x -> new ArrayList<>()).add(row);
    taken.add(k.name);
    return k;
  }

  /** Adds a list section; gives its name. */
  String addList(String old) {
    String name = free(sound(old));
    lists.putIfAbsent(old, name);
    taken.add(name);
    return name;
  }

  private String free(String wanted) {
    String name = wanted;
    for (int i = 2; isTaken(name); i++) name = wanted + "_" + i;
    return name;
  }

  private boolean isTaken(String name) {
    return FormNames.isReserved(name)
        || WORDS.contains(name.toLowerCase(Locale.ROOT))
        || taken.contains(name);
  }

  /** Gives a question another type, once it is known. */
  void retype(int row, QuestionType type) {
    byRow.computeIfPresent(row, (r, k) -> k.as(type));
  }

  /** The row of the question that has a name here; 0 for none. */
  int rowOf(String name) {
    for (Known k : byRow.values()) if (k.name.equals(name)) return k.row;
    return 0;
  }

  /** The question of a row; null when the row has none. */
  Known at(int row) {
    return byRow.get(row);
  }

  /**
   * The question that an expression means by a name: of several the one that shares most groups
   * with where it stands, else the first; null for none.
   */
  Known find(String old, List<String> from) {
    Known best = null;
    int most = -1;
    for (int row : rows.getOrDefault(old, List.of())) {
      Known k = byRow.get(row);
      int shared = 0;
      while (shared < Math.min(from.size(), k.groups.size())
          && from.get(shared).equals(k.groups.get(shared))) shared++;
      if (shared > most) {
        most = shared;
        best = k;
      }
    }
    return best;
  }

  /** Whether several questions share a name there. */
  boolean isShared(String old) {
    return rows.getOrDefault(old, List.of()).size() > 1;
  }

  /** The list section of a repeat; null for none. */
  String list(String old) {
    return lists.get(old);
  }
}
