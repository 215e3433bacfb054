package org.whinridge.core.form;

import java.util.List;
import java.util.Optional;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.text.Word;
import org.whinridge.core.value.ValueType;

/** How a question is answered. Any of them that has an answer may be worked out by a formula. */
public enum QuestionType implements Word {
  TEXT("text", ValueType.TEXT),
  LONG_TEXT("long_text", ValueType.TEXT),
  WHOLE("whole", ValueType.NUMBER),
  DECIMAL("decimal", ValueType.NUMBER),
  /** A whole number counted up and down by taps. */
  COUNTER("counter", ValueType.NUMBER),
  YES_NO("yes_no", ValueType.YES_NO),
  CHOICE("choice", ValueType.TEXT),
  CHOICES("choices", ValueType.LIST),
  /** The codes in the order of their rank, first is best. */
  RANKED("ranked", ValueType.LIST),
  /** One code of an ordered scale. */
  GRADE("grade", ValueType.TEXT),
  DATE("date", ValueType.DATE),
  /** A time of day as HH:MM. */
  TIME("time", ValueType.TEXT),
  DATE_TIME("date_time", ValueType.DATE_TIME),
  /** Minutes, as a number. */
  DURATION("duration", ValueType.NUMBER),
  POINT("point", ValueType.GEOMETRY),
  LINE("line", ValueType.GEOMETRY),
  AREA("area", ValueType.GEOMETRY),
  /** Photos, as the list of their ids. */
  PHOTO("photo", ValueType.LIST),
  /** Drawings on a photo or on the reference picture, as the list of their ids. */
  SKETCH("sketch", ValueType.LIST),
  /** A signature, as a list of one id. */
  SIGNATURE("signature", ValueType.LIST),
  /** Spoken notes, as the list of their ids. */
  SOUND("sound", ValueType.LIST),
  /** Any files, as the list of their ids. */
  FILE("file", ValueType.LIST),
  /** The text of a scanned tag. */
  TAG("tag", ValueType.TEXT),
  /** The id of a feature of another layer. */
  LINK("link", ValueType.TEXT),
  /** Text to read; has no answer. */
  READ("read", ValueType.EMPTY),
  /** A picture to look at; has no answer. */
  PICTURE("picture", ValueType.EMPTY);
  private final String id;
  private final ValueType valueType;

  QuestionType(String id, ValueType valueType) {
    this.id = id;
    this.valueType = valueType;
  }

  /** The stable word in data. */
  @Override
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

  /** Whether people give it an answer, or a formula does. */
  public boolean hasAnswer() {
    return valueType != ValueType.EMPTY;
  }

  /** Whether it is answered with codes of a list. */
  public boolean hasCodes() {
    return this == CHOICE || this == CHOICES || this == RANKED || this == GRADE;
  }

  /** Whether its answer is a list of ids of files. */
  public boolean isMedia() {
    return this == PHOTO || this == SKETCH || this == SIGNATURE || this == SOUND || this == FILE;
  }

  /** Whether its numbers have no decimals. */
  public boolean isWhole() {
    return this == WHOLE || this == COUNTER;
  }

  /** The layouts that fit it, as {@link Question.Layout#as()}; "" is what suits it best. */
  public List<String> ways() {
    switch (this) {
      case CHOICE:
        return List.of("", "buttons", "list", "side by side", "compact");
      case GRADE:
        return List.of("", "bar", "buttons", "list");
      case CHOICES:
      case RANKED:
      case YES_NO:
        return List.of("", "side by side", "compact");
      case WHOLE:
        return List.of("", "stepper");
      default:
        return List.of("");
    }
  }

  /** The type with that word. */
  public static Optional<QuestionType> of(String id) {
    return Word.of(values(), id);
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
      case TIME:
        return TIME;
      case DATE_TIME:
        return DATE_TIME;
      case CODES:
        return CHOICES;
      default:
        return TEXT;
    }
  }
}
