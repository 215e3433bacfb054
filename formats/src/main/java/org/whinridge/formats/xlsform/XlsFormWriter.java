package org.whinridge.formats.xlsform;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.whinridge.core.form.Check;
import org.whinridge.core.form.ExecutableForm;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Code;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
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

  private void tell(String column, String found, String message) {
    told.add(new Told("survey", survey.size() + 1, column, found, message));
  }

  private boolean isRule(String name) {
    return form.rules().stream().anyMatch(r -> r.name().equals(name));
  }

  private void sections() {
    for (NamedRule r : form.rules()) {
      Map<String, String> row = row("calculate", r.name());
      row.put("calculation", expression("calculation", r.rule()));
    }
    form.lookUps().forEach((name, l) -> tell("", name, "place look-ups have no counterpart"));
    form.allowed().ifPresent(a -> tell("", a.layerName(), "an allowed area has no counterpart"));
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
    if (s.rows().filter(r -> r.most() > 0 || r.least() > 0 || r.fromLastVisit()).isPresent())
      tell("", name, "least and most rows and the last visit's rows have no counterpart");
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
  }

  private String expression(String column, String rule) {
    if (rule.isEmpty()) return "";
    Optional<Rule> read = Rules.formula(rule, ANY, ValueType.EMPTY).rule();
    try {
      if (read.isPresent())
        return column.equals("relevant") || column.equals("constraint")
            ? xpath.translateCondition(read.get().tree())
            : xpath.translate(read.get().tree());
      tell(column, rule, "this rule can't be read");
    } catch (XPath.Untranslatable e) {
      tell(column, rule, e.getMessage());
    }
    return "";
  }

  private void question(Question q) {
    String list = q.type().hasCodes() ? q.name() + "_codes" : "";
    Map<String, String> row = row(typeWord(q, list), q.name());
    texts(row, q.texts(), "label", "label");
    texts(row, q.texts(), "hint", "hint");
    if (q.need() == Question.Need.NEEDED) row.put("required", "yes");
    if (q.need() == Question.Need.WANTED)
      tell("required", q.name(), "wanted has no counterpart; it is not required");
    when(row, q.logic().askWhen());
    put(row, "calculation", expression("calculation", q.logic().workOut()));
    checks(row, q);
    start(row, q);
    if (q.hand().readOnly()) row.put("read_only", "yes");
    put(row, "appearance", appearance(q));
    if (!q.layout().picture().isEmpty()) row.put("media::image", q.layout().picture());
    if (!list.isEmpty()) codes(row, q, list);
    left(q);
  }

  private static String typeWord(Question q, String list) {
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
        return q.isWorkedOut() ? "calculate" : SurveyTypes.word(q.type());
    }
  }

  /** Range, step and lengths are written into the constraint, the first firm check with them. */
  private void checks(Map<String, String> row, Question q) {
    List<String> parts = new ArrayList<>();
    q.limits()
        .from()
        .ifPresent(d -> parts.add(". >= " + org.whinridge.core.value.Numbers.plain(d)));
    q.limits().to().ifPresent(d -> parts.add(". <= " + org.whinridge.core.value.Numbers.plain(d)));
    if (q.type().valueType() == ValueType.TEXT && !q.type().hasCodes()) {
      if (q.limits().least() > 0) parts.add("string-length(.) >= " + q.limits().least());
      if (q.limits().most() > 0) parts.add("string-length(.) <= " + q.limits().most());
    }
    for (Check c : q.logic().checks()) {
      if (c.weight() == Check.Weight.SOFT) {
        tell("constraint", c.rule(), "a soft check has no counterpart");
        continue;
      }
      String x = expression("constraint", c.rule());
      if (x.isEmpty()) continue;
      parts.add(parts.isEmpty() ? x : "(" + x + ")");
      if (!row.containsKey("constraint_message"))
        texts(row, c.texts(), "message", "constraint_message");
    }
    put(row, "constraint", String.join(" and ", parts));
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
        tell("default", q.name(), "this source of a first value has no counterpart");
    }
  }

  private static String appearance(Question q) {
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

  private void codes(Map<String, String> row, Question q, String list) {
    boolean filtered = q.codes().stream().anyMatch(c -> !c.fitsWhen().isEmpty());
    if (filtered)
      tell(
          "choice_filter",
          q.name(),
          "a rule of its own for each code has no counterpart; all are offered");
    for (Code c : q.codes()) {
      if (c.retired()) continue;
      Map<String, String> choice = new LinkedHashMap<>();
      choice.put("list_name", list);
      choice.put("name", c.code());
      choice.put("label", c.label());
      for (String language : languages)
        put(choice, "label::" + language, c.labels().getOrDefault(language, ""));
      choices.add(choice);
      if (c.alone()) tell("", c.code(), "a code that excludes the others has no counterpart");
    }
  }

  private void left(Question q) {
    if (q.limits().step() > 0) tell("", q.name(), "a step between numbers has no counterpart");
    if (q.officeOnly())
      tell("", q.name(), "office only has no counterpart; it is asked like the others");
    if (q.hand().lockOnRevisit()) tell("", q.name(), "locked on revisit has no counterpart");
    if (q.wire().unique()) tell("", q.name(), "unique answers have no counterpart");
    if (q.type() == QuestionType.LINK)
      tell("type", q.name(), "a link to another feature is a text there");
    if (q.type() == QuestionType.DURATION)
      tell("type", q.name(), "a duration is a number of minutes there");
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
    Workbook book = new Workbook(out, "Whinridge", "1.0");
    List<String> columns = new ArrayList<>();
    for (String c : COLUMNS) {
      columns.add(c);
      if (List.of("label", "hint", "constraint_message").contains(c))
        for (String l : languages) columns.add(c + "::" + l);
    }
    sheet(book, "survey", columns, survey);
    List<String> labels = new ArrayList<>(List.of("list_name", "name", "label"));
    for (String l : languages) labels.add("label::" + l);
    sheet(book, "choices", labels, choices);
    Map<String, String> settings = new LinkedHashMap<>();
    settings.put("form_title", form.title());
    sheet(book, "settings", List.of("form_title"), List.of(settings));
    book.finish();
  }

  private static void sheet(
      Workbook book, String name, List<String> columns, List<Map<String, String>> rows) {
    Worksheet sheet = book.newWorksheet(name);
    for (int c = 0; c < columns.size(); c++) {
      sheet.value(0, c, columns.get(c));
      for (int r = 0; r < rows.size(); r++) {
        String text = rows.get(r).get(columns.get(c));
        if (text != null) sheet.value(r + 1, c, text);
      }
    }
    sheet.freezePane(0, 1);
  }
}
