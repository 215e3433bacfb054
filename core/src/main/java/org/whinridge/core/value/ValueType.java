package org.whinridge.core.value;

/** The kinds of value that the rules language tells apart. */
public enum ValueType {
  NUMBER("a number"),
  TEXT("text"),
  YES_NO("yes or no"),
  DATE("a date"),
  DATE_TIME("a moment"),
  INTERVAL("an interval of time"),
  LIST("a list"),
  GEOMETRY("a geometry"),
  /** No value, or a value of a kind that is not known: fits every other type. */
  EMPTY("no value");
  private final String said;

  ValueType(String said) {
    this.said = said;
  }

  /** How a message names the type: "a number". */
  public String said() {
    return said;
  }

  /** Whether a value of this type can stand where {@code other} is expected. */
  public boolean fits(ValueType other) {
    return this == other || this == EMPTY || other == EMPTY;
  }
}
