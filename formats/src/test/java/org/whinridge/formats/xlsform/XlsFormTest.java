package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.formats.file.FileProblem;

/**
 * XLSForm in and out. The workbook bank-visit.xlsx was made by hand after the public convention; it
 * has each column and each type, and a few things that Whinridge has no counterpart for.
 */
class XlsFormTest {
  private static final Schema NOTHING = new Schema(GeometryKind.TABLE, List.of(), "", List.of());

  private static XlsFormReader.Read bankVisit() throws Exception {
    return XlsFormReader.read(Path.of("src/test/resources/xlsform/bank-visit.xlsx"));
  }

  private static ExecutableForm compiled(Form form) {
    var o = FormCompiler.compile(form, NOTHING);
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
  }

  @Test
  void everyColumnHasItsCounterpart() throws Exception {
    Form form = bankVisit().form();
    compiled(form);
    assertThat(form.title()).isEqualTo("Bank visit");
    assertThat(form.languages()).containsExactly("cy");
    assertThat(form.sections())
        .extracting(Section::title)
        .containsExactly("", "The bank", "Defects", "At the end");
    assertThat(form.in("cy").sections().get(1).title()).isEqualTo("Y clawdd");
    Question kind = form.question("kind").orElseThrow();
    assertThat(kind.type()).isEqualTo(QuestionType.CHOICE);
    assertThat(kind.need()).isEqualTo(Question.Need.NEEDED);
    assertThat(kind.hint()).isEqualTo("Look at the crest");
    assertThat(kind.in("cy").codes().get(1).label()).isEqualTo("Ffos");
    Question lining = form.question("lining").orElseThrow();
    assertThat(lining.logic().askWhen()).isEqualTo("kind = 'drain'");
    assertThat(lining.layout().as()).isEqualTo("list");
    assertThat(lining.codes())
        .extracting(c -> c.code() + " when " + c.fitsWhen())
        .containsExactly("brick when 'drain' = kind", "turf when 'bank' = kind");
    Question depth = form.question("depth").orElseThrow();
    assertThat(depth.logic().checks())
        .singleElement()
        .satisfies(
            c -> {
              assertThat(c.rule()).isEqualTo("kind IS NOT NULL AND depth >= 0 AND depth <= 500");
              assertThat(c.message()).isEqualTo("0 to 500 mm, please");
            });
    assertThat(depth.json().get("prefill")).hasToString("[{\"from\":\"fixed\",\"value\":100}]");
    Question pests = form.question("pests").orElseThrow();
    assertThat(pests.logic().checks().get(0).rule())
        .isEqualTo("NOT A_CONTAINS(pests, ('none')) OR count(pests) <= 1");
    assertThat(pests.json().get("prefill"))
        .hasToString("[{\"from\":\"fixed\",\"value\":[\"none\"]}]");
    assertThat(form.question("share").orElseThrow().limits().to()).hasValue(100);
    assertThat(form.question("remark").orElseThrow().logic().askWhen())
        .isEqualTo("wet OR A_CONTAINS(pests, ('mole'))");
    assertThat(form.question("remark").orElseThrow().type()).isEqualTo(QuestionType.LONG_TEXT);
    assertThat(form.question("fixed").orElseThrow().hand().readOnly()).isTrue();
    assertThat(form.question("began").orElseThrow().json().get("prefill"))
        .hasToString("[{\"from\":\"device\",\"item\":\"moment\"}]");
    assertThat(form.question("sign").orElseThrow().type()).isEqualTo(QuestionType.SIGNATURE);
    assertThat(form.question("read").orElseThrow().type()).isEqualTo(QuestionType.YES_NO);
    assertThat(form.question("steps").orElseThrow().type()).isEqualTo(QuestionType.COUNTER);
  }

  @Test
  void repeatsBecomeListsAndCalculationsFormulas() throws Exception {
    Form form = bankVisit().form();
    Section defects = form.sections().get(2);
    assertThat(defects.isList()).isTrue();
    assertThat(defects.name()).isEqualTo("defects");
    assertThat(defects.blocks())
        .singleElement()
        .satisfies(b -> assertThat(b.askWhen()).isEqualTo("grade = '5'"));
    assertThat(defects.questions())
        .extracting(q -> q.layout().block())
        .containsExactly("", "", "more");
    assertThat(form.question("seen").orElseThrow().json().get("prefill"))
        .hasToString("[{\"from\":\"worked out\",\"formula\":\"today()\"}]");
    Question total = form.question("total").orElseThrow();
    assertThat(total.type()).isEqualTo(QuestionType.DECIMAL);
    assertThat(total.logic().workOut()).isEqualTo("sum(defects.length_m)");
    Question grave = form.question("grave").orElseThrow();
    assertThat(grave.type()).isEqualTo(QuestionType.YES_NO);
    assertThat(grave.logic().workOut())
        .isEqualTo("coalesce(total > 10 AND count(defects) >= 2, FALSE)");
    assertThat(form.question("old").orElseThrow().logic().workOut())
        .isEqualTo("(depth / 100 div 1) + length(concat(remark, 'x'))");
    assertThat(form.question("tell").orElseThrow().logic().askWhen()).isEqualTo("grave");
  }

  @Test
  void whatHasNoCounterpartIsToldByRow() throws Exception {
    assertThat(bankVisit().told())
        .extracting(t -> t.sheet() + " " + t.row() + " " + t.column())
        .containsExactlyInAnyOrder(
            "survey 5 media::image",
            "survey 7 required_message",
            "survey 11 appearance",
            "survey 28 label::English (en)", // ${…} in a label
            "survey 19 name",
            "survey 31 name", // “place” means the visit's place in rules
            "survey 41 relevant",
            "survey 42 type",
            "survey 43 type",
            "survey 44 type",
            "survey 45 bind::custom",
            "survey 46 name",
            "survey 48 type",
            "choices 6 name",
            "settings 2 form_id",
            "settings 2 version");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "${a} = 'x' and not(${b} > 3) | a = 'x' AND (b IS NULL OR b <= 3)",
        "${a} != 'x' | a IS NULL OR a <> 'x'",
        "not(selected(${k}, '1')) | k IS NULL OR k <> '1'",
        "not(selected(${m}, 'x')) | m IS NULL OR NOT A_CONTAINS(m, ('x'))",
        "string-length(${a}) = 0 | a IS NULL",
        "string-length(${a}) < 4 | a IS NULL OR length(a) < 4",
        "${a} != '' and ${a} != 'x' | a <> 'x'",
        "selected(${k}, 1) | k = '1'",
        "${k} = 1 | k = '1'",
        "${k} > 1 | k IN ('2', '10')",
        "${k} != 1 | k IS NULL OR k IN ('2', '10')",
        "'5' < ${b} | 5 < b",
        "${ok} = true() | ok",
        "${a} = true() | a IS NOT NULL",
        "${b} = col | b = 3",
        "today() - ${c} | days_between(c, today())",
        "${c} + 7 < today() | add_days(c, 7) < today()",
        "${a} + 1 | here this is text, with which nothing can be reckoned",
        "join(', ', ${m}) | joined(m, ', ')",
        "${a} = ${k} | a = k OR (a IS NULL AND k IS NULL)",
        "(${b} + 1) * 2 mod 3 | (b + 1) * 2 % 3",
        "-${b} div 2 | -b / 2",
        "if(${b} > 1, 'p', \"it's\") | if(b > 1, 'p', 'it''s')",
        "${c} = '2026-05-04' | c = DATE('2026-05-04')",
        "${b} = '3' | b = 3",
        "contains(${a}, '5%') | a LIKE '%5\\%%'",
        "starts-with(${a}, 'B-') | a LIKE 'B-%'",
        "pow(${b}, 2) >= 4 | (b ^ 2) >= 4",
        "substr(${a}, 0, 2) | substr(a, 1, 2)",
        "${ok} = 'no' | NOT ok",
        "coalesce(${b}, 0) != 0 | coalesce(b, 0) IS NULL OR coalesce(b, 0) <> 0",
        "a or b | ‘a’ is not known",
        "${nobody} > 1 | there is no question ‘nobody’",
        "uuid() | the function uuid() has no counterpart for this",
        "../x = 1 | paths between groups have no counterpart",
        "${a} = 'x | a quote is never closed",
        "(${b} | a bracket is never closed",
        "${b} > | the expression ends too early",
        "((((((((((((((((((((((((((((((((((((((((((((((((((((((((((((((1)))))))))))))))))))))))))))))))))))))))))))))))))))))))))))))) | the expression is nested too deep"
      })
  void expressionsAreTranslatedOrSayWhyNot(String xpath, String expected) {
    Names names = new Names();
    Names.Known a = names.add("a", QuestionType.TEXT, "", List.of(), 1, List.of());
    names.add("b", QuestionType.DECIMAL, "", List.of(), 2, List.of());
    names.add("c", QuestionType.DATE, "", List.of(), 3, List.of());
    names.add("ok", QuestionType.YES_NO, "", List.of(), 4, List.of());
    names.add("k", QuestionType.CHOICE, "", List.of("1", "2", "10"), 5, List.of());
    names.add("m", QuestionType.CHOICES, "", List.of("x", "y"), 6, List.of());
    XPathToCql to = new XPathToCql(names, List.of(), a, "", Map.of("col", "3"));
    String got;
    try {
      boolean condition = to.type(xpath) == org.whinridge.core.value.ValueType.YES_NO;
      got = condition ? to.ask(xpath) : to.value(xpath);
    } catch (XPath.Untranslatable e) {
      got = English.of(e);
    }
    assertThat(got).isEqualTo(expected);
  }

  private static final String OWN =
      """
      {"title":"Own","in":{"cy":{"title":"Eich"}},"rules":[{"name":"deep","label":"deep","rule":"silt > 100"}],"sections":[
       {"title":"A","intro":"Look.","questions":[
        {"name":"kind","label":"Kind","in":{"cy":{"label":"Math"}},"type":"choice","need":"needed","codes":[{"code":"flap","label":"Flap"},{"code":"weir","label":"Weir","fitsWhen":"silt > 3"}]},
        {"name":"ok","label":"Works","type":"yes_no"},
        {"name":"silt","label":"Silt","type":"whole","from":0,"to":500,"askWhen":"kind IN ('flap', 'weir') AND ok","checks":[{"rule":"silt NOT BETWEEN 5 AND 9","message":"no","weight":"firm"},{"rule":"silt < 400","message":"","weight":"soft"}]},
        {"name":"many","label":"Many","type":"choices","codes":[{"code":"a","label":"A"},{"code":"b","label":"B","alone":true}]},
        {"name":"note","label":"Note","type":"long_text","askWhen":"A_CONTAINS(many, ('a', 'b')) OR deep OR NOT ok OR before.x = 'y'"},
        {"name":"half","label":"Half","type":"decimal","workOut":"if(ok, silt / 2, 0) + silt div 3"},
        {"name":"wide","label":"Wide","type":"text","askWhen":"note LIKE '%x%' AND kind IS NOT NULL","prefill":[{"from":"place","layer":"l","layerName":"L","field":"f"}]}]},
       {"name":"rows","title":"Rows","rows":{"most":3},"questions":[{"name":"m","label":"M","type":"decimal"}]},
       {"title":"C","questions":[{"name":"sum_m","label":"Sum","type":"decimal","workOut":"sum(rows.m)"}]}]}
      """;

  @Test
  void aFormOfOurOwnIsWrittenAndReadBack(@TempDir Path folder) throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(
                org.whinridge.core.layer.Field.of(
                    "x", "X", org.whinridge.core.layer.FieldType.TEXT)),
            "",
            List.of());
    ExecutableForm form = FormCompiler.compile(Form.read(OWN), schema).form().orElseThrow();
    Path file = folder.resolve("own.xlsx");
    List<Told> told;
    try (OutputStream out = Files.newOutputStream(file)) {
      told = XlsFormWriter.write(form, out);
    }
    assertThat(told)
        .extracting(t -> t.column() + ": " + t.found())
        .contains(
            "constraint: silt < 400",
            "choice_filter: kind",
            ": b",
            "relevant: A_CONTAINS(many, ('a', 'b')) OR deep OR NOT ok OR before.x = 'y'",
            "default: wide",
            ": rows");
    Form back = XlsFormReader.read(file).form();
    compiled(back);
    assertThat(back.title()).isEqualTo("Own");
    assertThat(back.question("kind").orElseThrow().in("cy").label()).isEqualTo("Math");
    assertThat(back.question("ok").orElseThrow().type()).isEqualTo(QuestionType.YES_NO);
    assertThat(back.question("silt").orElseThrow().logic().askWhen())
        .isEqualTo("kind IN ('flap', 'weir') AND ok");
    Question silt = back.question("silt").orElseThrow();
    assertThat(silt.json())
        .as("range, firm and soft checks in a column of our own")
        .isEqualTo(form.form().question("silt").orElseThrow().json());
    assertThat(back.question("half").orElseThrow().logic().workOut())
        .isEqualTo("if(ok, silt / 2, 0) + silt div 3");
    assertThat(back.json().get("rules")).isEqualTo(form.form().json().get("rules"));
    assertThat(back.question("wide").orElseThrow().logic().askWhen())
        .isEqualTo("note LIKE '%x%' AND kind IS NOT NULL");
    assertThat(back.question("sum_m").orElseThrow().logic().workOut()).isEqualTo("sum(rows.m)");
  }

  @Test
  void whatIsNoFormWorkbookIsRefusedInWords(@TempDir Path folder) throws Exception {
    Path text = Files.writeString(folder.resolve("a.xlsx"), "no workbook");
    assertThatThrownBy(() -> XlsFormReader.read(text)).isInstanceOf(FileProblem.class);
    Path file = folder.resolve("b.xlsx");
    try (OutputStream out = Files.newOutputStream(file)) {
      var book = new org.dhatim.fastexcel.Workbook(out, "t", "1.0");
      book.newWorksheet("Tabelle1").value(0, 0, "x");
      book.finish();
    }
    assertThatThrownBy(() -> XlsFormReader.read(file))
        .isInstanceOf(FileProblem.class)
        .satisfies(English.says("no sheet “survey”"));
  }

  /** Damaged bytes and cut files: a form, or a problem in words, never anything else. */
  @Test
  void damagedWorkbooksAreRefusedInWords(@TempDir Path folder) throws Exception {
    byte[] good = Files.readAllBytes(Path.of("src/test/resources/xlsform/bank-visit.xlsx"));
    java.util.Random random = new java.util.Random(2106);
    int refused = 0;
    for (int i = 0; i < 200; i++) {
      byte[] bad =
          java.util.Arrays.copyOf(good, i % 4 == 0 ? random.nextInt(good.length) : good.length);
      for (int k = 0; k < 1 + i % 7 && bad.length > 0; k++)
        bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
      Path file = Files.write(folder.resolve("bad.xlsx"), bad);
      try {
        XlsFormReader.read(file);
      } catch (FileProblem e) {
        refused++;
        assertThat(English.of(e)).as("mutation %d", i).isNotBlank();
      }
    }
    assertThat(refused).isGreaterThan(50);
  }

  @Test
  void expressionsOfAnyTextAreTranslatedOrRefused() {
    Names names = new Names();
    Names.Known a = names.add("a", QuestionType.TEXT, "", List.of(), 1, List.of());
    String[] pieces = {
      "${a}", "(", ")", "and", "or", "not(", "'x'", "3", "+", "-", "div", "=", "!=", ".", ",",
      "if(", "${", "}", "é", "\\"
    };
    java.util.Random random = new java.util.Random(7);
    for (int i = 0; i < 20_000; i++) {
      StringBuilder b = new StringBuilder();
      for (int k = random.nextInt(12); k >= 0; k--)
        b.append(pieces[random.nextInt(pieces.length)]).append(' ');
      try {
        XPathToCql to = new XPathToCql(names, List.of(), a, "", Map.of());
        assertThat(i % 2 == 0 ? to.ask(b.toString()) : to.value(b.toString())).isNotBlank();
      } catch (XPath.Untranslatable e) {
        assertThat(English.of(e)).as(b.toString()).isNotBlank();
      }
    }
  }
}
