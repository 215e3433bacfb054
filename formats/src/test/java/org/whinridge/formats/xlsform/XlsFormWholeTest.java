package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Section;

/** Nested groups, shared names, rules that do not hold here, and forms of our own out and back. */
class XlsFormWholeTest extends OneFeature {
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

  /** Circles, conditions of groups, defaults: each is told by its row, and the rest compiles. */
  @Test
  void whateverDoesNotHoldIsLeftOutByItsRow() throws Exception {
    XlsFormReader.Read got =
        read(
            with(
                SURVEY,
                "type: calculate; name: c1; calculation: ${c2} + 1",
                "type: calculate; name: c2; calculation: ${c1} + 1",
                "type: begin group; name: o; label: Outer; relevant: ${k} = 'seven'",
                "type: text; name: o1; label: O1",
                "type: begin group; name: p; label: Inner; relevant: ${k} = 'eight'",
                "type: integer; name: p1; label: P1; default: concat(${a}, 'x')",
                "type: end group",
                "type: end group"),
            CHOICES,
            "form_title: T");
    compiled(got.form());
    assertThat(got.told())
        .extracting(t -> t.row() + " " + t.column())
        .contains("14 relevant", "16 relevant", "17 default")
        .containsAnyOf("12 calculation", "13 calculation");
  }

  /** A bracket inside of a text is none. */
  @Test
  void bracketsInsideOfTextsStay() throws Exception {
    CqlToXPath to = new CqlToXPath(n -> true, n -> false, n -> "yes");
    assertThat(
            to.check(
                org.whinridge.core.rules.Rules.condition(
                        "(a = '(' OR b IS NULL) AND (b = 'x' OR a IS NULL)", names())
                    .rule()
                    .orElseThrow()
                    .tree(),
                "z"))
        .isEqualTo(
            "((${a} = '' or ${a} = '(') or ${b} = '') and ((${b} = '' or ${b} = 'x') or ${a} = '')");
  }

  private static org.whinridge.core.rules.Scope names() {
    return new org.whinridge.core.rules.Scope() {
      @Override
      public java.util.Optional<Known> find(String name) {
        return java.util.Optional.of(
            new Known(name, org.whinridge.core.value.ValueType.TEXT, name, List.of()));
      }

      @Override
      public List<String> names() {
        return List.of();
      }
    };
  }
}
