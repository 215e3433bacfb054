package org.whinridge.core.form;

import java.util.Optional;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.value.ValueType;

/** How a question is answered. */
public enum QuestionType {
  TEXT("text", ValueType.TEXT),
  LONG_TEXT("long_text", ValueType.TEXT),
  WHOLE("whole", ValueType.NUMBER),
  DECIMAL("decimal", ValueType.NUMBER),
  YES_NO("yes_no", ValueType.YES_NO),
  CHOICE("choice", ValueType.TEXT),
  CHOICES("choices", ValueType.LIST),
  DATE("date", ValueType.DATE),
  DATE_TIME("date_time", ValueType.DATE_TIME),
  /** Photos, as the list of their ids. */
  PHOTO("photo", ValueType.LIST),
  /** Text to read; has no answer. */
  READ("read", ValueType.EMPTY);
  private final String id;
  private final ValueType valueType;

  QuestionType(String id, ValueType valueType) {
    this.id = id;
    this.valueType = valueType;
  }

  /** The stable word in data. */
  public String id() {
    return id;
  }

  /**
   * The kind of value of an answer; a choice over a number field answers with numbers, see {@link
   * Question#valueType}.
   */
  public ValueType valueType() {
    return valueType;
  }

  /** The type with that word. */
  public static Optional<QuestionType> of(String id) {
    for (QuestionType t : values()) if (t.id.equals(id)) return Optional.of(t);
    return Optional.empty();
  }

  /** The type that asks for a field; a field with a code list is a choice. */
  public static QuestionType forField(FieldType t, boolean hasCodes) {
    if (hasCodes) return t == FieldType.CODES ? CHOICES : CHOICE;
    switch (t) {
      case WHOLE:
        return WHOLE;
      case DECIMAL:
        return DECIMAL;
      case YES_NO:
        return YES_NO;
      case DATE:
        return DATE;
      case DATE_TIME:
        return DATE_TIME;
      case CODES:
        return CHOICES;
      default:
        return TEXT;
    }
  }
}
