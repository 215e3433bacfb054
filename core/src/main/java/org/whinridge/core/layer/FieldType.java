package org.whinridge.core.layer;

import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Word;
import org.whinridge.core.value.ValueType;

/** What a field can hold. */
public enum FieldType implements Word {
  TEXT("text", ValueType.TEXT),
  WHOLE("whole", ValueType.NUMBER),
  DECIMAL("decimal", ValueType.NUMBER),
  YES_NO("yes_no", ValueType.YES_NO),
  DATE("date", ValueType.DATE),
  /** Hours and minutes of a day, kept as text HH:MM or HH:MM:SS, which sorts as times do. */
  TIME("time", ValueType.TEXT),
  DATE_TIME("date_time", ValueType.DATE_TIME),
  CODE("code", ValueType.TEXT),
  CODES("codes", ValueType.LIST),
  /** A UUID as text, made with the feature and never typed. */
  UNIQUE_ID("unique_id", ValueType.TEXT);
  private final String id;
  private final ValueType valueType;

  FieldType(String id, ValueType valueType) {
    this.id = id;
    this.valueType = valueType;
  }

  /** The stable word in data. */
  @Override
  public String id() {
    return id;
  }

  /** The words for people. */
  public Said said() {
    return Said.of("fieldType." + id);
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
