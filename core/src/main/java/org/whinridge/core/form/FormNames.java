package org.whinridge.core.form;

import java.util.Optional;
import java.util.Set;
import org.whinridge.core.layer.Field;
import org.whinridge.core.said.Said;

/** Which names questions, list sections and named rules may have. */
public final class FormNames {
  /** By this name rules ask for the visit's place. */
  private static final Set<String> RESERVED = Set.of("place");

  /**
   * What stands before a dot in rules: before.kind, last.kind, fix.accuracy, device.person,
   * visit.started, answers.kind. A list's name stands there, too: defects.length_m.
   */
  private static final Set<String> BEFORE_A_DOT =
      Set.of("before", "last", "fix", "device", "visit", "answers");

  private FormNames() {}

  /** Whether a name means something else in rules, so that nothing in a form may have it. */
  public static boolean isReserved(String name) {
    return RESERVED.contains(name);
  }

  /** What is wrong with a name; empty when nothing. */
  public static Optional<Said> problem(String name) {
    if (!Field.isName(name)) return Optional.of(Said.of("form.nameSigns", "name", name));
    return isReserved(name) ? meaning(name) : Optional.empty();
  }

  /** What is wrong with the name of a list section. */
  public static Optional<Said> problemOfList(String name) {
    return BEFORE_A_DOT.contains(name) ? meaning(name) : problem(name);
  }

  private static Optional<Said> meaning(String name) {
    return Optional.of(Said.of("form.nameTaken", "name", name));
  }
}
