package org.whinridge.formats.xlsform;

import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.formats.file.FileProblem;

/**
 * Reads an XLSForm workbook as a form whose questions are kept on the visit. Groups become
 * sections, groups inside them blocks, repeats list sections ({@link Groups}). What has no
 * counterpart is told by its cell; what is not told is in the form, and compiles. docs/xlsform.md
 * has every column, type and function.
 */
public final class XlsFormReader {
  /**
   * What a workbook gave.
   *
   * @param told what has no counterpart, or one that differs, in the order of the sheets
   */
  public record Read(Form form, List<Told> told) {}

  private final Worksheets sheets;
  private final Names names = new Names();
  private final List<Told> told = new ArrayList<>();
  private final Choices choices;
  private final Map<Integer, String> listNames = new LinkedHashMap<>();
  private final Languages languages;
  private final Groups groups = new Groups(names);
  private final List<String> ambiguous = new ArrayList<>();

  private XlsFormReader(Worksheets sheets) {
    this.sheets = sheets;
    languages = new Languages(sheets);
    choices = new Choices(sheets.get("choices"), languages, told);
  }

  /**
   * Reads a workbook.
   *
   * @throws FileProblem when this is no workbook, or it has no survey
   */
  public static Read read(Path file) throws FileProblem, IOException {
    return new XlsFormReader(Worksheets.read(file)).all(file);
  }

  private Read all(Path file) throws FileProblem {
    for (String name : sheets.names())
      if (!Set.of("survey", "choices", "settings").contains(name))
        tell(name, 1, "", "", Said.of("sheetTold.onlySheetsSurveyChoices"));
    learnNames();
    for (Worksheets.Line l : sheets.get("survey")) line(l);
    if (!groups.frames().isEmpty())
      tell(
          "survey",
          0,
          "type",
          String.join(", ", groups.frames().stream().map(Groups.Frame::name).toList()),
          Said.of("sheetTold.groupNeverEnded"));
    settings();
    choices.leftOver(sheets.get("survey"));
    List<Section> sections = groups.sections();
    if (sections.stream().allMatch(s -> s.questions().isEmpty()))
      throw new FileProblem("sheetTold.surveyNoQuestionCould");
    String stem = file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
    try {
      Texts title = title(stem);
      JsonObject form = new Form(title.get("title"), sections).json();
      SurveyQuestion.others(form, title);
      OwnColumns.putBack(sheets, names, form);
      Form whole = Form.read(form.toString());
      return new Read(new Sound(names, groups, told).form(whole), List.copyOf(told));
    } catch (IllegalArgumentException e) {
      throw new FileProblem("sheetTold.surveyCantBeKept", "why", Unfit.said(e)).because(e);
    }
  }

  private Texts title(String stem) {
    Worksheets.Line l =
        sheets.get("settings").isEmpty()
            ? new Worksheets.Line(0, Map.of())
            : sheets.get("settings").get(0);
    Texts t = languages.texts(l.cells(), Map.of("form_title", "title"));
    return t.get("title").isEmpty() ? t.with("title", stem) : t;
  }

  private void tell(String sheet, int row, String column, String found, Said message) {
    told.add(new Told(sheet, row, column, found, message));
  }

  private void tell(Worksheets.Line l, String column, Said message) {
    tell("survey", l.row(), column, l.get(column), message);
  }

  private void settings() {
    for (Worksheets.Line l : sheets.get("settings"))
      l.cells()
          .forEach(
              (column, value) -> {
                boolean taken =
                    l == sheets.get("settings").get(0)
                        && (column.equals("default_language")
                            || column.equals("form_title")
                            || column.startsWith("form_title::")
                            || OwnColumns.isOwn(column));
                if (!taken)
                  tell(
                      "settings",
                      l.row(),
                      column,
                      value,
                      Said.of("sheetTold.settingNoCounterpart"));
              });
  }

  /** All names and types first, since an expression may name a question that comes later. */
  private void learnNames() {
    Deque<String> open = new ArrayDeque<>();
    Deque<Boolean> repeats = new ArrayDeque<>();
    String list = "";
    for (Worksheets.Line l : sheets.get("survey")) {
      String type = SurveyKind.word(l);
      String name = l.get("name");
      if (type.startsWith("begin ")) {
        boolean repeat = type.equals("begin repeat");
        if (repeat && !repeats.contains(true)) {
          list = names.addList(name.isEmpty() ? "rows" : name);
          listNames.put(l.row(), list);
        }
        open.addLast(l.row() + " " + name);
        repeats.addLast(repeat);
      } else if (type.startsWith("end ")) {
        if (!open.isEmpty()) {
          open.removeLast();
          repeats.removeLast();
        }
        if (!repeats.contains(true)) list = "";
      } else if (OwnColumns.isRule(l))
        names.add(name, QuestionType.YES_NO, "", List.of(), l.row(), List.copyOf(open));
      else if (SurveyKind.of(l, choices) != null)
        learn(l, type, name.isEmpty() ? "note_" + l.row() : name, list, List.copyOf(open));
    }
    calculatedTypes();
  }

  private void learn(Worksheets.Line l, String type, String name, String list, List<String> in) {
    QuestionType t = SurveyKind.of(l, choices);
    if (l.get("name").isEmpty() && t.hasAnswer()) return; // told where it is left out
    boolean again = names.find(name, in) != null;
    Names.Known k = names.add(name, t, list, choices.codes(type, t), l.row(), in);
    if (k.name().equals(name)) return;
    tell(
        l,
        "name",
        Said.of(again ? "sheetTold.nameAgain" : "sheetTold.nameChanged", "name", k.name()));
  }

  /** A calculation says nothing of its type; it follows from what its expression gives. */
  private void calculatedTypes() {
    for (int round = 0; round < 3; round++)
      for (Worksheets.Line l : sheets.get("survey")) {
        Names.Known k = names.at(l.row());
        if (!SurveyKind.word(l).equals("calculate") || k == null) continue;
        try {
          names.retype(l.row(), XPathToCql.shownAs(at(k, Map.of()).type(l.get("calculation"))));
        } catch (XPath.Untranslatable e) {
          continue; // told where the line itself is read
        }
      }
  }

  private XPathToCql at(Names.Known k, Map<String, String> columns) {
    return new XPathToCql(names, k.groups(), k, k.list(), columns);
  }

  private void line(Worksheets.Line l) {
    String type = SurveyKind.word(l);
    if (type.isEmpty()) tell(l, "", Said.of("sheetTold.rowWithoutTypeLeft"));
    else if (type.startsWith("begin ")) begin(l, type);
    else if (type.startsWith("end ")) {
      if (!groups.end(type.equals("end repeat")))
        tell(l, "type", Said.of("sheetTold.nothingToEnd", "what", type.substring(4)));
    } else if (!OwnColumns.isRule(l)) question(l, type);
  }

  private void begin(Worksheets.Line l, String type) {
    boolean repeat = type.equals("begin repeat");
    boolean inner = repeat && !listNames.containsKey(l.row());
    if (inner) tell(l, "type", Said.of("sheetTold.rowsInsideRowsHave"));
    else if (repeat && !groups.frames().isEmpty())
      tell(l, "type", Said.of("sheetTold.rowsInsideGroupSection"));
    else if (groups.frames().size() > 1) tell(l, "type", Said.of("sheetTold.groupsDeeperThanTwo"));
    if (!l.get("required").isEmpty()) tell(l, "required", Said.of("sheetTold.groupNeverNeeded"));
    Texts texts = languages.texts(l.cells(), Map.of("label", "title"));
    String when =
        OwnColumns.when(l)
            .orElseGet(() -> expression(l, "relevant", null, frameGroups(), groups.list()));
    groups.begin(
        new Groups.Frame(
            l.row(),
            repeat && !inner ? listNames.get(l.row()) : "",
            texts,
            when,
            repeat ? Optional.of(rows(l, inner)) : Optional.empty(),
            // a section without a title goes out under a name of this kind
            l.get("name").matches("section_\\d+") ? "" : l.get("name")));
    for (String column : l.cells().keySet()) {
      // a field list is a page of its own, as every section is
      boolean page = column.equals("appearance") && l.get(column).equals("field-list");
      if (!page && !GROUP.contains(base(column)) && !OwnColumns.isOwn(column))
        tell(l, column, Said.of("sheetTold.columnNoCounterpartOn"));
    }
  }

  private Section.Rows rows(Worksheets.Line l, boolean inner) {
    Optional<Section.Rows> own = OwnColumns.rows(l);
    if (own.isPresent()) return own.get();
    String count = l.get("repeat_count");
    if (!inner && count.matches("[1-9][0-9]{0,2}"))
      return new Section.Rows(Integer.parseInt(count), Integer.parseInt(count), false);
    if (!count.isEmpty()) tell(l, "repeat_count", Said.of("sheetTold.numberRowsWorkedOut"));
    return new Section.Rows(0, 0, false);
  }

  private List<String> frameGroups() {
    return groups.frames().stream().map(f -> f.key() + " " + f.name()).toList();
  }

  private String expression(
      Worksheets.Line l, String column, Names.Known self, List<String> in, String list) {
    String text = l.get(column);
    if (text.isEmpty()) return "";
    XPathToCql x = new XPathToCql(names, in, self, list, Map.of());
    shared(l, column, text, in);
    try {
      return switch (column) {
        case "relevant" -> x.ask(text);
        case "constraint" -> x.check(text);
        default -> x.value(text);
      };
    } catch (XPath.Untranslatable e) {
      tell(l, column, Said.of("sheetTold.ruleLeftOut", "why", e.said()));
      return "";
    }
  }

  /** A name that several groups use can mean one of them only. */
  private void shared(Worksheets.Line l, String column, String text, List<String> in) {
    var m = java.util.regex.Pattern.compile("\\$\\{\\s*([^}\\s]+)\\s*}").matcher(text);
    while (m.find())
      if (names.isShared(m.group(1)) && !ambiguous.contains(l.row() + column + m.group(1))) {
        ambiguous.add(l.row() + column + m.group(1));
        tell(
            l,
            column,
            Said.of(
                "sheetTold.severalGroups",
                "name",
                m.group(1),
                "row",
                names.find(m.group(1), in).row()));
      }
  }

  private void question(Worksheets.Line l, String type) {
    QuestionType t = SurveyKind.of(l, choices);
    if (t == null) {
      tell(l, "type", Said.of("sheetTold.typeQuestionNoCounterpart"));
      return;
    }
    Names.Known k = names.at(l.row());
    if (k == null) {
      tell(l, "name", Said.of("sheetTold.questionWithoutNameWas"));
      return;
    }
    SurveyQuestion q =
        new SurveyQuestion(
            l,
            k,
            type,
            languages,
            told,
            names,
            column -> expression(l, column, k, k.groups(), k.list()));
    List<Code> codes = choices.of(l, k, c -> fits(l, c, k));
    groups.add(block -> q.read(block, codes));
    leftOver(l);
  }

  /** A choice filter speaks of a choice's own columns; with their values it is a rule per code. */
  private String fits(Worksheets.Line l, Worksheets.Line choice, Names.Known k) {
    String filter = l.get("choice_filter");
    if (filter.isEmpty()) return "";
    shared(l, "choice_filter", filter, k.groups());
    try {
      return at(k, choices.columns(choice)).ask(filter);
    } catch (XPath.Untranslatable e) {
      Told t =
          new Told(
              "survey",
              l.row(),
              "choice_filter",
              filter,
              Said.of("sheetTold.allCodesOffered", "why", e.said()));
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
          "media::image");

  private static final Set<String> GROUP =
      Set.of("type", "name", "label", "relevant", "repeat_count", "required");

  /** The column without its language. */
  static String base(String column) {
    return column.contains("::") && !column.startsWith("media")
        ? column.substring(0, column.indexOf("::"))
        : column;
  }

  private void leftOver(Worksheets.Line l) {
    for (String column : l.cells().keySet())
      if (OwnColumns.isOwn(column) && !OwnColumns.isSound(l, column))
        tell(l, column, Said.of("sheetTold.cellCantBeRead"));
      else if (!READ.contains(base(column)) && !OwnColumns.isOwn(column))
        tell(l, column, Said.of("sheetTold.columnNoCounterpart"));
  }
}
