package org.whinridge.formats.xlsform;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionProperty;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Code;

/**
 * What the convention has no place for, in columns of our own, so that a form comes back as it was:
 * {@code whinridge::…} with the member of the form file, as JSON. Other programs pass them over. A
 * member that also stands in a column of the convention counts only as long as nobody has changed
 * that one.
 */
final class OwnColumns {
  static final String PREFIX = "whinridge::";

  /** Members of a question with no place in the convention. */
  static final List<String> QUESTION = members("");

  /** Members that a column of the convention holds in part or in another form. */
  private static final Map<String, List<String>> TOGETHER = together();

  /** The members that one column holds, as {@link QuestionProperty} says. */
  private static List<String> members(String column) {
    return java.util.Arrays.stream(QuestionProperty.values())
        .filter(p -> p.column().equals(column))
        .map(QuestionProperty::id)
        .toList();
  }

  private static Map<String, List<String>> together() {
    Map<String, List<String>> out = new LinkedHashMap<>();
    for (String column : List.of("constraint", "default", "relevant", "calculation"))
      out.put(column, members(column));
    return out;
  }

  private OwnColumns() {}

  private static final Set<String> OTHER =
      Set.of("need", "type", "retired", "alone", "fitsWhen", "rows", "rule", "lookUps", "allowed");

  /** Whether a column is one of ours, and not one that somebody made up. */
  static boolean isOwn(String column) {
    if (!column.startsWith(PREFIX)) return false;
    String member = column.substring(PREFIX.length());
    return QUESTION.contains(member) || OTHER.contains(member) || TOGETHER.containsKey(member);
  }

  /** Whether a cell of one of our columns holds what it must; it could be cut or edited. */
  static boolean isSound(Worksheets.Line l, String column) {
    return json(l, column.substring(PREFIX.length())).isPresent();
  }

  private static Optional<JsonValue> json(Worksheets.Line l, String member) {
    String text = l.get(PREFIX + member);
    if (text.isEmpty()) return Optional.empty();
    try {
      return Optional.of(Json.parse(text));
    } catch (ParseException e) {
      return Optional.empty();
    }
  }

  /** What a question has beyond the convention, by column; "" where it has nothing. */
  static Map<String, String> of(Question q, Map<String, String> row) {
    Map<String, String> out = new LinkedHashMap<>();
    JsonObject all = q.json();
    for (String m : QUESTION) if (all.get(m) != null) out.put(PREFIX + m, all.get(m).toString());
    if (q.need() == Question.Need.WANTED) out.put(PREFIX + "need", "\"wanted\"");
    TOGETHER.forEach(
        (column, members) ->
            together(all, members, row.getOrDefault(column, ""))
                .ifPresent(text -> out.put(PREFIX + column, text)));
    if (!q.type().id().equals(SurveyTypes.comesBackAs(q).id()))
      out.put(PREFIX + "type", "\"" + q.type().id() + "\"");
    List<Code> retired = q.codes().stream().filter(Code::retired).toList();
    if (!retired.isEmpty()) out.put(PREFIX + "retired", Code.write(retired).toString());
    return out;
  }

  private static Optional<String> together(JsonObject all, List<String> members, String with) {
    JsonObject o = new JsonObject().add("with", with);
    for (String m : members) if (all.get(m) != null) o.add(m, all.get(m));
    return o.size() > 1 ? Optional.of(o.toString()) : Optional.empty();
  }

  /** Puts back what a row has of our own; gives the columns that were changed since. */
  static List<String> putBack(Worksheets.Line l, JsonObject question) {
    for (String m : QUESTION) json(l, m).ifPresent(v -> question.set(m, v));
    json(l, "need").ifPresent(v -> question.set("need", v));
    List<String> changed = new java.util.ArrayList<>();
    TOGETHER.forEach(
        (column, members) -> {
          JsonValue v = json(l, column).orElse(null);
          if (v == null || !v.isObject()) return;
          if (!v.asObject().getString("with", "").equals(l.get(column))) {
            changed.add(column);
            return;
          }
          for (String m : members) {
            if (question.get(m) != null) question.remove(m);
            if (v.asObject().get(m) != null) question.set(m, v.asObject().get(m));
          }
        });
    return changed;
  }

  /** The condition of a section or block beside the one that stands in relevant. */
  static void when(Map<String, String> row, String askWhen) {
    together(
            new JsonObject().add("askWhen", askWhen),
            TOGETHER.get("relevant"),
            row.getOrDefault("relevant", ""))
        .ifPresent(s -> row.put(PREFIX + "relevant", s));
  }

  /** The condition of a section or block as it was; empty when its cell was changed. */
  static Optional<String> when(Worksheets.Line l) {
    return json(l, "relevant")
        .filter(JsonValue::isObject)
        .filter(v -> v.asObject().getString("with", "").equals(l.get("relevant")))
        .map(v -> v.asObject().getString("askWhen", ""));
  }

  /** The type that a question had, where the convention has none of its own. */
  static Optional<QuestionType> type(Worksheets.Line l) {
    return json(l, "type").filter(JsonValue::isString).flatMap(v -> QuestionType.of(v.asString()));
  }

  static List<Code> retired(Worksheets.Line l) {
    return json(l, "retired").filter(JsonValue::isArray).map(Code::read).orElse(List.of());
  }

  static boolean alone(Worksheets.Line choice) {
    return choice.get(PREFIX + "alone").equals("true");
  }

  static Optional<String> fitsWhen(Worksheets.Line choice) {
    return json(choice, "fitsWhen").filter(JsonValue::isString).map(JsonValue::asString);
  }

  static Optional<Section.Rows> rows(Worksheets.Line l) {
    return json(l, "rows")
        .filter(JsonValue::isObject)
        .map(
            v ->
                new Section.Rows(
                    v.asObject().getInt("least", 0),
                    v.asObject().getInt("most", 0),
                    v.asObject().getBoolean("fromLastVisit", false)));
  }

  /** Whether a row is a named rule, which other programs see as a calculation. */
  static boolean isRule(Worksheets.Line l) {
    return !l.get(PREFIX + "rule").isEmpty();
  }

  /** What a form has as a whole beyond the convention: rules, look-ups, allowed area. */
  static void putBack(Worksheets sheets, Names names, JsonObject form) {
    JsonArray rules = new JsonArray();
    for (Worksheets.Line l : sheets.get("survey")) {
      JsonValue v = isRule(l) ? json(l, "rule").orElse(null) : null;
      if (v != null && v.isObject()) rules.add(v.asObject().set("name", names.at(l.row()).name()));
    }
    if (!rules.isEmpty()) form.set("rules", rules);
    if (sheets.get("settings").isEmpty()) return;
    Worksheets.Line settings = sheets.get("settings").get(0);
    for (String m : List.of("lookUps", "allowed"))
      json(settings, m).filter(JsonValue::isObject).ifPresent(v -> form.set(m, v));
  }
}
