package org.whinridge.formats.xlsform;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Code;
import org.whinridge.formats.FileProblem;

/**
 * Reads an XLSForm workbook as a form whose questions are kept on the visit. Groups become
 * sections, groups inside them blocks, repeats list sections.
 */
public final class XlsFormReader {
  /**
   * What a workbook gave.
   *
   * @param told what has no counterpart, or one that differs, in the order of the sheets
   */
  public record Read(Form form, List<Told> told) {}

  /** A section while its rows are read. */
  private static final class Open {
    final String name;
    final Texts texts;
    final boolean startsPage;
    final String askWhen;
    final Optional<Section.Rows> rows;
    final List<Section.Block> blocks = new ArrayList<>();
    final List<Question> questions = new ArrayList<>();

    Open(
        String name, Texts texts, boolean startsPage, String askWhen, Optional<Section.Rows> rows) {
      this.name = name;
      this.texts = texts;
      this.startsPage = startsPage;
      this.askWhen = askWhen;
      this.rows = rows;
    }

    Section section() {
      return new Section(name, texts, startsPage, askWhen, rows, blocks, questions);
    }
  }

  private final Sheets sheets;
  private final Names names = new Names();
  private final List<Told> told = new ArrayList<>();
  private final Map<String, List<Sheets.Line>> choices = new LinkedHashMap<>();
  private final Map<Integer, String> rowNames = new LinkedHashMap<>();
  private final Languages languages;
  private final List<Section> sections = new ArrayList<>();
  private final Deque<String> open = new ArrayDeque<>();
  private Open section;
  private String block = "";

  private XlsFormReader(Sheets sheets) {
    this.sheets = sheets;
    languages = new Languages(sheets);
    for (Sheets.Line l : sheets.get("choices"))
      choices.computeIfAbsent(l.get("list_name"), k -> new ArrayList<>()).add(l);
  }

  /**
   * Reads a workbook.
   *
   * @throws FileProblem when this is no workbook, or it has no survey
   */
  public static Read read(Path file) throws FileProblem, IOException {
    return new XlsFormReader(Sheets.read(file)).all(file);
  }

  private Read all(Path file) throws FileProblem {
    for (String name : sheets.names())
      if (!Set.of("survey", "choices", "settings").contains(name))
        tell(name, 1, "", "", "only the sheets survey, choices and settings are read");
    learnNames();
    for (Sheets.Line l : sheets.get("survey")) line(l);
    if (!open.isEmpty())
      tell("survey", 0, "type", String.join(", ", open), "this group or repeat is never ended");
    close();
    settings();
    sections.removeIf(s -> s.questions().isEmpty() && !s.isList());
    if (sections.stream().allMatch(s -> s.questions().isEmpty()))
      throw new FileProblem("The survey has no question that could be brought in.");
    String stem = file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
    String title = setting("form_title");
    try {
      Form form = new Form(title.isEmpty() ? stem : title, sections);
      return new Read(Form.read(form.json().toString()), List.copyOf(told));
    } catch (IllegalArgumentException e) {
      throw new FileProblem("The survey can't be kept as a form: " + e.getMessage() + ".", e);
    }
  }

  private void tell(String sheet, int row, String column, String found, String message) {
    told.add(new Told(sheet, row, column, found, message));
  }

  private void tell(Sheets.Line l, String column, String message) {
    tell("survey", l.row(), column, l.get(column), message);
  }

  private String setting(String name) {
    return sheets.get("settings").isEmpty() ? "" : sheets.get("settings").get(0).get(name);
  }

  private void settings() {
    if (sheets.get("settings").isEmpty()) return;
    Sheets.Line l = sheets.get("settings").get(0);
    l.cells()
        .forEach(
            (column, value) -> {
              if (!Set.of("form_title", "default_language").contains(column))
                tell("settings", l.row(), column, value, "this setting has no counterpart");
            });
  }

  /** All names and types first, since an expression may name a question that comes later. */
  private void learnNames() {
    String list = "";
    int depth = 0;
    for (Sheets.Line l : sheets.get("survey")) {
      String type = type(l);
      String name = l.get("name");
      if (type.equals("begin repeat") && list.isEmpty()) {
        list = names.addList(name.isEmpty() ? "rows" : name);
        depth = 0;
      } else if (type.equals("begin repeat") && !list.isEmpty()) depth++;
      else if (type.equals("end repeat") && depth-- == 0) list = "";
      else if (!type.startsWith("begin") && !type.startsWith("end ") && !name.isEmpty()) {
        QuestionType t = questionType(l, type);
        if (t != null) {
          String now = names.add(name, t, list);
          rowNames.put(l.row(), now);
          if (!now.equals(name))
            tell(
                l,
                "name",
                "a name has letters, digits and underscores and is there once; it is now " + now);
        }
      }
    }
    calculatedTypes();
  }

  /** A calculation says nothing of its type; it follows from what its expression gives. */
  private void calculatedTypes() {
    for (int round = 0; round < 3; round++)
      for (Sheets.Line l : sheets.get("survey")) {
        if (!type(l).equals("calculate") || names.find(l.get("name")) == null) continue;
        try {
          names.retype(
              l.get("name"),
              XPathToCql.shownAs(
                  new XPathToCql(names, l.get("name"), "", Map.of()).type(l.get("calculation"))));
        } catch (XPath.Untranslatable e) {
          continue; // told where the line itself is read
        }
      }
  }

  private static String type(Sheets.Line l) {
    String t = l.get("type").strip().replaceAll("\\s+", " ");
    String lower = t.toLowerCase(Locale.ROOT).replace("begin_", "begin ").replace("end_", "end ");
    return lower.startsWith("select") || lower.startsWith("rank") ? t : lower;
  }

  private QuestionType questionType(Sheets.Line l, String type) {
    String first = type.split(" ")[0].toLowerCase(Locale.ROOT);
    String looks = l.get("appearance").toLowerCase(Locale.ROOT);
    if (first.equals("select_one") || first.equals("select1"))
      return isYesNo(type)
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

  /** A choice between yes and no is a yes / no question. */
  private boolean isYesNo(String type) {
    String[] words = type.split(" ");
    List<Sheets.Line> list = words.length < 2 ? null : choices.get(words[1]);
    return list != null
        && list.size() == 2
        && list.stream().map(c -> c.get("name")).toList().equals(List.of("yes", "no"));
  }

  private void line(Sheets.Line l) {
    String type = type(l);
    if (type.isEmpty()) {
      tell(l, "", "a row without a type is left out");
      return;
    }
    if (type.startsWith("begin ")) begin(l, type);
    else if (type.startsWith("end ")) end(l, type);
    else question(l, type);
  }

  private void begin(Sheets.Line l, String type) {
    boolean repeat = type.equals("begin repeat");
    open.push(type.substring(6));
    boolean inRepeat = open.stream().skip(1).anyMatch("repeat"::equals);
    if (repeat && inRepeat) {
      tell(l, "type", "rows inside of rows have no counterpart; its questions join the outer rows");
      return;
    }
    if (!l.get("repeat_count").isEmpty())
      tell(
          l,
          "repeat_count",
          "a fixed number of rows has no counterpart; rows are added as they are found");
    Texts texts = languages.texts(l.cells(), Map.of("label", "title"));
    if (open.size() > 1 && !repeat && section != null) {
      if (open.size() > 2)
        tell(l, "type", "groups deeper than two have no counterpart; it is a block of its section");
      block = names.addList(l.get("name").isEmpty() ? "block" : l.get("name"));
      section.blocks.add(
          new Section.Block(block, texts, when(l, section.rows.isPresent() ? section.name : "")));
      return;
    }
    if (repeat && open.size() > 1)
      tell(l, "type", "rows inside a group are a section of their own");
    close();
    String name = repeat ? names.list(l.get("name").isEmpty() ? "rows" : l.get("name")) : "";
    section =
        new Open(
            name,
            texts.get("title").isEmpty() ? texts.with("title", l.get("name")) : texts,
            true,
            when(l, ""),
            repeat ? Optional.of(new Section.Rows(0, 0, false)) : Optional.empty());
  }

  private void end(Sheets.Line l, String type) {
    if (open.isEmpty() || !open.peek().equals(type.substring(4))) {
      tell(l, "type", "there is no " + type.substring(4) + " to end here");
      return;
    }
    open.pop();
    boolean nested = type.equals("end repeat") && open.contains("repeat");
    if (!block.isEmpty() && type.equals("end group")) block = "";
    else if (!nested) close();
  }

  private void close() {
    if (section != null) sections.add(section.section());
    section = null;
    block = "";
  }

  private String when(Sheets.Line l, String list) {
    return expression(l, "relevant", "", list);
  }

  private String expression(Sheets.Line l, String column, String self, String list) {
    String text = l.get(column);
    if (text.isEmpty()) return "";
    try {
      return new XPathToCql(names, self, list, Map.of()).translate(text);
    } catch (XPath.Untranslatable e) {
      tell(l, column, e.getMessage() + "; this rule was left out");
      return "";
    }
  }

  private void question(Sheets.Line l, String type) {
    QuestionType t = questionType(l, type);
    if (t == null) {
      tell(l, "type", "this type of question has no counterpart; the row was left out");
      return;
    }
    if (l.get("name").isEmpty() && t.hasAnswer()) {
      tell(l, "name", "a question without a name was left out");
      return;
    }
    if (section == null)
      section = new Open("", Texts.of("title", ""), sections.isEmpty(), "", Optional.empty());
    String old = l.get("name");
    if (old.isEmpty()) { // a note may have no name
      old = "note_" + l.row();
      rowNames.put(l.row(), names.add(old, t, section.rows.isPresent() ? section.name : ""));
    }
    Names.Known first = names.find(old);
    Names.Known known = new Names.Known(rowNames.get(l.row()), first.type(), first.list());
    String list = known.list();
    SurveyQuestion q =
        new SurveyQuestion(
            l,
            old,
            known,
            type,
            languages,
            told,
            (column, self) -> expression(l, column, self, list));
    section.questions.add(q.read(block, codes(l, type, known)));
    leftOver(l);
  }

  private List<Code> codes(Sheets.Line l, String type, Names.Known known) {
    if (!known.type().hasCodes()) return List.of();
    String[] words = type.split(" ");
    if (words.length < 2 || !choices.containsKey(words[1])) {
      tell(l, "type", "the sheet choices has no such list");
      return List.of(Code.of("none", "None"));
    }
    if (type.contains("or_other"))
      tell(l, "type", "“other” with a text of its own has no counterpart; add a question for it");
    List<Code> out = new ArrayList<>();
    Set<String> seen = new LinkedHashSet<>();
    for (Sheets.Line c : choices.get(words[1])) {
      String code = c.get("name").isEmpty() ? c.get("value") : c.get("name");
      if (code.isEmpty() || !seen.add(code)) {
        tell(
            "choices",
            c.row(),
            "name",
            code,
            "a code is there once and not empty; the row was left out");
        continue;
      }
      Texts texts = languages.texts(c.cells(), Map.of("label", "label"));
      Map<String, String> labels = new LinkedHashMap<>();
      texts.others().forEach((language, x) -> labels.put(language, x.getOrDefault("label", "")));
      if (!c.get("media::image").isEmpty())
        tell(
            "choices",
            c.row(),
            "media::image",
            c.get("media::image"),
            "pictures of codes have no counterpart");
      String label = texts.get("label");
      out.add(
          new Code(code, label.isEmpty() ? code : label, false, fits(l, c, known), false, labels));
    }
    return out;
  }

  /** A choice filter speaks of a choice's own columns; with their values it is a rule per code. */
  private String fits(Sheets.Line l, Sheets.Line choice, Names.Known known) {
    String filter = l.get("choice_filter");
    if (filter.isEmpty()) return "";
    Map<String, String> columns = new LinkedHashMap<>(choice.cells());
    try {
      return new XPathToCql(names, l.get("name"), known.list(), columns).translate(filter);
    } catch (XPath.Untranslatable e) {
      Told t =
          new Told(
              "survey",
              l.row(),
              "choice_filter",
              filter,
              e.getMessage() + "; all codes are offered");
      if (!told.contains(t)) told.add(t);
      return "";
    }
  }

  private static final Set<String> READ =
      Set.of(
          "type",
          "name",
          "label",
          "hint",
          "required",
          "required_message",
          "default",
          "constraint",
          "constraint_message",
          "relevant",
          "calculation",
          "appearance",
          "read_only",
          "choice_filter",
          "parameters",
          "media::image",
          "repeat_count");

  private void leftOver(Sheets.Line l) {
    for (String column : l.cells().keySet()) {
      String base =
          column.contains("::") && !column.startsWith("media")
              ? column.substring(0, column.indexOf("::"))
              : column;
      if (!READ.contains(base)) tell(l, column, "this column has no counterpart");
    }
  }
}
