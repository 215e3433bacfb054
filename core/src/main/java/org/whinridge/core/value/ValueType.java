package org.whinridge.core.value;

import org.whinridge.core.said.Said;

/** The kinds of value that the rules language tells apart. */
public enum ValueType {
  NUMBER,
  TEXT,
  YES_NO,
  DATE,
  DATE_TIME,
  INTERVAL,
  LIST,
  GEOMETRY,
  /** No value, or a value of a kind that is not known: fits every other type. */
  EMPTY;

  /** How a message names the type: "a number". */
  public Said said() {
    return Said.of("valueType." + name());
  }

  /** Whether a value of this type can stand where {@code other} is expected. */
  public boolean fits(ValueType other) {
    return this == other || this == EMPTY || other == EMPTY;
  }
}
