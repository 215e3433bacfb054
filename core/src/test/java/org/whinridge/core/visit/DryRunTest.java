package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.RulePlace;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** A draft over existing features; what its author is shown of a rule; what others have taken. */
class DryRunTest {
  private static Feature feature(String id, Object... pairs) {
    Map<String, Value> values = new LinkedHashMap<>();
    for (int i = 0; i < pairs.length; i += 2)
      values.put(
          (String) pairs[i],
          pairs[i + 1] instanceof Number n
              ? Value.of(n.doubleValue())
              : Value.text((String) pairs[i + 1]));
    return new Feature(id, Optional.empty(), values, 1);
  }

  private static FormFixture checked() {
    return new FormFixture()
        .set("kind", "need", "\"needed\"")
        .set("silt", "to", "500")
        .set(
            "silt",
            "checks",
            "[{\"rule\":\"silt < 400\",\"weight\":\"soft\"},{\"rule\":\"silt <> 13\",\"message\":\"never 13\"}]");
  }

  private static DryRun run(FormFixture x) {
    return new DryRun(x.compiled(), FormFixture.start(Optional.empty()));
  }

  @Test
  void eachKindOfFailureIsToldByRuleAndByFeature() {
    DryRun run = run(checked());
    assertThat(run.add(feature("a", "tag", "OS-1", "kind", "flap", "silt", 100))).isEmpty();
    assertThat(run.add(feature("b", "tag", "OS-2", "silt", 450)))
        .extracting(DryRun.Part::kind)
        .containsExactly(DryRun.Kind.MISSING, DryRun.Kind.SOFT);
    run.add(feature("c", "tag", "OS-3", "kind", "Brcik", "silt", 13));
    run.add(feature("d", "tag", "OS-4", "kind", "weir", "silt", "deep"));
    run.add(feature("e", "tag", "OS-5", "kind", "weir", "silt", 600));
    DryRun.Report r = run.report();
    assertThat(r.features()).isEqualTo(5);
    assertThat(r.passed()).isEqualTo(1);
    assertThat(r.failing())
        .extracting(
            f ->
                f.part().question()
                    + ", "
                    + f.part().part()
                    + ", "
                    + f.part().kind().id()
                    + ": "
                    + f.count()
                    + " "
                    + f.features())
        .containsExactly(
            "kind, needed, missing: 1 [b]",
            "silt, check 1, soft: 2 [b, e]",
            "kind, codes, does not fit: 1 [c]",
            "silt, check 2, firm: 1 [c]",
            "silt, type, does not fit: 1 [d]",
            "silt, limits, firm: 1 [e]");
    assertThat(English.of(r.failing().get(3).message())).isEqualTo("never 13");
  }

  /** Counts over many random features against the same rules written by hand. */
  @Test
  void countsAgreeWithTheRulesByHand() {
    Random random = new Random(12);
    DryRun run = run(checked());
    int firm = 0;
    int soft = 0;
    int over = 0;
    for (int i = 0; i < 3000; i++) {
      int silt = random.nextInt(700);
      if (silt == 13) firm++;
      if (silt >= 400) soft++;
      if (silt > 500) over++;
      run.add(feature("f" + i, "tag", "T" + i, "kind", "flap", "silt", silt));
    }
    Map<String, Integer> counts = new LinkedHashMap<>();
    for (DryRun.Failing f : run.report().failing()) counts.put(f.part().part(), f.count());
    assertThat(counts)
        .containsEntry("check 1", soft)
        .containsEntry("check 2", firm)
        .containsEntry("limits", over);
    assertThat(run.report().failing().get(0).features()).hasSize(DryRun.NAMED);
  }

  @Test
  void twoEditionsAreComparedOnTheSameFeatures() {
    FormFixture stricter = checked().set("silt", "to", "90");
    FormFixture looser = checked().set("kind", "need", "\"free\"");
    DryRun.Comparison c = new DryRun.Comparison(run(looser), run(stricter));
    c.add(feature("a", "tag", "1", "kind", "flap", "silt", 50));
    c.add(feature("b", "tag", "2", "kind", "flap", "silt", 100));
    c.add(feature("c", "tag", "3", "silt", 450));
    assertThat(c.difference())
        .isEqualTo(new DryRun.Difference(List.of(), List.of("b"), List.of("c")));
    assertThat(c.older().passed()).isEqualTo(2);
    assertThat(c.newer().passed()).isEqualTo(1);
    DryRun.Comparison back = new DryRun.Comparison(run(stricter), run(looser));
    back.add(feature("b", "tag", "2", "kind", "flap", "silt", 100));
    assertThat(back.difference().better()).containsExactly("b");
  }

  @Test
  void anAuthorSeesARuleAsTextSentenceAndParts() {
    Form form = Form.read(WalkFixture.FORM);
    assertThat(
            English.worded(
                new RulePlace(form, WalkFixture.SCHEMA, "defects")
                    .view("severity>3 and kind='bank'", ValueType.YES_NO)))
        .hasToString(
            "{\"text\":\"severity > 3 AND kind = 'bank'\",\"sentence\":\"severity is over 3 and kind is bank\",\"parts\":{\"join\":\"all\",\"parts\":[{\"left\":{\"kind\":\"name\",\"names\":[\"severity\"]},\"comparison\":\"over\",\"values\":[{\"kind\":\"value\",\"value\":3}]},{\"left\":{\"kind\":\"name\",\"names\":[\"kind\"]},\"comparison\":\"is\",\"values\":[{\"kind\":\"value\",\"value\":\"bank\"}]}]},\"operand\":null,\"json\":{\"op\":\"and\",\"args\":[{\"op\":\">\",\"args\":[{\"property\":\"severity\"},3]},{\"op\":\"=\",\"args\":[{\"property\":\"kind\"},\"bank\"]}]}}");
    assertThat(
            new RulePlace(form, WalkFixture.SCHEMA, "")
                .view("kind = bank", ValueType.YES_NO)
                .get("problems")
                .asArray()
                .get(0)
                .asObject()
                .getString("fix", ""))
        .isEqualTo("'bank'");
    assertThat(
            new RulePlace(form, WalkFixture.SCHEMA, "")
                .view("abs(sum(defects.length_m)) > 2", ValueType.YES_NO)
                .get("parts")
                .isNull())
        .isTrue();
  }

  @Test
  void valuesOfUniqueFieldsAreTakenByOthersOnly() {
    Schema schema = FormFixture.SCHEMA;
    List<Feature> pack = new ArrayList<>();
    pack.add(feature("a", "tag", "OS-1", "note", "x"));
    pack.add(feature("b", "tag", "OS-2"));
    pack.add(feature("c", "tag", "OS-2"));
    TakenValues taken = new TakenValues(schema, pack);
    assertThat(taken.by("tag", Value.text("OS-1"), "a")).as("its own").isFalse();
    assertThat(taken.by("tag", Value.text("OS-1"), "")).isTrue();
    assertThat(taken.by("tag", Value.text("OS-2"), "b")).as("c has it too").isTrue();
    assertThat(taken.by("tag", Value.text("OS-9"), "")).isFalse();
    assertThat(taken.by("note", Value.text("x"), "b")).as("not unique").isFalse();
  }
}
