package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

/** Rows of a list section: their own answers, sums over them, those that the last visit found. */
class ListSectionTest {
  private static Filling withRows(double... severities) {
    Filling f = Filling.open(WalkFixture.compiled(), WalkFixture.start());
    for (int i = 0; i < severities.length; i++) {
      assertThat(f.addRow("defects", "r" + i)).isTrue();
      f.set("severity", "r" + i, Value.of(severities[i]));
      f.set("length_m", "r" + i, Value.of(10 * (i + 1)));
    }
    return f;
  }

  @Test
  void formulasOutsideSeeAllRowsAndThoseInsideTheirOwn() {
    Filling f = withRows(2, 4);
    assertThat(f.value("worst_found")).isEqualTo(Value.of(4));
    assertThat(f.value("total")).isEqualTo(Value.of(30));
    assertThat(f.value("rows_found")).isEqualTo(Value.of(2));
    assertThat(f.value("share", "r0")).isEqualTo(Value.of(33));
    assertThat(f.value("share", "r1")).isEqualTo(Value.of(67));
    f.set("length_m", "r0", Value.of(20));
    assertThat(f.value("share", "r1")).as("a sum over all rows changed").isEqualTo(Value.of(50));
    assertThat(f.isAsked("action", "r0")).isFalse();
    assertThat(f.isAsked("action", "r1")).isTrue();
    f.set("kind", Value.text("drain"));
    assertThat(f.isAsked("action", "r1")).as("a question outside changed").isFalse();
  }

  @Test
  void aNamedRuleIsSharedAndFollowsTheRows() {
    Filling f = withRows(2);
    assertThat(f.isAsked("report")).isFalse();
    f.set("severity", "r0", Value.of(5));
    assertThat(f.isAsked("report")).isTrue();
    assertThat(WalkFixture.open(f)).contains("report needed");
    assertThat(f.removeRow("r0")).isTrue();
    assertThat(f.isAsked("report")).isFalse();
    assertThat(f.value("rows_found")).isEqualTo(Value.of(0));
  }

  @Test
  void rowsHavePointsOfTheirOwnAndAListHasItsMost() {
    Filling f = withRows(9, 3, 3);
    assertThat(WalkFixture.open(f)).contains("r0 severity firm", "total firm");
    assertThat(f.points().stream().filter(p -> p.question().equals("total")).findFirst())
        .get()
        .satisfies(
            p ->
                assertThat(English.of(p.message()))
                    .isEqualTo("60 m over {count} rows is {nothing} too long"));
    assertThat(English.of(f.view().get("points").asArray().get(0).asObject().get("label")))
        .isEqualTo("Defects, 1: Severity");
    assertThat(f.addRow("defects", "r3")).as("three at most").isFalse();
    assertThat(f.addRow("defects", "r1")).as("the id is taken").isFalse();
    assertThat(f.addRow("nothing", "x")).isFalse();
    assertThat(f.set("severity", "nowhere", Value.of(1))).isFalse();
    assertThat(f.set("severity", Value.of(1))).as("which row?").isFalse();
  }

  @Test
  void whatTheLastVisitFoundIsToBeConfirmedMendedOrGone() {
    Filling f =
        Filling.open(
            WalkFixture.compiled(),
            WalkFixture.start(
                WalkFixture.last("a", 4, 12),
                WalkFixture.last("b", 2, 3),
                WalkFixture.last("c", 5, 1)));
    assertThat(f.rows("defects")).containsExactly("a", "b", "c");
    assertThat(WalkFixture.open(f))
        .contains("a defects needed", "b defects needed", "c defects needed");
    assertThat(f.value("worst_found")).isEqualTo(Value.of(5));
    assertThat(f.markRow("c", "mended")).isTrue();
    assertThat(f.value("worst_found")).as("what is mended counts no more").isEqualTo(Value.of(4));
    assertThat(f.markRow("b", "gone")).isTrue();
    assertThat(f.markRow("a", "still there")).isTrue();
    assertThat(f.value("rows_found")).isEqualTo(Value.of(1));
    assertThat(WalkFixture.open(f)).noneMatch(p -> p.contains("defects needed"));
    assertThat(f.markRow("a", "new")).as("it was found before").isFalse();
    assertThat(f.removeRow("a")).as("only rows of this visit can be taken away").isFalse();
    assertThat(f.undo()).isTrue();
    assertThat(WalkFixture.open(f)).contains("a defects needed");
    assertThat(f.confirmSection(1)).as("the row and its two answers").isEqualTo(3);
    assertThat(f.result().get("kept").asObject().get("defects").asArray())
        .extracting(r -> r.asObject().getString("state", ""))
        .containsExactly("still there", "gone", "mended");
  }

  @Test
  void rowsGoOnWhereTheyWereLeft() {
    Filling f =
        Filling.open(WalkFixture.compiled(), WalkFixture.start(WalkFixture.last("a", 4, 12)));
    f.addRow("defects", "new1");
    f.set("severity", "new1", Value.of(3));
    f.markRow("a", "mended");
    JsonObject saved = WalkFixture.again(f.saved());
    Filling again = Filling.resume(WalkFixture.compiled(), WalkFixture.start(), saved);
    assertThat(again.saved()).isEqualTo(saved);
    assertThat(again.result()).isEqualTo(WalkFixture.again(f.result()));
    assertThat(again.rows("defects")).containsExactly("a", "new1");
    assertThat(again.value("worst_found")).isEqualTo(Value.of(3));
  }

  @Test
  void aListThatIsNotAskedAsksForNoRows() {
    Form form =
        Form.read(WalkFixture.FORM.replace("\"rows\": {\"least\": 0", "\"rows\": {\"least\": 1"));
    Filling f = Filling.open(WalkFixture.compiled(form), WalkFixture.start());
    assertThat(WalkFixture.open(f)).contains("defects needed");
    f.set("kind", Value.EMPTY);
    assertThat(WalkFixture.open(f)).doesNotContain("defects needed");
  }

  @Test
  void theSheetShowsRowsBlocksAndProgress() {
    Filling f = withRows(2, 4);
    f.set("kind", Value.text("drain"));
    JsonObject view = f.view();
    JsonObject bank = view.get("sections").asArray().get(0).asObject();
    assertThat(bank.get("blocks").asArray().get(0).asObject().getString("title", ""))
        .isEqualTo("Of a drain");
    assertThat(WalkFixture.named(bank.get("questions"), "name", "wet").getString("block", ""))
        .isEqualTo("drains");
    JsonObject defects = view.get("sections").asArray().get(1).asObject();
    assertThat(defects.get("list").asObject().getBoolean("canAdd", false)).isTrue();
    JsonObject row = WalkFixture.named(defects.get("rows"), "id", "r1");
    assertThat(WalkFixture.named(row.get("questions"), "name", "severity").get("value"))
        .hasToString("4");
    assertThat(defects.getInt("asked", 0)).isEqualTo(6);
    assertThat(defects.getInt("answered", 0)).isEqualTo(6);
    assertThat(f.view()).as("drawn again from what was kept").isEqualTo(view);
  }

  @Test
  void rulesAboutRowsAreRefusedWhereTheyMeanNothing() {
    String outside = WalkFixture.FORM.replace("max(defects.severity)", "severity");
    List<FormProblem> problems =
        FormCompiler.compile(Form.read(outside), WalkFixture.SCHEMA).problems();
    assertThat(problems)
        .singleElement()
        .satisfies(
            p -> {
              assertThat(English.of(p.message())).contains("here it is written defects.severity");
              assertThat(p.rule().orElseThrow().fix()).isEqualTo("defects.severity");
            });
    String writes =
        WalkFixture.FORM.replace(
            "\"name\": \"length_m\"", "\"name\": \"length_m\", \"writesTo\": \"worst\"");
    assertThat(FormCompiler.compile(Form.read(writes), WalkFixture.SCHEMA).problems())
        .extracting(x -> English.of(x.message()))
        .contains("a list has many rows, which one field can't hold; keep them on the visit");
    String byRow =
        WalkFixture.FORM.replace(
            "\"askWhen\": \"kind IS NOT NULL\"", "\"askWhen\": \"severity > 1\"");
    assertThat(FormCompiler.compile(Form.read(byRow), WalkFixture.SCHEMA).problems())
        .extracting(x -> English.of(x.message()))
        .contains("whether a list is asked can't depend on one of its rows");
    String circle =
        WalkFixture.FORM.replace(
            "\"type\": \"whole\", \"from\": 1",
            "\"type\": \"whole\", \"workOut\": \"worst_found\", \"from\": 1");
    assertThat(FormCompiler.compile(Form.read(circle), WalkFixture.SCHEMA).problems())
        .singleElement()
        .satisfies(
            p ->
                assertThat(English.of(p.message()))
                    .contains("worst_found, then severity, then worst_found"));
  }

  @Test
  void whoReviewsAVisitReadsItsRowsInWords() {
    Filling f = withRows(4);
    f.addRow("defects", "r9");
    Section list = Form.read(WalkFixture.FORM).list("defects").orElseThrow();
    assertThat(English.of(KeptRows.said(list, f.result().get("kept").asObject().get("defects"))))
        .containsExactly("Severity 4, Length 10.0 m, Share 100 %", "nothing answered");
    Filling again =
        Filling.open(WalkFixture.compiled(), WalkFixture.start(WalkFixture.last("a", 2, 3)));
    again.markRow("a", "gone");
    assertThat(
            English.of(KeptRows.said(list, again.result().get("kept").asObject().get("defects"))))
        .containsExactly("Severity 2, Length 3.0 m (gone)");
    assertThat(KeptRows.said(list, com.eclipsesource.json.Json.value("x"))).isEmpty();
  }

  /** What is gone asks nothing any more, and both sides know when a list is full. */
  @Test
  void goneRowsAreNotCountedAndTheMostRowsAreOneRule() {
    Filling f =
        Filling.open(
            WalkFixture.compiled(),
            WalkFixture.start(WalkFixture.last("a", 4, 12), WalkFixture.last("b", 2, 3)));
    com.eclipsesource.json.JsonObject before = f.view();
    f.markRow("a", "gone");
    com.eclipsesource.json.JsonObject after = f.view();
    assertThat(after.getInt("asked", 0)).isLessThan(before.getInt("asked", 0));
    assertThat(after.getInt("answered", 0)).isLessThan(before.getInt("answered", 0));
    assertThat(list(after).getInt("toConfirm", -1))
        .as("the state of one row, and its answers")
        .isLessThan(list(before).getInt("toConfirm", -1));
    f.confirmSection(list(after).getInt("index", -1));
    assertThat(list(f.view()).getInt("toConfirm", -1)).as("all the same").isZero();
    assertThat(new Section.Rows(0, 0, false).takesMore(999)).isTrue();
    assertThat(new Section.Rows(0, 0, false).takesMore(1000)).isFalse();
    assertThat(new Section.Rows(0, 3, false).takesMore(3)).isFalse();
  }

  private static com.eclipsesource.json.JsonObject list(com.eclipsesource.json.JsonObject view) {
    for (var s : view.get("sections").asArray())
      if (s.asObject().get("list") != null) return s.asObject();
    throw new AssertionError("no list");
  }

  /** The number of a list was taken from its first question, and this list has none. */
  @Test
  void aListWithoutQuestionsIsConfirmed() {
    Form form =
        Form.read(
            "{\"sections\":[{\"title\":\"A\",\"questions\":[{\"name\":\"q\",\"label\":\"Q\",\"type\":\"text\"}]},{\"name\":\"things\",\"title\":\"Things\",\"rows\":{\"least\":0,\"most\":9,\"fromLastVisit\":true},\"questions\":[]}]}");
    Filling f = Filling.open(WalkFixture.compiled(form), WalkFixture.start());
    assertThat(f.confirmSection(0)).isZero();
    assertThat(f.confirmSection(1)).isZero();
    assertThat(f.addRow("things", "t1")).isTrue();
    assertThat(f.confirmSection(1)).isZero();
  }
}
