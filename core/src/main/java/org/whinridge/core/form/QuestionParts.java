package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.List;
import java.util.OptionalDouble;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.Refresh;
import org.whinridge.core.prefill.Source;

/**
 * What a question is made of while it is read, each part with its usual value. One flat JSON
 * object, so that an edit names one member.
 */
final class QuestionParts {
  String name = "";
  Texts texts = Texts.of();
  QuestionType type = QuestionType.TEXT;
  String unit = "";
  int decimals = -1;
  OptionalDouble from = OptionalDouble.empty();
  OptionalDouble to = OptionalDouble.empty();
  double step;
  int least;
  int most;
  int lines;
  Question.Need need = Question.Need.FREE;
  boolean readOnly;
  boolean lockOnRevisit;
  boolean officeOnly;
  String writesTo = "";
  Question.NotAsked notAsked = Question.NotAsked.LEFT;
  boolean unique;
  boolean keepOnAsset;
  String layer = "";
  List<Code> codes = List.of();
  String askWhen = "";
  String workOut = "";
  List<Check> checks = List.of();
  List<Source> prefill = List.of();
  Refresh refresh = Refresh.ONCE;
  String as = "";
  boolean half;
  String picture = "";
  String block = "";

  private QuestionParts() {}

  static JsonObject write(Question q) {
    JsonObject o = new JsonObject();
    for (QuestionProperty p : QuestionProperty.values()) {
      JsonValue v = p.write(q);
      if (v != null) o.add(p.id(), v);
    }
    return o;
  }

  /** Members that are no property are passed over. */
  static Question read(JsonObject o) {
    QuestionParts parts = new QuestionParts();
    for (QuestionProperty p : QuestionProperty.values()) {
      JsonValue v = o.get(p.id());
      if (v != null) p.read(parts, v);
    }
    return parts.question();
  }

  private Question question() {
    return new Question(
        name,
        texts.get("label").isEmpty() ? texts.with("label", name) : texts,
        type,
        new Limits(unit, decimals, from, to, step, least, most, lines),
        need,
        new Question.Hand(readOnly, lockOnRevisit, officeOnly),
        new Question.Wire(writesTo, notAsked, unique, keepOnAsset, layer),
        codes,
        new Question.Logic(askWhen, workOut, checks),
        prefill,
        refresh,
        new Question.Layout(as, half, picture, block));
  }
}
