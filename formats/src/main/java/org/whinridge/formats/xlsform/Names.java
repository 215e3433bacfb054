package org.whinridge.formats.xlsform;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.FormNames;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Field;

/**
 * The questions of a workbook: the names they get here, their types, and the lists they stand in.
 */
final class Names {
  /** A question. {@code list} is the list section that holds it; "" for none. */
  record Known(String name, QuestionType type, String list) {}

  private final Map<String, Known> byOld = new LinkedHashMap<>();
  private final Set<String> taken = new LinkedHashSet<>();
  private final Map<String, String> lists = new LinkedHashMap<>();

  /** A name that Whinridge can have for one that a workbook has: letters, digits, underscores. */
  static String sound(String old) {
    if (Field.isName(old)) return old;
    return Field.nameFrom(old.replace('-', '_').replace('.', '_'));
  }

  /**
   * Adds a question; gives the name it gets, which differs when it is no name or taken. Of two that
   * share a name expressions mean the first.
   */
  String add(String old, QuestionType type, String list) {
    String name = free(sound(old));
    byOld.putIfAbsent(old, new Known(name, type, list));
    taken.add(name);
    return name;
  }

  /** Adds a list section; gives its name. */
  String addList(String old) {
    String name = free(sound(old));
    lists.put(old, name);
    return name;
  }

  private String free(String wanted) {
    String name = wanted;
    for (int i = 2; isTaken(name); i++) name = wanted + "_" + i;
    return name;
  }

  private boolean isTaken(String name) {
    return FormNames.isReserved(name) || taken.contains(name) || lists.containsValue(name);
  }

  /** Gives a question another type, once it is known. */
  void retype(String old, QuestionType type) {
    Known k = byOld.get(old);
    byOld.put(old, new Known(k.name, type, k.list));
  }

  Known find(String old) {
    return byOld.get(old);
  }

  String list(String old) {
    return lists.get(old);
  }
}
