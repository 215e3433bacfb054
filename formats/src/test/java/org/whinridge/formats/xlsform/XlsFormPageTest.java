package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;

/**
 * The table of docs/xlsform.md, line by line and both ways, with a workbook for each, and words
 * that it does not know.
 */
class XlsFormPageTest extends OneFeature {
  private record Line(String kind, String name, String example, String becomes) {}

  private static List<Line> table() throws Exception {
    List<Line> out = new ArrayList<>();
    for (String l : Files.readAllLines(Path.of("../docs/xlsform.md"))) {
      String[] c = l.split("(?<!\\\\)\\|", -1);
      if (c.length < 6 || c[1].isBlank() || c[1].contains("---") || c[1].strip().equals("Kind"))
        continue;
      out.add(
          new Line(
              c[1].strip(),
              c[2].strip().replace("`", ""),
              c[3].strip().replaceAll("^`|`$", "").replace("\\|", "|"),
              c[4].strip()));
    }
    return out;
  }

  private static String question(String example) {
    Map<String, String> c = new LinkedHashMap<>();
    c.put("type", "text");
    c.put("name", "q");
    c.put("label", "Q");
    c.putAll(cells(example));
    StringBuilder b = new StringBuilder();
    c.forEach((k, v) -> b.append(b.length() == 0 ? "" : "; ").append(k).append(": ").append(v));
    return b.toString();
  }

  /** Printed: features of workbooks that are changed without being told. */
  @Test
  void everyLineOfTheTableIsSo() throws Exception {
    int silently = 0;
    List<String> wrong = new ArrayList<>();
    List<Line> lines = table();
    for (Line l : lines) {
      if (l.example.isEmpty()) continue;
      boolean choice = l.kind.equals("choices");
      boolean setting = l.kind.equals("settings");
      String filter = l.name.startsWith("a column") ? "; choice_filter: size > 1" : "";
      List<String> choices =
          choice ? with(CHOICES, "list_name: kk; name: 3; label: Three; " + l.example) : CHOICES;
      XlsFormReader.Read got =
          read(
              with(
                  SURVEY,
                  choice
                      ? "type: select_one kk; name: q; label: Q" + filter
                      : question(setting ? "" : l.example)),
              l.name.startsWith("a column") || choice || l.example.contains("size")
                  ? choices
                  : plain(choices),
              setting ? l.example : "form_title: T");
      int row = choice ? CHOICES.size() + 2 : setting ? 2 : SURVEY.size() + 2;
      String sheet = choice ? "choices" : setting ? "settings" : "survey";
      List<Told> told =
          got.told().stream()
              .filter(t -> t.sheet().equals(sheet) && t.row() == row && !t.column().equals("size"))
              .toList();
      boolean quiet = l.becomes.equals("taken") || l.becomes.equals("differently");
      if (quiet != told.isEmpty()) wrong.add(l + " " + told);
      if (!quiet && told.isEmpty()) silently++;
      boolean there = got.form().question("q").isPresent();
      if (there == l.becomes.equals("left"))
        wrong.add(l + " is " + (there ? "there" : "not there"));
      Form form = compiled(got.form()).form();
      if (!quiet) continue;
      Path back = folder.resolve("back.xlsx");
      try (OutputStream out = Files.newOutputStream(back)) {
        XlsFormWriter.write(compiled(form), out);
      }
      Form again = XlsFormReader.read(back).form();
      String was = String.valueOf(form.question("q").map(q -> q.json().toString()).orElse(""));
      String is = String.valueOf(again.question("q").map(q -> q.json().toString()).orElse(""));
      if (!was.equals(is)) {
        silently++;
        wrong.add(l + "\n   " + was + "\n   " + is);
      }
    }
    System.out.println("workbook features silently changed: " + silently + " of " + lines.size());
    assertThat(wrong).isEmpty();
  }

  private static List<String> plain(List<String> choices) {
    return choices.stream().map(c -> c.replaceAll("; size: \\d", "")).toList();
  }

  /** The published convention, from memory: none of its words is missing from the table. */
  @Test
  void theTableHasTheWholeConvention() throws Exception {
    List<String> names = table().stream().map(Line::name).toList();
    assertThat(names)
        .contains(
            "type",
            "name",
            "label",
            "hint",
            "guidance_hint",
            "constraint",
            "constraint_message",
            "required",
            "required_message",
            "relevant",
            "default",
            "calculation",
            "read_only",
            "appearance",
            "parameters",
            "choice_filter",
            "repeat_count",
            "trigger",
            "media::image",
            "text",
            "integer",
            "decimal",
            "range",
            "select_one",
            "select_multiple",
            "rank",
            "note",
            "geopoint",
            "geotrace",
            "geoshape",
            "date",
            "time",
            "dateTime",
            "image",
            "audio",
            "background-audio",
            "video",
            "file",
            "barcode",
            "calculate",
            "acknowledge",
            "hidden",
            "xml-external",
            "csv-external",
            "start",
            "end",
            "today",
            "deviceid",
            "phonenumber",
            "username",
            "email",
            "audit",
            "begin group",
            "begin repeat",
            "form_title",
            "form_id",
            "version",
            "instance_name",
            "public_key",
            "submission_url",
            "default_language",
            "style")
        .contains(
            "if",
            "position",
            "once",
            "selected",
            "selected-at",
            "count-selected",
            "jr:choice-name",
            "indexed-repeat",
            "count",
            "count-non-empty",
            "sum",
            "max",
            "min",
            "string-length",
            "substr",
            "substring-before",
            "substring-after",
            "translate",
            "concat",
            "join",
            "normalize-space",
            "starts-with",
            "ends-with",
            "contains",
            "regex",
            "boolean",
            "boolean-from-string",
            "not",
            "true",
            "false",
            "number",
            "int",
            "round",
            "pow",
            "log",
            "log10",
            "abs",
            "sin",
            "cos",
            "tan",
            "asin",
            "acos",
            "atan",
            "atan2",
            "sqrt",
            "exp",
            "exp10",
            "pi",
            "random",
            "randomize",
            "uuid",
            "today",
            "now",
            "date",
            "date-time",
            "format-date",
            "format-date-time",
            "decimal-date-time",
            "decimal-time",
            "area",
            "distance",
            "geofence",
            "base64-decode",
            "digest",
            "version",
            "property",
            "pulldata",
            "instance",
            "coalesce",
            "weighted-checklist",
            "checklist",
            "current",
            "last");
  }

  @Test
  void whatTheTableDoesNotKnowIsToldByItsCell() throws Exception {
    Map<String, List<String>> sheets = new LinkedHashMap<>();
    sheets.put(
        "survey",
        List.of(
            "type: text; name: a; label: A; sparkle: x",
            "type: hologram; name: b; label: B",
            "type: calculate; name: c; calculation: sparkle(1)",
            "type: begin group; name: g; label: G; sparkle: y",
            "type: text; name: e; label: E",
            "type: end group"));
    sheets.put("choices", List.of("list_name: l; name: x; label: X; sparkle: z"));
    sheets.put("settings", List.of("form_title: T; sparkle: w"));
    sheets.put("extras", List.of("a: b"));
    assertThat(XlsFormReader.read(book(sheets)).told())
        .extracting(t -> t.sheet() + " " + t.row() + " " + t.column())
        .contains(
            "survey 2 sparkle",
            "survey 3 type",
            "survey 4 calculation",
            "survey 5 sparkle",
            "choices 2 sparkle",
            "settings 2 sparkle",
            "extras 1 ");
  }
}
