package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.whinridge.core.value.Value;

/** Visits that came in, and features that were visited before, under a draft. */
class ReceivedVisitsTest {
  private static final String CHECKS =
      "[{\"rule\":\"silt < 400\",\"weight\":\"soft\"},{\"rule\":\"silt <> 13\",\"message\":\"never 13\"}]";

  private static FormFixture form(String checks) {
    return new FormFixture().set("silt", "checks", checks);
  }

  /** A visit as it came in, under the form without checks. */
  private static Filling came(double silt) {
    Filling f = new FormFixture().open();
    f.set("silt", Value.of(silt));
    return f;
  }

  private static DryRun run(FormFixture now) {
    return new DryRun(now.compiled(), FormFixture.start(Optional.empty()));
  }

  private static JsonArray open(Filling f) {
    return f.result().get("open").asArray();
  }

  private static VisitStart start() {
    return FormFixture.start(Optional.of(FormFixture.feature()));
  }

  @Test
  void aVisitIsHeldBackByWhatIsNew() {
    DryRun run = run(form(CHECKS));
    assertThat(run.addVisit("v1", start(), came(100).saved(), open(came(100)))).isEmpty();
    assertThat(run.addVisit("v2", start(), came(450).saved(), open(came(450)))).hasSize(1);
    assertThat(run.addVisit("v3", start(), came(13).saved(), open(came(13)))).hasSize(1);
    assertThat(run.report().passed()).isEqualTo(1);
    assertThat(run.report().failing()).extracting(f -> f.features().get(0)).contains("v2", "v3");
  }

  @Test
  void whatWasOpenWhenItCameIsPassedOver() {
    Filling f = form(CHECKS).open();
    f.set("silt", Value.of(13));
    assertThat(open(f)).isNotEmpty();
    assertThat(run(form(CHECKS)).addVisit("v", start(), f.saved(), open(f))).isEmpty();
    assertThat(run(form(CHECKS)).addVisit("v", start(), f.saved(), new JsonArray())).hasSize(1);
    assertThat(run(form(CHECKS)).addVisit("v", start(), f.saved(), new JsonArray().add("open")))
        .hasSize(1);
  }

  @Test
  void aSoftPointThatWasConfirmedHoldsNothingBack() {
    Filling f = form(CHECKS).open();
    f.set("silt", Value.of(450));
    f.points().forEach(p -> f.confirmSoft(p.key()));
    assertThat(run(form(CHECKS)).addVisit("v", start(), f.saved(), open(f))).isEmpty();
  }

  @Test
  void nothingIsLookedUpAgain() {
    Filling f = new FormFixture().open();
    FormFixture now =
        new FormFixture()
            .set(
                "beat",
                "prefill",
                "[{\"from\":\"place\",\"layer\":\"beats\",\"layerName\":\"Beats\",\"field\":\"beat\"}]")
            .set("beat", "need", "\"needed\"");
    assertThat(run(now).addVisit("v", start(), f.saved(), open(f)))
        .as("the beat, that nobody asked for then")
        .hasSize(1);
  }

  @Test
  void rulesSeeWhatTheLastVisitAnswered() {
    FormFixture worse =
        form("[{\"rule\":\"last.silt IS NULL OR silt <= last.silt\",\"message\":\"more\"}]");
    DryRun run = run(worse);
    JsonObject said = new JsonObject().add("lastDay", "2025-09-01");
    said.add("last", new JsonObject().add("silt", 80));
    VisitStart.Last last = VisitStart.Last.read(said, worse.compiled());
    assertThat(run.add(FormFixture.feature())).isEmpty();
    assertThat(run.add(FormFixture.feature(), last)).hasSize(1);
    DryRun.Comparison both = new DryRun.Comparison(run(new FormFixture()), run(worse));
    both.add(FormFixture.feature(), last, last);
    assertThat(both.difference().worse()).containsExactly("f1");
    RuleTally tally =
        RuleTally.of(worse.form(), FormFixture.SCHEMA, "silt > last.silt", f -> start())
            .orElseThrow();
    tally.add(FormFixture.feature());
    tally.add(FormFixture.feature(), VisitStart.Last.read(said, tally.form()));
    assertThat(tally.holds()).isEqualTo(1);
  }
}
