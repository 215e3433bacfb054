package org.whinridge.core.form;

import java.util.Optional;
import java.util.Set;
import org.whinridge.core.layer.Field;

/** Which names questions, list sections and named rules may have. */
final class FormNames {
  /**
   * Names by which rules ask for something else: the place, or what stands behind a dot, as in
   * before.kind, last.kind, fix.accuracy, device.person, visit.started, answers.kind.
   */
  private static final Set<String> RESERVED =
      Set.of("place", "before", "last", "fix", "device", "visit", "answers");

  private FormNames() {}

  /** What is wrong with a name, a sentence part for people; empty when nothing. */
  static Optional<String> problem(String name) {
    if (!Field.isName(name))
      return Optional.of("a name has letters, digits and underscores, and ‘" + name + "’ does not");
    return RESERVED.contains(name)
        ? Optional.of("‘" + name + "’ has a meaning of its own in rules; choose another name")
        : Optional.empty();
  }
}
