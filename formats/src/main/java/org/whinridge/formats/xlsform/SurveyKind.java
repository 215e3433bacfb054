package org.whinridge.formats.xlsform;

import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.form.QuestionType;

/** What a row of the survey is: by its type, and by the looks that make one kind of another. */
final class SurveyKind {
  private SurveyKind() {}

  /** The word of the type column in one spelling. */
  static String word(Worksheets.Line l) {
    String t = l.get("type").strip().replaceAll("\\s+", " ");
    String lower = t.toLowerCase(Locale.ROOT).replace("begin_", "begin ").replace("end_", "end ");
    return lower.startsWith("select") || lower.startsWith("rank")
        ? t.replaceFirst("(?i)^select one ", "select_one ")
            .replaceFirst("(?i)^select multiple ", "select_multiple ")
        : lower;
  }

  /** The type of question that a row asks; null when there is none like it. */
  static QuestionType of(Worksheets.Line l, Choices choices) {
    String type = word(l);
    String first = type.split(" ")[0].toLowerCase(Locale.ROOT);
    String looks = l.get("appearance").toLowerCase(Locale.ROOT);
    Optional<QuestionType> own = OwnColumns.type(l);
    if (own.isPresent()) return own.get();
    if (first.equals("select_one") || first.equals("select1"))
      return choices.isYesNo(type)
          ? QuestionType.YES_NO
          : looks.contains("likert") ? QuestionType.GRADE : QuestionType.CHOICE;
    if (first.equals("select_multiple")) return QuestionType.CHOICES;
    if (first.equals("rank")) return QuestionType.RANKED;
    if (SurveyTypes.DEVICE.containsKey(type)) return SurveyTypes.device(type);
    if (type.equals("calculate")) return QuestionType.TEXT;
    QuestionType t = SurveyTypes.PLAIN.get(type);
    if (t == QuestionType.TEXT && looks.contains("multiline")) return QuestionType.LONG_TEXT;
    if (t == QuestionType.PHOTO && looks.contains("signature")) return QuestionType.SIGNATURE;
    if (t == QuestionType.PHOTO && (looks.contains("draw") || looks.contains("annotate")))
      return QuestionType.SKETCH;
    if (t == QuestionType.WHOLE && looks.contains("counter")) return QuestionType.COUNTER;
    if (t == QuestionType.READ && !l.get("media::image").isEmpty()) return QuestionType.PICTURE;
    return t;
  }
}
