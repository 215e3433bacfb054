package org.whinridge.core.form.line;

import java.util.Optional;
import org.whinridge.core.form.QuestionType;

/**
 * The words for kinds of questions in lines, longer ones before those that they begin with. Each
 * type has one; a type that a line shows without its word ({@code 0..500}, {@code a | b}) can be
 * written with it too.
 */
enum LineKind {
  LONG_TEXT("long text", QuestionType.LONG_TEXT),
  TEXT("text", QuestionType.TEXT),
  WHOLE("whole", QuestionType.WHOLE),
  DECIMAL("decimal", QuestionType.DECIMAL),
  COUNTER("counter", QuestionType.COUNTER),
  YES_NO("yes/no", QuestionType.YES_NO),
  CHOICES("choices", QuestionType.CHOICES),
  CHOICE("choice", QuestionType.CHOICE),
  RANKED("ranked", QuestionType.RANKED),
  GRADE("grade", QuestionType.GRADE),
  DATE_TIME("date and time", QuestionType.DATE_TIME),
  DATE("date", QuestionType.DATE),
  TIME("time", QuestionType.TIME),
  DURATION("minutes", QuestionType.DURATION),
  POINT("point", QuestionType.POINT),
  LINE("line", QuestionType.LINE),
  AREA("area", QuestionType.AREA),
  PHOTO("photo", QuestionType.PHOTO),
  SKETCH("sketch", QuestionType.SKETCH),
  SIGNATURE("signature", QuestionType.SIGNATURE),
  SOUND("sound", QuestionType.SOUND),
  FILE("file", QuestionType.FILE),
  TAG("tag", QuestionType.TAG),
  LINK("link", QuestionType.LINK),
  READ("read", QuestionType.READ),
  PICTURE("picture", QuestionType.PICTURE);

  private final String word;
  private final QuestionType type;

  LineKind(String word, QuestionType type) {
    this.word = word;
    this.type = type;
  }

  String word() {
    return word;
  }

  QuestionType type() {
    return type;
  }

  /** The kind with whose word a part of a line begins. */
  static Optional<LineKind> at(String part) {
    for (LineKind k : values())
      if (part.equals(k.word) || part.startsWith(k.word + " ")) return Optional.of(k);
    return Optional.empty();
  }

  static LineKind of(QuestionType type) {
    for (LineKind k : values()) if (k.type == type) return k;
    throw new IllegalStateException("no word for " + type);
  }
}
