package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.NamedRule;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.OnLayer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.OneFeature;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.Value;

/** For how many features a condition holds, visit by visit and as a filter of the layer. */
class RuleTallyTest {
  private static FormFixture form() {
    return new FormFixture()
        .set("width", "askWhen", "\"kind = 'weir'\"")
        .set("note", "prefill", "[{\"from\":\"asset\"},{\"from\":\"fixed\",\"value\":\"none\"}]")
        .add(
            "{\"name\":\"half\",\"label\":\"Half\",\"type\":\"decimal\",\"workOut\":\"silt / 2\"}");
  }

  private static Feature feature(Random r, int i) {
    Map<String, Value> v = new LinkedHashMap<>();
    v.put("tag", Value.text("T" + r.nextInt(40)));
    if (r.nextInt(5) > 0)
      v.put("kind", Value.text(new String[] {"flap", "weir", "Brcik"}[r.nextInt(3)]));
    if (r.nextInt(5) > 0)
      v.put("silt", r.nextInt(9) == 0 ? Value.text("deep") : Value.of(r.nextInt(500)));
    if (r.nextInt(3) > 0) v.put("width", Value.of(r.nextInt(900)));
    if (r.nextInt(3) > 0) v.put("note", Value.text("n" + r.nextInt(4)));
    return new Feature("f" + i, FormFixture.feature().geometry(), v, 1);
  }

  private static Optional<RuleTally> tally(String rule) {
    return RuleTally.of(
        form().form(), FormFixture.SCHEMA, rule, f -> FormFixture.start(Optional.empty()));
  }

  /** Where there is a filter, it finds the very features for which the visits say yes. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "silt > 100",
        "kind = 'flap' AND silt IS NULL",
        "kind IN ('weir') OR before.width < 300",
        "NOT (silt BETWEEN 100 AND 200)",
        "tag LIKE 'T1%' AND kind IS NOT NULL",
        "before.note = 'n1' OR S_INTERSECTS(place, BBOX(0, 0, 1, 1)) AND silt < 50",
        "silt > before.width"
      })
  void theFilterFindsWhatTheVisitsFind(String rule) {
    String filter = OnLayer.of(form().form(), FormFixture.SCHEMA, rule).orElseThrow();
    Rule onLayer = Rules.condition(filter, new LayerScope(FormFixture.SCHEMA)).rule().orElseThrow();
    RuleTally tally = tally(rule).orElseThrow();
    Random r = new Random(7);
    int holds = 0;
    int fails = 0;
    for (int i = 0; i < 400; i++) {
      Feature f = feature(r, i);
      VisitStart s = FormFixture.start(Optional.of(f));
      Value v = onLayer.evaluate(new OneFeature(f, FormFixture.SCHEMA, s.today(), s.startedAt()));
      boolean found = v.equals(Value.YES);
      if (v.equals(Value.NO)) fails++;
      assertThat(tally.add(f)).isEqualTo(found);
      if (found) holds++;
    }
    assertThat(tally.holds()).isEqualTo(holds);
    assertThat(tally.fails()).isEqualTo(fails);
    assertThat(tally.features()).isEqualTo(400);
    assertThat(holds).isBetween(1, 399);
  }

  /** What is asked only at times, has other sources, is worked out, or known by the visit alone. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "width > 100",
        "note = 'none'",
        "half > 10",
        "last.silt > 10",
        "fix.accuracy < 5",
        "label(kind) = 'Weir'",
        "silt >",
        "slit > 2"
      })
  void whatTheLayerDoesNotHoldHasNoFilter(String rule) {
    assertThat(OnLayer.of(form().form(), FormFixture.SCHEMA, rule)).isEmpty();
  }

  @Test
  void whatHasNoFilterIsStillTallied() {
    RuleTally t = tally("width > 100").orElseThrow();
    Map<String, Value> weir = Map.of("kind", Value.text("weir"), "width", Value.of(300));
    Map<String, Value> flap = Map.of("kind", Value.text("flap"), "width", Value.of(300));
    assertThat(t.add(new Feature("a", Optional.empty(), weir, 1))).isTrue();
    assertThat(t.add(new Feature("b", Optional.empty(), flap, 1)))
        .as("the width of a flap is not asked")
        .isFalse();
    assertThat(tally("slit > 2")).isEmpty();
    assertThat(tally("silt + 1")).isEmpty();
  }

  private static final String LONG =
      """
      {"title": "Long", "rules": [{"name": "serious", "label": "serious", "rule": "worst >= 4 AND asked_of"},
                                  {"name": "other", "label": "other", "rule": "silt > 3"}],
       "lookUps": {"here": {"layer": "beats", "layerName": "Beats"}, "unused": {"layer": "beats", "layerName": "Beats"}},
       "settings": {"caption": ["tag"]},
       "sections": [
        {"title": "A", "askWhen": "before.tag IS NOT NULL", "blocks": [{"name": "b", "title": "B", "askWhen": "silt > 50"}], "questions": [
          {"name": "tag", "label": "Tag", "type": "text", "writesTo": "tag", "prefill": [{"from": "asset"}]},
          {"name": "kind", "label": "Kind", "type": "choice", "writesTo": "kind", "prefill": [{"from": "asset"}],
           "codes": [{"code": "flap", "label": "Flap", "fitsWhen": "width > 3"}, {"code": "weir", "label": "Weir"}]},
          {"name": "silt", "label": "Silt", "type": "whole", "writesTo": "silt", "prefill": [{"from": "asset"}], "checks": [{"rule": "silt < width"}]},
          {"name": "width", "label": "Width", "type": "whole", "writesTo": "width", "block": "b", "prefill": [{"from": "asset"}]},
          {"name": "note", "label": "Note", "type": "text", "writesTo": "note", "prefill": [{"from": "asset"}]},
          {"name": "beat", "label": "Beat", "type": "text", "prefill": [{"from": "place", "lookUp": "here", "field": "beat"}]}]},
        {"name": "rows", "title": "Rows", "askWhen": "kind = 'weir'", "rows": {"fromLastVisit": true}, "questions": [
          {"name": "severity", "label": "Severity", "type": "whole"},
          {"name": "twice", "label": "Twice", "type": "whole", "workOut": "severity * 2 + silt"}]},
        {"title": "C", "questions": [
          {"name": "worst", "label": "Worst", "type": "whole", "workOut": "max(rows.twice)"},
          {"name": "asked_of", "label": "Asked", "type": "yes_no", "workOut": "kind IS NOT NULL"},
          {"name": "idle", "label": "Idle", "type": "whole", "workOut": "silt * 3", "askWhen": "other"}]}]}
      """;

  /** A part of the form gives the answers that the whole form gives, whatever is asked of it. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "silt > 100",
        "width > 200",
        "serious",
        "NOT serious",
        "worst > 10",
        "count(rows) > 0",
        "sum(rows.severity) > 3",
        "beat = 'West' AND silt > 100",
        "idle > 100 OR last.silt > 3",
        "label(kind) = 'Weir' AND before.silt > 9"
      })
  void aPartOfTheFormAnswersAsTheWholeDoes(String rule) {
    Form form = Form.read(LONG);
    List<NamedRule> rules = new ArrayList<>(form.rules());
    rules.add(new NamedRule("whole", "whole", rule));
    FormCompiler.Outcome o = FormCompiler.compile(form.withRules(rules), FormFixture.SCHEMA);
    ExecutableForm whole = o.form().orElseThrow(() -> new AssertionError(o.problems()));
    VisitStart none = FormFixture.start(Optional.empty());
    RuleTally tally = RuleTally.of(form, FormFixture.SCHEMA, rule, f -> none).orElseThrow();
    assertThat(tally.form().size()).isLessThan(whole.size());
    Random r = new Random(3);
    int holds = 0;
    for (int i = 0; i < 300; i++) {
      Feature f = feature(r, i);
      JsonObject said = new JsonObject();
      JsonArray rows = new JsonArray();
      for (int k = r.nextInt(3); k > 0; k--)
        rows.add(
            new JsonObject()
                .add("id", "r" + k)
                .add("answers", new JsonObject().add("severity", r.nextInt(5))));
      said.add("last", new JsonObject().add("silt", r.nextInt(9)).add("rows", rows));
      boolean expected =
          Filling.open(whole, none.on(f, VisitStart.Last.read(said, whole)))
              .value("whole")
              .equals(Value.YES);
      assertThat(tally.add(f, VisitStart.Last.read(said, tally.form()))).isEqualTo(expected);
      if (expected) holds++;
    }
    assertThat(holds).as(rule).isBetween(1, 299);
  }
}
