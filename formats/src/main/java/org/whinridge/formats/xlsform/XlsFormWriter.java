package org.whinridge.formats.xlsform;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.form.Check;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.ValueType;

/** Writes a form as an XLSForm workbook, and tells what the convention has no place for. */
public final class XlsFormWriter {
  private static final List<String> COLUMNS =
      List.of(
          "type",
          "name",
          "label",
          "hint",
          "required",
          "repeat_count",
          "relevant",
          "constraint",
          "constraint_message",
          "calculation",
          "default",
          "appearance",
          "read_only",
          "choice_filter",
          "parameters",
          "media::image");

  /** What becomes of things that the convention has no place for. */
  private final Form form;

  private final List<String> languages;
  private final List<Map<String, String>> survey = new ArrayList<>();
  private final List<Map<String, String>> choices = new ArrayList<>();
  private final List<Told> told = new ArrayList<>();
  private final CqlToXPath xpath;

  private XlsFormWriter(Form form) {
    this.form = form;
    languages = form.languages();
    xpath =
        new CqlToXPath(
            name ->
                isRule(name)
                    || form.question(name).isPresent()
                    || form.sections().stream().anyMatch(s -> s.isList() && s.name().equals(name)),
            name ->
                form.question(name)
                    .filter(
                        q -> q.type() == QuestionType.CHOICES || q.type() == QuestionType.RANKED)
                    .isPresent(),
            name ->
                isRule(name) || form.question(name).filter(Question::isWorkedOut).isPresent()
                    ? "true"
                    : "yes");
  }

  /** Every name is known: what a rule means was checked when the form was compiled. */
  private static final Scope ANY =
      new Scope() {
        @Override
        public Optional<Known> find(String name) {
          return Optional.of(new Known(name, ValueType.EMPTY, name, List.of()));
        }

        @Override
        public List<String> names() {
          return List.of();
        }
      };

  /**
   * Writes the form; the stream stays open.
   *
   * @param form a form that compiles: {@link ExecutableForm#form}
   * @return what has no counterpart, by row of the sheets written
   */
  public static List<Told> write(ExecutableForm form, OutputStream out) throws IOException {
    XlsFormWriter w = new XlsFormWriter(form.form());
    w.sections();
    w.book(out);
    return List.copyOf(w.told);
  }

  private void tell(String column, String found, Said message) {
    told.add(new Told("survey", survey.size() + 1, column, found, message));
  }

  private boolean isRule(String name) {
    return form.rules().stream().anyMatch(r -> r.name().equals(name));
  }

  private void sections() {
    for (NamedRule r : form.rules()) {
      Map<String, String> row = row("calculate", r.name());
      put(row, "calculation", expression("calculation", r.rule()));
      row.put(
          OwnColumns.PREFIX + "rule",
          new JsonObject().add("label", r.label()).add("rule", r.rule()).toString());
    }
    form.lookUps().forEach((name, l) -> tell("", name, Said.of("sheetTold.placeLookUpsNo")));
    form.allowed()
        .ifPresent(a -> tell("", a.layerName(), Said.of("sheetTold.allowedAreaNoCounterpart")));
    for (Section s : form.sections()) section(s);
  }

  private Map<String, String> row(String type, String name) {
    Map<String, String> row = new LinkedHashMap<>();
    row.put("type", type);
    row.put("name", name);
    survey.add(row);
    return row;
  }

  private void section(Section s) {
    String kind = s.isList() ? "repeat" : "group";
    String name = s.name().isEmpty() ? "section_" + (form.sections().indexOf(s) + 1) : s.name();
    Map<String, String> begin = row("begin " + kind, name);
    texts(begin, s.texts(), "title", "label");
    when(begin, s.askWhen());
    s.rows().ifPresent(r -> rows(begin, name, r));
    if (!s.texts().get("intro").isEmpty()) {
      Map<String, String> note = row("note", name + "_intro");
      texts(note, s.texts(), "intro", "label");
    }
    String block = "";
    for (Question q : s.questions()) {
      if (!q.layout().block().equals(block)) {
        if (!block.isEmpty()) row("end group", "");
        block = q.layout().block();
        if (!block.isEmpty()) block(s.block(block).orElseThrow());
      }
      question(q);
    }
    if (!block.isEmpty()) row("end group", "");
    row("end " + kind, "");
  }

  private void rows(Map<String, String> begin, String name, Section.Rows r) {
    if (r.least() > 0 && r.least() == r.most() && !r.fromLastVisit()) {
      begin.put("repeat_count", String.valueOf(r.least()));
      return;
    }
    if (r.most() == 0 && r.least() == 0 && !r.fromLastVisit()) return;
    begin.put(
        OwnColumns.PREFIX + "rows",
        new JsonObject()
            .add("least", r.least())
            .add("most", r.most())
            .add("fromLastVisit", r.fromLastVisit())
            .toString());
    tell("", name, Said.of("sheetTold.leastMostRowsLast"));
  }

  private void block(Section.Block b) {
    Map<String, String> row = row("begin group", b.name());
    texts(row, b.texts(), "title", "label");
    when(row, b.askWhen());
    if (!b.texts().get("intro").isEmpty())
      texts(row("note", b.name() + "_intro"), b.texts(), "intro", "label");
  }

  private void texts(
      Map<String, String> row, org.whinridge.core.form.Texts texts, String what, String column) {
    put(row, column, texts.get(what));
    for (String language : languages)
      put(
          row,
          column + "::" + language,
          texts.others().getOrDefault(language, Map.of()).getOrDefault(what, ""));
  }

  private static void put(Map<String, String> row, String column, String text) {
    if (!text.isEmpty()) row.put(column, text);
  }

  private void when(Map<String, String> row, String rule) {
    put(row, "relevant", expression("relevant", rule));
    if (row.get("type").startsWith("begin") && !rule.isEmpty()) OwnColumns.when(row, rule);
  }

  private String expression(String column, String rule) {
    return expression(column, rule, "");
  }

  private String expression(String column, String rule, String question) {
    if (rule.isEmpty()) return "";
    Optional<Rule> read = Rules.formula(rule, ANY, ValueType.EMPTY).rule();
    try {
      if (read.isPresent())
        return switch (column) {
          case "relevant" -> xpath.ask(read.get().tree());
          case "constraint" -> xpath.check(read.get().tree(), question);
          default -> xpath.translate(read.get().tree());
        };
      tell(column, rule, Said.of("sheetTold.ruleCantBeRead"));
    } catch (XPath.Untranslatable e) {
      tell(column, rule, e.said());
    }
    return "";
  }

  private void question(Question q) {
    String list = q.type().hasCodes() ? q.name() + "_codes" : "";
    Map<String, String> row = row(SurveyTypes.cell(q, list), q.name());
    texts(row, q.texts(), "label", "label");
    texts(row, q.texts(), "hint", "hint");
    if (q.need() == Question.Need.NEEDED) row.put("required", "yes");
    if (q.need() == Question.Need.WANTED)
      tell("required", q.name(), Said.of("sheetTold.wantedNoCounterpartKept"));
    when(row, q.logic().askWhen());
    put(row, "calculation", expression("calculation", q.logic().workOut()));
    checks(row, q);
    start(row, q);
    if (q.hand().readOnly()) row.put("read_only", "yes");
    put(row, "appearance", SurveyTypes.appearance(q));
    if (!q.layout().picture().isEmpty()) row.put("media::image", q.layout().picture());
    if (!list.isEmpty()) codes(row, q, list);
    left(q);
    row.putAll(OwnColumns.of(q, row));
  }

  /** Range, step and lengths are written into the constraint, the first firm check with them. */
  private void checks(Map<String, String> row, Question q) {
    List<String> parts = new ArrayList<>();
    q.limits().from().ifPresent(d -> parts.add(". >= " + org.whinridge.core.text.Numbers.plain(d)));
    q.limits().to().ifPresent(d -> parts.add(". <= " + org.whinridge.core.text.Numbers.plain(d)));
    if (q.type().valueType() == ValueType.TEXT && !q.type().hasCodes()) {
      if (q.limits().least() > 0) parts.add("string-length(.) >= " + q.limits().least());
      if (q.limits().most() > 0) parts.add("string-length(.) <= " + q.limits().most());
    }
    for (Check c : q.logic().checks()) {
      if (c.weight() == Check.Weight.SOFT) {
        tell("constraint", c.rule(), Said.of("sheetTold.softCheckNoCounterpart"));
        continue;
      }
      String x = expression("constraint", c.rule(), q.name());
      if (x.isEmpty()) continue;
      parts.add(x);
      if (!row.containsKey("constraint_message"))
        texts(row, said(c), "message", "constraint_message");
      else if (!c.message().isEmpty())
        tell("constraint_message", c.message(), Said.of("sheetTold.messageOwnEachCheck"));
    }
    // an “and” binds tighter than an “or”
    put(
        row,
        "constraint",
        parts.size() == 1
            ? parts.get(0)
            : String.join(
                " and ", parts.stream().map(p -> p.contains(" or ") ? "(" + p + ")" : p).toList()));
  }

  /** A message with its answers written as they are there. */
  private org.whinridge.core.form.Texts said(Check c) {
    Map<String, String> own = new LinkedHashMap<>();
    c.texts().own().forEach((what, text) -> own.put(what, answers(text)));
    Map<String, Map<String, String>> others = new LinkedHashMap<>();
    c.texts()
        .others()
        .forEach(
            (language, words) -> {
              Map<String, String> in = new LinkedHashMap<>();
              words.forEach((what, text) -> in.put(what, answers(text)));
              others.put(language, in);
            });
    return new org.whinridge.core.form.Texts(own, others);
  }

  private String answers(String text) {
    String s = text;
    for (Question q : form.questions()) s = s.replace("{" + q.name() + "}", "${" + q.name() + "}");
    return s;
  }

  private void start(Map<String, String> row, Question q) {
    for (Source s : q.prefill()) {
      if (s instanceof Source.Fixed f && !row.containsKey("default"))
        row.put(
            "default",
            f.json().replaceAll("^\"|\"$", "").replaceAll("[\\[\\]\"]", "").replace(',', ' '));
      else if (s instanceof Source.WorkedOut w && !row.containsKey("default"))
        put(row, "default", expression("default", w.formula()));
      else if (s instanceof Source.Device d
          && d.item().equals("date")
          && !row.containsKey("default")) row.put("default", "today()");
      else if (!(s instanceof Source.Asset))
        tell("default", q.name(), Said.of("sheetTold.sourceFirstValueNo"));
    }
  }

  private void codes(Map<String, String> row, Question q, String list) {
    boolean filtered = q.codes().stream().anyMatch(c -> !c.fitsWhen().isEmpty());
    if (filtered) tell("choice_filter", q.name(), Said.of("sheetTold.ruleOwnEachCode"));
    for (Code c : q.codes()) {
      if (c.retired()) {
        tell("", c.code(), Said.of("sheetTold.retiredCodeNoCounterpart"));
        continue;
      }
      Map<String, String> choice = new LinkedHashMap<>();
      choice.put("list_name", list);
      choice.put("name", c.code());
      choice.put("label", c.label());
      for (String language : languages)
        put(choice, "label::" + language, c.labels().getOrDefault(language, ""));
      if (c.alone()) choice.put(OwnColumns.PREFIX + "alone", "true");
      if (!c.fitsWhen().isEmpty())
        choice.put(OwnColumns.PREFIX + "fitsWhen", Json.value(c.fitsWhen()).toString());
      choices.add(choice);
      if (c.alone()) tell("", c.code(), Said.of("sheetTold.codeExcludesOthersNo"));
    }
  }

  private void left(Question q) {
    if (!q.writesTo().isEmpty()) tell("", q.name(), Said.of("sheetTold.fieldWritesLeftOut"));
    if (!q.limits().unit().isEmpty())
      tell("", q.name(), Said.of("sheetTold.unitNoCounterpartKept"));
    if (q.limits().decimals() >= 0)
      tell("", q.name(), Said.of("sheetTold.numberDecimalsNoCounterpart"));
    if (q.limits().step() > 0) tell("", q.name(), Said.of("sheetTold.stepBetweenNumbersNo"));
    if (q.officeOnly()) tell("", q.name(), Said.of("sheetTold.officeOnlyNoCounterpart"));
    if (q.hand().lockOnRevisit()) tell("", q.name(), Said.of("sheetTold.lockedOnRevisitNo"));
    if (q.wire().unique()) tell("", q.name(), Said.of("sheetTold.uniqueAnswersNoCounterpart"));
    boolean counted = q.type().valueType() == ValueType.LIST;
    if (counted && (q.limits().least() > 0 || q.limits().most() > 0))
      tell("", q.name(), Said.of("sheetTold.leastMostSeveralNo"));
    if (q.type() == QuestionType.LINK)
      tell("type", q.name(), Said.of("sheetTold.linkAnotherFeatureText"));
    if (q.type() == QuestionType.DURATION)
      tell("type", q.name(), Said.of("sheetTold.durationNumberMinutes"));
  }

  private void book(OutputStream out) throws IOException {
    if (survey.stream().anyMatch(r -> r.get("type").equals("select_one yes_no")))
      for (String code : List.of("yes", "no"))
        choices.add(
            new LinkedHashMap<>(
                Map.of(
                    "list_name",
                    "yes_no",
                    "name",
                    code,
                    "label",
                    code.equals("yes") ? "Yes" : "No")));
    BookOut book = new BookOut(out);
    List<String> columns = new ArrayList<>();
    for (String c : COLUMNS) {
      columns.add(c);
      if (List.of("label", "hint", "constraint_message").contains(c))
        for (String l : languages) columns.add(c + "::" + l);
    }
    book.sheet("survey", columns, survey);
    List<String> labels = new ArrayList<>(List.of("list_name", "name", "label"));
    for (String l : languages) labels.add("label::" + l);
    book.sheet("choices", labels, choices);
    Map<String, String> settings = new LinkedHashMap<>();
    texts(settings, form.texts(), "title", "form_title");
    JsonObject all = form.json();
    for (String m : List.of("lookUps", "allowed"))
      if (all.get(m) != null) settings.put(OwnColumns.PREFIX + m, all.get(m).toString());
    book.sheet("settings", List.copyOf(settings.keySet()), List.of(settings));
    book.finish();
  }
}
