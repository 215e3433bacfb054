package org.whinridge.formats.xlsform;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/** One row of the survey that asks something, as a question. */
final class SurveyQuestion {
  private static final Pattern ANSWER = Pattern.compile("\\$\\{\\s*([^}\\s]+)\\s*}");

  /** Translates a column of the row; "" when it is empty or has no counterpart, which is told. */
  interface Expressions {
    String of(String column);
  }

  private final Worksheets.Line line;
  private final Names.Known known;
  private final String type;
  private final Languages languages;
  private final List<Told> told;
  private final Names names;
  private final Expressions expressions;

  SurveyQuestion(
      Worksheets.Line line,
      Names.Known known,
      String type,
      Languages languages,
      List<Told> told,
      Names names,
      Expressions expressions) {
    this.line = line;
    this.known = known;
    this.type = type;
    this.languages = languages;
    this.told = told;
    this.names = names;
    this.expressions = expressions;
  }

  private void tell(String column, Said message) {
    told.add(new Told("survey", line.row(), column, line.get(column), message));
  }

  Question read(String block, List<Code> codes) {
    Texts texts = languages.texts(line.cells(), Map.of("label", "label", "hint", "hint"));
    Question plain = Question.of(known.name(), known.name(), known.type());
    JsonObject o = plain.json();
    for (String column : line.cells().keySet())
      if ((column.startsWith("label") || column.startsWith("hint"))
          && ANSWER.matcher(line.get(column)).find())
        tell(column, Said.of("sheetTold.answerInsideLabelOr"));
    if (!texts.get("label").isEmpty()) o.set("label", texts.get("label"));
    if (!texts.get("hint").isEmpty()) o.add("hint", texts.get("hint"));
    others(o, texts);
    if (!codes.isEmpty()) o.add("codes", Code.write(codes));
    if (!block.isEmpty()) o.add("block", block);
    needed(o);
    text(o, "askWhen", expressions.of("relevant"));
    check(o);
    worked(o);
    start(o);
    if (line.get("read_only").matches("(?i)yes|true|true\\(\\)")) o.add("readOnly", true);
    appearance(o);
    parameters(o);
    if (known.type() == QuestionType.LINK && line.get(OwnColumns.PREFIX + "layer").isEmpty())
      tell("type", Said.of("sheetTold.linkedLayerBeChosen"));
    if (!line.get("media::image").isEmpty()) {
      o.add("picture", line.get("media::image"));
      tell("media::image", Said.of("sheetTold.workbookNamesPictureBut"));
    }
    for (String changed : OwnColumns.putBack(line, o))
      tell(changed, Said.of("sheetTold.cellWasChangedSince"));
    return Question.read(o);
  }

  /** An answer in a text: a message can hold one, by {name}; labels and hints can't. */
  private Texts withAnswers(Texts texts) {
    Map<String, String> own = new LinkedHashMap<>();
    texts.own().forEach((what, text) -> own.put(what, answers(text)));
    Map<String, Map<String, String>> others = new LinkedHashMap<>();
    texts
        .others()
        .forEach(
            (language, words) -> {
              Map<String, String> in = new LinkedHashMap<>();
              words.forEach((what, text) -> in.put(what, answers(text)));
              others.put(language, in);
            });
    return new Texts(own, others);
  }

  private String answers(String text) {
    Matcher m = ANSWER.matcher(text);
    StringBuilder b = new StringBuilder();
    while (m.find()) {
      Names.Known k = names.find(m.group(1), known.groups());
      if (k == null)
        tell("constraint_message", Said.of("sheetTold.noQuestionInText", "name", m.group(1)));
      m.appendReplacement(
          b, Matcher.quoteReplacement(k == null ? m.group() : "{" + k.name() + "}"));
    }
    return m.appendTail(b).toString();
  }

  private static void text(JsonObject o, String member, String text) {
    if (!text.isEmpty()) o.add(member, text);
  }

  /** Adds what a thing is called in other languages. */
  static void others(JsonObject o, Texts texts) {
    if (texts.others().isEmpty()) return;
    JsonObject in = new JsonObject();
    texts
        .others()
        .forEach(
            (language, words) -> {
              JsonObject one = new JsonObject();
              words.forEach(one::add);
              in.add(language, one);
            });
    o.add("in", in);
  }

  private void needed(JsonObject o) {
    String required = line.get("required");
    if (required.matches("(?i)yes|true|true\\(\\)|1")) o.add("need", "needed");
    else if (!required.isEmpty() && !required.matches("(?i)no|false|false\\(\\)|0"))
      tell("required", Said.of("sheetTold.neededOnlyUnderCondition"));
    if (!line.get("required_message").isEmpty())
      tell("required_message", Said.of("sheetTold.missingAnswerToldWhinridges"));
  }

  private void check(JsonObject o) {
    String rule = expressions.of("constraint");
    if (rule.isEmpty() && line.get("constraint").isEmpty())
      for (String column : line.cells().keySet())
        if (column.startsWith("constraint_message"))
          tell(column, Said.of("sheetTold.messageWithoutConstraintTold"));
    if (rule.isEmpty()) return;
    Texts message =
        withAnswers(languages.texts(line.cells(), Map.of("constraint_message", "message")));
    JsonObject check =
        new JsonObject()
            .add("rule", rule)
            .add("message", message.get("message"))
            .add("weight", "firm");
    others(check, message);
    o.add("checks", new JsonArray().add(check));
  }

  private void worked(JsonObject o) {
    if (line.get("calculation").isEmpty()) {
      if (type.equals("calculate"))
        tell("calculation", Said.of("sheetTold.calculationWithoutFormula"));
      return;
    }
    text(o, "workOut", expressions.of("calculation"));
  }

  private void start(JsonObject o) {
    JsonArray chain = new JsonArray();
    if (SurveyTypes.DEVICE.containsKey(type))
      chain.add(new JsonObject().add("from", "device").add("item", SurveyTypes.DEVICE.get(type)));
    String text = line.get("default");
    if (!text.isEmpty()) {
      if (text.contains("(") || text.contains("${")) {
        String formula = expressions.of("default");
        if (!formula.isEmpty())
          chain.add(new JsonObject().add("from", "worked out").add("formula", formula));
      } else chain.add(new JsonObject().add("from", "fixed").add("value", fixed(text)));
    }
    if (!chain.isEmpty()) o.add("prefill", chain);
  }

  private JsonValue fixed(String text) {
    if (known.type() == QuestionType.CHOICES || known.type() == QuestionType.RANKED) {
      JsonArray codes = new JsonArray();
      for (String code : text.split("\\s+")) codes.add(code);
      return codes;
    }
    Value v = ValueJson.readText(text, known.type().valueType());
    if (v.type() != known.type().valueType())
      tell("default", Said.of("sheetTold.notKeptAs", "valueType", known.type().valueType().said()));
    return ValueJson.write(v);
  }

  private void appearance(JsonObject o) {
    boolean counted = false;
    for (String word : line.get("appearance").toLowerCase(Locale.ROOT).split("\\s+")) {
      if (word.isEmpty()) continue;
      switch (word.replaceAll("-.*$", "")) {
        case "minimal":
        case "autocomplete":
        case "search":
          o.set("as", "list");
          break;
        case "likert":
        case "horizontal":
          o.set("as", "side by side");
          break;
        case "compact":
        case "quickcompact":
        case "columns":
        case "quick":
          o.set("as", "compact");
          break;
        case "multiline":
        case "signature":
        case "draw":
        case "annotate":
        case "counter":
          break; // these made the type
        default:
          counted = true;
      }
    }
    if (counted) tell("appearance", Said.of("sheetTold.partLookNoCounterpart"));
  }

  private void parameters(JsonObject o) {
    String all = line.get("parameters");
    if (all.isEmpty()) return;
    boolean left = false;
    for (String one : all.split("[\\s;,]+")) {
      String[] pair = one.split("=", 2);
      var number = pair.length < 2 ? java.util.OptionalDouble.empty() : Numbers.read(pair[1]);
      String member =
          type.equals("range")
              ? Map.of("start", "from", "end", "to", "step", "step").getOrDefault(pair[0], "")
              : "";
      if (member.isEmpty() || number.isEmpty()) left = true;
      else o.set(member, Numbers.json(number.getAsDouble()));
    }
    if (left) tell("parameters", Said.of("sheetTold.partTheseParametersNo"));
  }
}
