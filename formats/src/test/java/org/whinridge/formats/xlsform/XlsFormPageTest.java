package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.core.form.ExecutableForm;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.FormCompiler;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;

/**
 * The table of docs/xlsform.md, line by line and both ways, with a workbook for each; and what
 * becomes of nested groups, shared names and words that the table does not know.
 */
class XlsFormPageTest {
  private record Line(String kind, String name, String example, String becomes) {}

  @TempDir Path folder;

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

  /** A workbook: sheets of rows, each row "column: value; column: value". */
  private Path book(Map<String, List<String>> sheets) throws Exception {
    Path file = folder.resolve("one.xlsx");
    try (OutputStream out = Files.newOutputStream(file)) {
      Workbook book = new Workbook(out, "t", "1.0");
      for (Map.Entry<String, List<String>> s : sheets.entrySet()) {
        Worksheet sheet = book.newWorksheet(s.getKey());
        Set<String> columns = new LinkedHashSet<>();
        for (String row : s.getValue()) columns.addAll(cells(row).keySet());
        List<String> order = new ArrayList<>(columns);
        for (int c = 0; c < order.size(); c++) {
          sheet.value(0, c, order.get(c));
          for (int r = 0; r < s.getValue().size(); r++) {
            String v = cells(s.getValue().get(r)).get(order.get(c));
            if (v != null) sheet.value(r + 1, c, v);
          }
        }
      }
      book.finish();
    }
    return file;
  }

  private static Map<String, String> cells(String row) {
    Map<String, String> out = new LinkedHashMap<>();
    for (String part : row.split("; ")) {
      int at = part.indexOf(": ");
      if (at > 0) out.put(part.substring(0, at), part.substring(at + 2));
    }
    return out;
  }

  private static final List<String> SURVEY =
      List.of(
          "type: text; name: a; label: A",
          "type: decimal; name: n; label: N",
          "type: date; name: d; label: D",
          "type: select_one kk; name: k; label: K",
          "type: select_multiple kk; name: m; label: M",
          "type: geotrace; name: g; label: G",
          "type: geoshape; name: h; label: H",
          "type: begin repeat; name: r; label: R",
          "type: decimal; name: x; label: X",
          "type: end repeat");

  private static final List<String> CHOICES =
      List.of(
          "list_name: kk; name: 1; label: One; size: 3",
          "list_name: kk; name: 2; label: Two; size: 5");

  private XlsFormReader.Read read(List<String> survey, List<String> choices, String settings)
      throws Exception {
    Map<String, List<String>> sheets = new LinkedHashMap<>();
    sheets.put("survey", survey);
    sheets.put("choices", choices);
    sheets.put("settings", List.of(settings));
    return XlsFormReader.read(book(sheets));
  }

  private static List<String> with(List<String> rows, String... more) {
    List<String> out = new ArrayList<>(rows);
    out.addAll(List.of(more));
    return out;
  }

  private static ExecutableForm compiled(Form form) {
    var o = FormCompiler.compile(form, new Schema(GeometryKind.TABLE, List.of(), "", List.of()));
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
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

  @Test
  void conditionsSurviveHoweverDeepGroupsAreNested() throws Exception {
    Form form =
        read(
                List.of(
                    "type: text; name: a; label: A",
                    "type: begin group; name: g; label: G; relevant: ${a} = '1'",
                    "type: text; name: g1; label: G1",
                    "type: begin group; name: h; label: H; relevant: ${a} = '2' or ${a} = '3'",
                    "type: begin group; name: i; label: I; relevant: ${a} = '4'",
                    "type: text; name: i1; label: I1",
                    "type: end group",
                    "type: text; name: h1; label: H1",
                    "type: end group",
                    "type: text; name: g2; label: G2",
                    "type: begin repeat; name: r; label: R; relevant: ${a} = '5'; repeat_count: 3",
                    "type: decimal; name: r1; label: R1; required: yes",
                    "type: begin repeat; name: s; label: S; relevant: ${r1} > 6",
                    "type: text; name: s1; label: S1",
                    "type: end repeat",
                    "type: text; name: r2; label: R2",
                    "type: end repeat",
                    "type: text; name: g3; label: G3",
                    "type: end group",
                    "type: text; name: z; label: Z"),
                List.of("list_name: l; name: x; label: X"),
                "form_title: T")
            .form();
    compiled(form);
    Map<String, String> when = new LinkedHashMap<>();
    for (Section s : form.sections())
      for (var q : s.questions())
        when.put(
            q.name(),
            s.askWhen()
                + (q.layout().block().isEmpty()
                    ? ""
                    : " / " + s.block(q.layout().block()).orElseThrow().askWhen()));
    assertThat(when)
        .containsEntry("a", "")
        .containsEntry("g1", "a = '1'")
        .containsEntry("i1", "a = '1' / (a = '2' OR a = '3') AND a = '4'")
        .containsEntry("h1", "a = '1' / a = '2' OR a = '3'")
        .containsEntry("g2", "a = '1'")
        .containsEntry("r1", "a = '1' AND a = '5'")
        .containsEntry("s1", "a = '1' AND a = '5' / r1 > 6")
        .containsEntry("r2", "a = '1' AND a = '5'")
        .containsEntry("g3", "a = '1'")
        .containsEntry("z", "");
    Section r = form.sections().stream().filter(Section::isList).findFirst().orElseThrow();
    assertThat(r.rows().orElseThrow()).isEqualTo(new Section.Rows(3, 3, false));
    assertThat(form.question("r1").orElseThrow().json().get("need")).hasToString("\"needed\"");
  }

  @Test
  void sharedNamesGetNamesTypesAndCodesOfTheirOwn() throws Exception {
    XlsFormReader.Read got =
        read(
            List.of(
                "type: begin group; name: g; label: G",
                "type: text; name: size; label: S",
                "type: text; name: why; label: W; relevant: ${size} = 'big'",
                "type: end group",
                "type: begin group; name: h; label: H",
                "type: select_one l; name: size; label: S",
                "type: text; name: how; label: W; relevant: ${size} = 2",
                "type: end group",
                "type: integer; name: and; label: N; constraint: . > 0"),
            List.of("list_name: l; name: 1; label: One", "list_name: l; name: 2; label: Two"),
            "form_title: T");
    Form form = got.form();
    compiled(form);
    assertThat(form.question("size").orElseThrow().json().getString("type", "")).isEqualTo("text");
    assertThat(form.question("size_2").orElseThrow().codes()).hasSize(2);
    assertThat(form.question("why").orElseThrow().logic().askWhen()).isEqualTo("size = 'big'");
    assertThat(form.question("how").orElseThrow().logic().askWhen()).isEqualTo("size_2 = '2'");
    assertThat(form.question("and_2").orElseThrow().logic().checks().get(0).rule())
        .isEqualTo("and_2 > 0");
    assertThat(got.told())
        .extracting(t -> t.row() + " " + t.column())
        .contains("7 name", "4 relevant", "8 relevant", "10 name");
  }

  /** What does not hold here after all is told by its cell, and the rest compiles. */
  @Test
  void whatIsToldAsFineCompiles() throws Exception {
    XlsFormReader.Read got =
        read(
            with(
                SURVEY,
                "type: text; name: p; label: P; constraint: regex(., '(?=.*x)y')",
                "type: calculate; name: c; calculation: today() - ${d}",
                "type: text; name: s; label: S; relevant: selected(${k}, 1)",
                "type: text; name: t; label: T; relevant: '5' < ${n}",
                "type: text; name: u; label: U; relevant: ${a} = true()",
                "type: select_one kk; name: v; label: V; choice_filter: size = ${n}",
                "type: text; name: w; label: W; relevant: ${k} = '7'"),
            CHOICES,
            "form_title: T");
    compiled(got.form());
    assertThat(got.told())
        .extracting(t -> t.row() + " " + t.column())
        .containsExactlyInAnyOrder("12 constraint", "18 relevant");
    assertThat(got.form().question("v").orElseThrow().codes().get(0).fitsWhen()).isEqualTo("3 = n");
    assertThat(got.form().question("c").orElseThrow().logic().workOut())
        .isEqualTo("days_between(d, today())");
  }

  /** A cell that was changed in the workbook counts, and that is told. */
  @Test
  void aCellThatSomebodyChangedCounts() throws Exception {
    XlsFormReader.Read got =
        read(
            List.of(
                "type: integer; name: n; label: N; constraint: . > 5; whinridge::constraint: {\"with\":\". > 3\",\"checks\":[{\"rule\":\"n > 3\"}]}; whinridge::unit: \"mm\""),
            CHOICES,
            "form_title: T");
    assertThat(got.form().question("n").orElseThrow().logic().checks().get(0).rule())
        .isEqualTo("n > 5");
    assertThat(got.form().question("n").orElseThrow().json().getString("unit", "")).isEqualTo("mm");
    assertThat(got.told()).extracting(t -> t.row() + " " + t.column()).contains("2 constraint");
  }

  /** Everything that a form can have, out and back. */
  @Test
  void whatTheConventionHasNoPlaceForComesBack() throws Exception {
    Form form =
        Form.read(
            """
            {"title":"Own","in":{"cy":{"title":"Eich"}},
             "rules":[{"name":"deep","label":"silt is deep","rule":"silt > 100"}],
             "lookUps":{"beat":{"layer":"b","layerName":"Beats"}},
             "allowed":{"layer":"b","layerName":"Beats","weight":"soft"},
             "sections":[{"title":"A","intro":"Look.","in":{"cy":{"title":"A2"}},"questions":[
              {"name":"silt","label":"Silt","type":"decimal","unit":"mm","decimals":1,"from":0,"to":500,"step":5,
               "checks":[{"rule":"silt < 400","message":"not {silt}","weight":"firm"},{"rule":"silt <> 13","message":"13?","weight":"soft"},{"rule":"silt > 1","message":"b","weight":"firm"}],
               "prefill":[{"from":"asset"},{"from":"last visit","mostDays":30},{"from":"fixed","value":7}],"refresh":"follow"},
              {"name":"many","label":"Many","type":"choices","least":1,"most":2,"codes":[{"code":"a","label":"A"},{"code":"b","label":"B","alone":true},{"code":"c","label":"C","fitsWhen":"silt > 3"},{"code":"z","label":"Z","retired":true}]},
              {"name":"wish","label":"Wish","type":"text","need":"wanted","officeOnly":true,"placeholder":"p","askWhen":"NOT deep"},
              {"name":"lock","label":"Lock","type":"duration","lockOnRevisit":true,"unique":true}]},
             {"name":"rows","title":"Rows","rows":{"least":1,"most":4,"fromLastVisit":true},"questions":[{"name":"w","label":"W","type":"decimal"}]}]}
            """);
    Path file = folder.resolve("own.xlsx");
    try (OutputStream out = Files.newOutputStream(file)) {
      XlsFormWriter.write(compiled(form), out);
    }
    Form back = XlsFormReader.read(file).form();
    for (var q : form.questions())
      assertThat(back.question(q.name()).orElseThrow().json()).isEqualTo(q.json());
    for (String m : new String[] {"title", "in", "rules", "lookUps", "allowed"})
      assertThat(back.json().get(m)).as(m).isEqualTo(form.json().get(m));
    Section rows = back.sections().stream().filter(Section::isList).findFirst().orElseThrow();
    assertThat(rows.rows()).isEqualTo(form.sections().get(1).rows());
  }
}
