package org.whinridge.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.form.edit.FormRename;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.OpenPoint;
import org.whinridge.core.visit.VisitStart;
import org.whinridge.core.visit.WalkFixture;

/** Filled examples that are run again with another state of their form. */
class TrialTest {
  private static final Trial.Around AROUND =
      new Trial.Around(
          Map.of(), Optional.of(CoordinateSystem.utmNorth(31)), VisitStart.NOTHING_TAKEN);

  private static final JsonObject BANK =
      Json.parse(
              """
              {"type": "Feature", "id": "w1", "version": 2, "geometry": null,
               "properties": {"ref": "B-7", "kind": "bank", "cost": "CC-1"}}""")
          .asObject();

  private static final JsonObject START =
      Json.parse(
              """
              {"person": "inspector1", "startedAt": "2026-05-04T09:30:00Z", "offset": 60, "lastDay": "2025-09-01",
               "last": {"defects": [{"id": "old", "answers": {"severity": 3, "length_m": 4}},
                                    {"id": "gone", "answers": {"severity": 2, "length_m": 1}}]}}""")
          .asObject();

  private final Form form =
      edited(
          Form.read(WalkFixture.FORM),
          """
          {"op": "set", "question": "severity", "property": "checks",
           "value": [{"rule": "severity < 5", "message": "{severity} is rare", "weight": "soft"}]}""");

  private static Form edited(Form form, String edit) {
    return FormEdit.apply(form, Json.parse(edit).asObject());
  }

  private static ExecutableForm compiled(Form f) {
    return WalkFixture.compiled(f);
  }

  private static VisitStart start(ExecutableForm f) {
    return VisitStart.read(
        START, Optional.of(Feature.read(BANK, f.schema())), AROUND.lookups(), AROUND.system(), f);
  }

  /** A walk with an old defect, one that is gone and a new one; a soft point is confirmed. */
  private Filling walked() {
    ExecutableForm f = compiled(form);
    Filling walk = Filling.open(f, start(f));
    walk.confirm("kind");
    walk.markRow("old", "still there");
    walk.markRow("gone", "gone");
    walk.addRow("defects", "n1");
    walk.set("severity", "n1", Value.of(5));
    walk.set("length_m", "n1", Value.of(12));
    walk.set("report", Value.text("slip"));
    walk.set("action", "n1", Value.text("sandbags"));
    for (OpenPoint p : walk.points())
      if (p.kind() == OpenPoint.Kind.SOFT) walk.confirmSoft(p.key());
    return walk;
  }

  private Trial kept() {
    return Trial.read(Trial.kept(BANK, START, walked().saved(), compiled(form), AROUND).text());
  }

  private static List<String> other(Trial t, Form f) {
    return t.differences(compiled(f), AROUND).stream()
        .map(
            d ->
                d.question()
                    + (d.row().isEmpty() ? "" : "/" + d.row())
                    + " "
                    + d.what().id()
                    + ": "
                    + English.of(d.said()))
        .toList();
  }

  @Test
  void whatAPersonDidIsDoneAgain() {
    Filling walk = walked();
    walk.moveTo(new Coordinate(3.2, 52.1));
    ExecutableForm f = compiled(form);
    Filling again = Filling.again(f, start(f), walk.saved());
    assertThat(again.saved()).isEqualTo(walk.saved());
    assertThat(again.result()).isEqualTo(walk.result());
    assertThat(walk.isComplete()).isTrue();
    assertThat(walk.value("total")).isEqualTo(Value.of(16));
  }

  @Test
  void aTrialIsAsExpectedAsLongAsNothingChanges() {
    assertThat(kept().expected().holding()).isZero();
    assertThat(other(kept(), form)).isEmpty();
    assertThat(Trial.read(kept().text())).isEqualTo(kept());
  }

  @Test
  void eachKindOfDifferenceIsToldWhereItIs() {
    Trial t = kept();
    assertThat(
            other(
                t,
                edited(
                    form,
                    """
                    {"op": "set", "question": "report", "property": "askWhen", "value": "total > 100"}""")))
        .containsExactly("report not asked: is not asked any more");
    assertThat(
            other(
                t,
                edited(
                    form,
                    """
                    {"op": "set", "question": "total", "property": "workOut", "value": "sum(defects.length_m) * 4"}""")))
        .containsExactly(
            "total value: 64 m instead of 16 m",
            "total opens: is open now: 64 m over {count} rows is {nothing} too long");
    assertThat(
            other(
                t,
                edited(
                    form,
                    """
                    {"op": "set", "question": "severity", "property": "to", "value": 4}""")))
        .containsExactly("severity/n1 opens: is open now: from 1 to 4");
    assertThat(other(t, edited(form, "{\"op\": \"remove\", \"question\": \"report\"}")))
        .containsExactly("report gone: is not on the sheet any more");
    assertThat(
            other(
                t,
                edited(
                    form,
                    """
                    {"op": "set", "question": "lining", "property": "least", "value": 0}""")))
        .isEmpty();
  }

  @Test
  void aNewQuestionIsToldOnlyWhenItHoldsTheVisitBack() {
    String add =
        "{\"op\": \"add\", \"section\": 0, \"question\": {\"name\": \"weather\", \"label\": \"Weather\", \"type\": \"text\"%s}}";
    assertThat(other(kept(), edited(form, add.formatted("")))).isEmpty();
    assertThat(other(kept(), edited(form, add.formatted(", \"need\": \"needed\""))))
        .containsExactly("weather opens: is open now: needs an answer");
  }

  @Test
  void whatIsOpenMayBeExpected() {
    Form strict =
        edited(
            form,
            """
            {"op": "set", "question": "total", "property": "checks", "value": [{"rule": "total < 10", "message": "too long"}]}""");
    Trial t = kept().expectingNow(compiled(strict), AROUND);
    assertThat(t.expected().holding()).isEqualTo(1);
    assertThat(other(t, strict)).isEmpty();
    assertThat(other(t, form)).containsExactly("total closes: is not open any more: too long");
    assertThat(
            other(
                t,
                edited(
                    strict,
                    """
                    {"op": "set", "question": "total", "property": "checks", "value": [{"rule": "total < 10", "message": "much too long"}]}""")))
        .containsExactly("total says: says “much too long” instead of “too long”");
  }

  @Test
  void aTrialFollowsNames() {
    Form now = form;
    Trial t = kept();
    for (String[] n :
        new String[][] {{"severity", "grade"}, {"defects", "faults"}, {"report", "told"}}) {
      Form next = FormRename.rename(now, n[0], n[1]);
      assertThat(other(t, next)).as(n[1]).isNotEmpty();
      assertThat(FormRename.between(now, next)).isEqualTo(Map.of(n[0], n[1]));
      assertThat(FormRename.between(next, now)).isEqualTo(Map.of(n[1], n[0]));
      t = t.renamed(FormRename.between(now, next));
      now = next;
      assertThat(other(t, now)).as(n[1]).isEmpty();
    }
  }

  @Test
  void whatIsNotTheSameQuestionHasNoNewName() {
    Form other =
        edited(
            form,
            """
            {"op": "set", "question": "report", "property": "label", "value": "Something else"}""");
    assertThat(FormRename.between(form, other)).isEmpty();
    Form replaced =
        FormRename.rename(
            edited(
                form,
                """
                {"op": "set", "question": "report", "property": "label", "value": "Something else"}"""),
            "report",
            "else");
    assertThat(FormRename.between(form, replaced)).isEmpty();
    assertThat(
            FormRename.between(
                form, edited(form, "{\"op\": \"remove\", \"question\": \"report\"}")))
        .isEmpty();
  }

  @Test
  void aTrialOutlivesAListThatIsNotThereAnyMore() {
    Form without =
        edited(form, "{\"op\": \"section.remove\", \"section\": 1, \"withQuestions\": true}");
    Form mended =
        edited(
            edited(
                edited(without, "{\"op\": \"remove\", \"question\": \"worst_found\"}"),
                "{\"op\": \"remove\", \"question\": \"total\"}"),
            "{\"op\": \"remove\", \"question\": \"rows_found\"}");
    mended = edited(mended, "{\"op\": \"rule.remove\", \"name\": \"serious\"}");
    mended =
        edited(
            mended,
            """
            {"op": "set", "question": "report", "property": "askWhen", "value": ""}""");
    assertThat(other(kept(), mended))
        .contains(
            "severity/n1 gone: is not on the sheet any more",
            "length_m/old gone: is not on the sheet any more");
  }
}
