package org.whinridge.core.rules;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.ValueType;

/** What names a rule may use, and of what type they are. */
public interface Scope {
  /**
   * A name and what is known of it.
   *
   * @param label how people call it, used in sentences; what somebody named it, or a text of the
   *     catalogue
   * @param codes the codes that its list allows, in order; empty when there is no list
   * @param unit the unit of a number, such as mm; "" for none
   */
  record Known(String name, ValueType type, Said label, List<CodeLabel> codes, String unit) {
    /** A name that somebody gave. */
    public Known(String name, ValueType type, String label, List<CodeLabel> codes, String unit) {
      this(name, type, Said.text(label), codes, unit);
    }

    /** A name without a unit. */
    public Known(String name, ValueType type, String label, List<CodeLabel> codes) {
      this(name, type, Said.text(label), codes, "");
    }
  }

  /** A stored code and its label. */
  record CodeLabel(String code, String label) {}

  /** What is known of a name. */
  Optional<Known> find(String name);

  /**
   * What to write in place of a name that exists, but not here; empty for a name unknown anywhere.
   */
  default Optional<String> insteadOf(String name) {
    return Optional.empty();
  }

  /** Whether other names share a label, so that a sentence must tell which one it means. */
  default boolean isShared(Said label) {
    int n = 0;
    for (String name : names())
      if (find(name)
          .filter(k -> k.label().toString().equalsIgnoreCase(label.toString()))
          .isPresent()) n++;
    return n > 1;
  }

  /** All names, for the nearest one in a message. */
  Collection<String> names();
}
