package org.whinridge.formats.xlsform;

import java.util.List;
import java.util.Map;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Code;

/** The words of the type column and the question types that they stand for, both ways. */
final class SurveyTypes {
  static final Map<String, QuestionType> PLAIN =
      Map.ofEntries(
          Map.entry("text", QuestionType.TEXT),
          Map.entry("string", QuestionType.TEXT),
          Map.entry("integer", QuestionType.WHOLE),
          Map.entry("int", QuestionType.WHOLE),
          Map.entry("decimal", QuestionType.DECIMAL),
          Map.entry("range", QuestionType.DECIMAL),
          Map.entry("date", QuestionType.DATE),
          Map.entry("time", QuestionType.TIME),
          Map.entry("datetime", QuestionType.DATE_TIME),
          Map.entry("geopoint", QuestionType.POINT),
          Map.entry("geotrace", QuestionType.LINE),
          Map.entry("geoshape", QuestionType.AREA),
          Map.entry("image", QuestionType.PHOTO),
          Map.entry("photo", QuestionType.PHOTO),
          Map.entry("audio", QuestionType.SOUND),
          Map.entry("file", QuestionType.FILE),
          Map.entry("barcode", QuestionType.TAG),
          Map.entry("note", QuestionType.READ),
          Map.entry("acknowledge", QuestionType.YES_NO),
          Map.entry("trigger", QuestionType.YES_NO));

  /** What a device fills in by itself: the type, and the item of a device source. */
  static final Map<String, String> DEVICE =
      Map.of(
          "start", "moment",
          "today", "date",
          "deviceid", "device",
          "username", "person",
          "start-geopoint", "position");

  private SurveyTypes() {}

  /** The type that a question has when its workbook is read, by the convention alone. */
  static QuestionType comesBackAs(Question q) {
    if (q.isWorkedOut() && !q.type().hasCodes() && q.type() != QuestionType.YES_NO)
      return XPathToCql.shownAs(q.type().valueType());
    boolean yesNo =
        (q.type() == QuestionType.CHOICE || q.type() == QuestionType.GRADE)
            && q.codes().stream()
                .filter(c -> !c.retired())
                .map(Code::code)
                .toList()
                .equals(List.of("yes", "no"));
    if (yesNo) return QuestionType.YES_NO;
    switch (q.type()) {
      case DURATION:
        return QuestionType.DECIMAL;
      case LINK:
        return QuestionType.TEXT;
      case PICTURE:
        return q.layout().picture().isEmpty() ? QuestionType.READ : QuestionType.PICTURE;
      default:
        return q.type();
    }
  }

  static QuestionType device(String type) {
    switch (type) {
      case "start":
        return QuestionType.DATE_TIME;
      case "today":
        return QuestionType.DATE;
      case "start-geopoint":
        return QuestionType.POINT;
      default:
        return QuestionType.TEXT;
    }
  }

  /** The word for a question type that is no choice; "" when the convention has none. */
  static String word(QuestionType type) {
    switch (type) {
      case WHOLE:
      case COUNTER:
      case DURATION:
        return type == QuestionType.DURATION ? "decimal" : "integer";
      case DECIMAL:
        return "decimal";
      case TEXT:
      case LONG_TEXT:
      case LINK:
        return "text";
      case DATE:
        return "date";
      case TIME:
        return "time";
      case DATE_TIME:
        return "dateTime";
      case POINT:
        return "geopoint";
      case LINE:
        return "geotrace";
      case AREA:
        return "geoshape";
      case PHOTO:
      case SKETCH:
      case SIGNATURE:
        return "image";
      case SOUND:
        return "audio";
      case FILE:
        return "file";
      case TAG:
        return "barcode";
      case READ:
      case PICTURE:
        return "note";
      default:
        return "";
    }
  }

  /** What stands in the type column for a question; {@code list} is its code list's name. */
  static String cell(Question q, String list) {
    switch (q.type()) {
      case CHOICE:
      case GRADE:
        return "select_one " + list;
      case CHOICES:
        return "select_multiple " + list;
      case RANKED:
        return "rank " + list;
      case YES_NO:
        return "select_one yes_no";
      default:
        return q.isWorkedOut() ? "calculate" : word(q.type());
    }
  }

  /** The appearance that makes a question what it is, or looks as its layout says. */
  static String appearance(Question q) {
    switch (q.type()) {
      case LONG_TEXT:
        return "multiline";
      case SIGNATURE:
        return "signature";
      case SKETCH:
        return "annotate";
      case COUNTER:
        return "counter";
      case GRADE:
        return "likert";
      default:
    }
    switch (q.layout().as()) {
      case "list":
        return "minimal";
      case "side by side":
        return "horizontal";
      case "compact":
        return "quickcompact";
      default:
        return "";
    }
  }
}
