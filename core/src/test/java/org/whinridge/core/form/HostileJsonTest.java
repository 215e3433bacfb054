package org.whinridge.core.form;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.VisitStart;
import org.whinridge.core.visit.WalkFixture;

/**
 * Form files and kept visits with members of the wrong kind, missing or odd: a form is refused in
 * words or compiles to problems, a visit loses what can't be read and nothing else.
 */
class HostileJsonTest {
  private static final long SEED = 31337;
  private final Random random = new Random(SEED);

  private JsonValue odd() {
    switch (random.nextInt(11)) {
      case 0:
        return Json.NULL;
      case 1:
        return Json.TRUE;
      case 2:
        return Json.value(-1);
      case 3:
        return Json.parse("1e308");
      case 4:
        return Json.value("");
      case 5:
        return Json.value("’\u0000\\'\"{}(");
      case 6:
        return new JsonArray();
      case 7:
        return new JsonArray().add(new JsonObject().add("name", 3));
      case 8:
        return new JsonObject();
      case 9:
        return Json.value("x".repeat(5000));
      default:
        return Json.value(2.5);
    }
  }

  /** The JSON with about every {@code one}th member or item replaced, doubled or left out. */
  private JsonValue spoiled(JsonValue v, int one) {
    if (random.nextInt(one) == 0) return odd();
    if (v.isObject()) {
      JsonObject o = new JsonObject();
      for (JsonObject.Member m : v.asObject())
        if (random.nextInt(one) != 0) o.add(m.getName(), spoiled(m.getValue(), one));
      return o;
    }
    if (!v.isArray()) return v;
    JsonArray a = new JsonArray();
    for (JsonValue x : v.asArray()) {
      a.add(spoiled(x, one));
      if (random.nextInt(one) == 0) a.add(x);
    }
    return a;
  }

  @Test
  void aSpoiledFormIsRefusedInWordsOrHasProblems() {
    JsonValue good = Json.parse(WalkFixture.FORM);
    int refused = 0;
    int sound = 0;
    for (int i = 0; i < 3000; i++) {
      String bad = spoiled(good, 20 + i % 200).toString();
      Form form;
      try {
        form = Form.read(bad);
      } catch (IllegalArgumentException e) {
        assertThat(e.getMessage()).as("seed %d, form %d", SEED, i).isNotBlank();
        refused++;
        continue;
      }
      FormCompiler.Outcome o = FormCompiler.compile(form, WalkFixture.SCHEMA);
      for (FormProblem p : o.problems()) assertThat(English.of(p.message())).isNotBlank();
      assertThat(o.form().isPresent()).isEqualTo(o.problems().isEmpty());
      if (o.form().isPresent()) {
        Filling f = Filling.open(o.form().get(), WalkFixture.start(WalkFixture.last("a", 4, 2)));
        f.set("kind", Value.text("drain"));
        f.addRow("defects", "x");
        assertThat(Json.parse(f.viewText()).isObject()).isTrue();
        sound++;
      }
      assertThat(Form.read(form.json().toString())).isEqualTo(form);
    }
    assertThat(refused).isGreaterThan(300);
    assertThat(sound).isGreaterThan(300);
  }

  @Test
  void aSpoiledVisitLosesWhatCanNotBeReadAndNothingElse() {
    ExecutableForm form = WalkFixture.compiled();
    Filling f = Filling.open(form, WalkFixture.start(WalkFixture.last("a", 4, 12)));
    f.set("kind", Value.text("drain"));
    f.set("lining", Value.many(List.of(Value.text("brick"))));
    f.addRow("defects", "n1");
    f.set("severity", "n1", Value.of(5));
    f.moveTo(new Coordinate(1, 1));
    JsonValue good = Json.parse(f.saved().toString());
    for (int i = 0; i < 3000; i++) {
      JsonValue bad = spoiled(good, 5 + i % 60);
      if (!bad.isObject()) continue;
      Filling again = Filling.resume(form, WalkFixture.start(), bad.asObject());
      assertThat(Json.parse(again.viewText()).isObject()).as("seed %d, visit %d", SEED, i).isTrue();
      assertThat(again.result().get("set").isObject()).isTrue();
      JsonValue answers = bad.asObject().get("answers");
      boolean whole =
          answers != null
              && answers.isObject()
              && good.asObject()
                  .get("answers")
                  .asObject()
                  .get("kind")
                  .equals(answers.asObject().get("kind"));
      if (whole) assertThat(again.value("kind")).isEqualTo(Value.text("drain"));
    }
  }

  @Test
  void aSpoiledStartIsReadAsFarAsItGoesOrRefused() {
    ExecutableForm form = WalkFixture.compiled();
    JsonValue good =
        Json.parse(
            "{\"person\":\"p\",\"device\":\"d\",\"startedAt\":\"2026-05-04T08:00:00Z\",\"offset\":60,\"edition\":1,\"position\":{\"lon\":1,\"lat\":2,\"accuracy\":3,\"satellites\":4},\"lastDay\":\"2025-01-01\",\"last\":{\"kind\":\"bank\",\"defects\":[{\"id\":\"a\",\"state\":\"new\",\"answers\":{\"severity\":2}}]}}");
    for (int i = 0; i < 2000; i++) {
      JsonValue bad = spoiled(good, 3 + i % 30);
      if (!bad.isObject()) continue;
      VisitStart s =
          VisitStart.read(bad.asObject(), Optional.empty(), Map.of(), Optional.empty(), form);
      assertThat(Json.parse(Filling.open(form, s).viewText()).isObject()).isTrue();
    }
  }
}
