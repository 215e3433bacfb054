package org.whinridge.formats.xlsform;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Said;

/** The sheet choices: code lists by their name. */
final class Choices {
  private final List<Worksheets.Line> all;
  private final Map<String, List<Worksheets.Line>> lists = new LinkedHashMap<>();
  private final Languages languages;
  private final List<Told> told;

  Choices(List<Worksheets.Line> all, Languages languages, List<Told> told) {
    this.all = all;
    this.languages = languages;
    this.told = told;
    for (Worksheets.Line l : all)
      lists.computeIfAbsent(l.get("list_name"), k -> new ArrayList<>()).add(l);
  }

  /** A row's cells, and the columns that other rows have as empty ones. */
  Map<String, String> columns(Worksheets.Line choice) {
    Map<String, String> out = new LinkedHashMap<>(choice.cells());
    for (Worksheets.Line other : all)
      for (String column : other.cells().keySet()) out.putIfAbsent(column, "");
    return out;
  }

  private void tell(String sheet, int row, String column, String found, Said message) {
    tellOnce(new Told(sheet, row, column, found, message));
  }

  private void tellOnce(Told t) {
    if (!told.contains(t)) told.add(t);
  }

  /** The codes of a question of that type; none for free answers. */
  List<String> codes(String type, QuestionType t) {
    String[] words = type.split(" ");
    if (!t.hasCodes() || words.length < 2) return List.of();
    return lists.getOrDefault(words[1], List.of()).stream().map(Choices::code).toList();
  }

  private static String code(Worksheets.Line choice) {
    return choice.get("name").isEmpty() ? choice.get("value") : choice.get("name");
  }

  /** A choice between yes and no is a yes / no question. */
  boolean isYesNo(String type) {
    String[] words = type.split(" ");
    List<Worksheets.Line> list = words.length < 2 ? null : lists.get(words[1]);
    return list != null
        && list.size() == 2
        && list.stream().map(c -> c.get("name")).toList().equals(List.of("yes", "no"));
  }

  /**
   * The code list of a question.
   *
   * @param filter the rule under which a choice is offered, by its row of the sheet choices
   */
  List<Code> of(Worksheets.Line l, Names.Known k, Function<Worksheets.Line, String> filter) {
    String type = SurveyKind.word(l);
    if (!k.type().hasCodes()) return List.of();
    String[] words = type.split(" ");
    if (words.length < 2 || !lists.containsKey(words[1])) {
      tell("survey", l.row(), "type", l.get("type"), Said.of("sheetTold.sheetChoicesNoSuch"));
      return List.of(Code.of("none", "None"));
    }
    if (type.contains("or_other"))
      tell("survey", l.row(), "type", l.get("type"), Said.of("sheetTold.otherTextOwnNo"));
    List<Code> out = new ArrayList<>();
    Set<String> seen = new LinkedHashSet<>();
    for (Worksheets.Line c : lists.get(words[1])) {
      String code = code(c);
      if (code.isEmpty() || !seen.add(code)) {
        tellOnce(new Told("choices", c.row(), "name", code, Said.of("sheetTold.codeOnceNotEmpty")));
        continue;
      }
      Texts texts = languages.texts(c.cells(), Map.of("label", "label"));
      Map<String, String> labels = new LinkedHashMap<>();
      texts.others().forEach((language, x) -> labels.put(language, x.getOrDefault("label", "")));
      String label = texts.get("label");
      out.add(
          new Code(
              code,
              label.isEmpty() ? code : label,
              false,
              OwnColumns.fitsWhen(c).orElseGet(() -> filter.apply(c)),
              OwnColumns.alone(c),
              labels,
              ""));
    }
    out.addAll(OwnColumns.retired(l));
    return out;
  }

  /** Columns of the choices sheet count in filters only; pictures and sounds of codes do not. */
  void leftOver(List<Worksheets.Line> survey) {
    String filters = String.join(" ", survey.stream().map(l -> l.get("choice_filter")).toList());
    for (Worksheets.Line c : all)
      c.cells()
          .forEach(
              (column, value) -> {
                boolean taken =
                    Set.of("list_name", "name", "value", "label")
                            .contains(XlsFormReader.base(column))
                        || OwnColumns.isOwn(column)
                        || names(filters, column);
                if (!taken)
                  tell(
                      "choices",
                      c.row(),
                      column,
                      value,
                      Said.of("sheetTold.columnCodeNoCounterpart"));
              });
  }

  private static boolean names(String filters, String column) {
    return Pattern.compile("(?<![\\w${])" + Pattern.quote(column) + "(?![\\w}])")
        .matcher(filters)
        .find();
  }
}
