package org.whinridge.core.layer;

import java.util.Optional;
import org.whinridge.core.text.Word;
import org.whinridge.core.value.ValueType;

/** What a field can hold. */
public enum FieldType implements Word {
  TEXT("text", "text", ValueType.TEXT),
  WHOLE("whole", "whole number", ValueType.NUMBER),
  DECIMAL("decimal", "decimal number", ValueType.NUMBER),
  YES_NO("yes_no", "yes / no", ValueType.YES_NO),
  DATE("date", "date", ValueType.DATE),
  /** Hours and minutes of a day, kept as text HH:MM or HH:MM:SS, which sorts as times do. */
  TIME("time", "time of day", ValueType.TEXT),
  DATE_TIME("date_time", "date and time", ValueType.DATE_TIME),
  CODE("code", "code from a list", ValueType.TEXT),
  CODES("codes", "many codes", ValueType.LIST),
  /** A UUID as text, made with the feature and never typed. */
  UNIQUE_ID("unique_id", "unique id", ValueType.TEXT);
  private final String id;
  private final String said;
  private final ValueType valueType;

  FieldType(String id, String said, ValueType valueType) {
    this.id = id;
    this.said = said;
    this.valueType = valueType;
  }

  /** The stable word in data. */
  @Override
  public String id() {
    return id;
  }

  /** The words for people. */
  public String said() {
    return said;
  }

  /** The kind of value it holds. */
  public ValueType valueType() {
    return valueType;
  }

  /** The type with that word. */
  public static Optional<FieldType> of(String id) {
    return Word.of(values(), id);
  }
}
