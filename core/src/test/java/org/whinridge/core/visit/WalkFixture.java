package org.whinridge.core.visit;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/** A bank walk: a line with a list of defects, blocks, named rules and an office part. */
public final class WalkFixture {
  public static final Schema SCHEMA =
      new Schema(
          GeometryKind.LINE,
          List.of(
              Field.of("ref", "Ref", FieldType.TEXT),
              Field.of("kind", "Kind", FieldType.CODE)
                  .with(List.of(Code.of("bank", "Bank"), Code.of("drain", "Drain"))),
              Field.of("worst", "Worst", FieldType.WHOLE),
              Field.of("cost", "Cost centre", FieldType.TEXT).inOffice()),
          "ref",
          List.of("ref"));

  public static final String FORM =
      """
      {"title": "Bank walk",
       "in": {"cy": {"title": "Taith y clawdd"}},
       "rules": [{"name": "serious", "label": "the worst defect is serious", "rule": "worst_found >= 4"}],
       "sections": [
        {"title": "Bank", "questions": [
          {"name": "kind", "label": "Kind", "type": "choice", "writesTo": "kind",
           "in": {"cy": {"label": "Math"}},
           "codes": [{"code": "bank", "label": "Bank", "in": {"cy": "Clawdd"}}, {"code": "drain", "label": "Drain"}],
           "prefill": [{"from": "asset"}]},
          {"name": "lining", "label": "Lining", "type": "choices", "least": 1, "most": 2, "block": "drains",
           "codes": [{"code": "brick", "label": "Brick"}, {"code": "clay", "label": "Clay"},
                     {"code": "boards", "label": "Boards", "fitsWhen": "wet"},
                     {"code": "none", "label": "None", "alone": true}]},
          {"name": "wet", "label": "Wet", "type": "yes_no", "block": "drains"}],
         "blocks": [{"name": "drains", "title": "Of a drain", "intro": "Look at both sides.", "askWhen": "kind = 'drain'"}]},
        {"name": "defects", "title": "Defects", "askWhen": "kind IS NOT NULL", "rows": {"least": 0, "most": 3, "fromLastVisit": true}, "questions": [
          {"name": "severity", "label": "Severity", "type": "whole", "from": 1, "to": 5, "need": "needed"},
          {"name": "length_m", "label": "Length", "type": "decimal", "unit": "m", "decimals": 1},
          {"name": "share", "label": "Share", "type": "decimal", "decimals": 0, "unit": "%", "workOut": "100 * length_m / sum(defects.length_m)"},
          {"name": "action", "label": "Action", "type": "text", "askWhen": "severity >= 4 AND kind = 'bank'"}]},
        {"title": "Sum", "questions": [
          {"name": "worst_found", "label": "Worst", "type": "whole", "writesTo": "worst", "workOut": "max(defects.severity)"},
          {"name": "total", "label": "Total length", "type": "decimal", "unit": "m", "workOut": "sum(defects.length_m)",
           "checks": [{"rule": "total <= 50", "message": "{total} m over {count} rows is {nothing} too long"}]},
          {"name": "rows_found", "label": "Rows", "type": "whole", "workOut": "count(defects)"},
          {"name": "report", "label": "Report", "type": "long_text", "need": "needed", "askWhen": "serious"},
          {"name": "cost", "label": "Cost", "type": "text", "officeOnly": true, "writesTo": "cost", "prefill": [{"from": "asset"}]}]}]}
      """;

  private WalkFixture() {}

  public static ExecutableForm compiled(Form form) {
    var o = FormCompiler.compile(form, SCHEMA);
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
  }

  public static ExecutableForm compiled() {
    return compiled(Form.read(FORM));
  }

  static Feature bank() {
    return new Feature(
        "w1",
        Optional.empty(),
        Map.of("ref", Value.text("B-7"), "kind", Value.text("bank"), "cost", Value.text("CC-1")),
        2);
  }

  public static VisitStart start(VisitStart.LastRow... rows) {
    VisitStart s = FormFixture.start(Optional.of(bank()));
    return new VisitStart(
        s.feature(),
        new VisitStart.Last(
            Map.of(), Optional.of(LocalDate.of(2025, 9, 1)), Map.of("defects", List.of(rows))),
        s.person(),
        s.device(),
        s.startedAt(),
        s.offsetMinutes(),
        s.edition(),
        s.fix(),
        s.lookups(),
        s.system(),
        s.taken(),
        s.turn());
  }

  public static VisitStart.LastRow last(String id, double severity, double length) {
    Map<String, Value> answers = new LinkedHashMap<>();
    answers.put("severity", Value.of(severity));
    answers.put("length_m", Value.of(length));
    return new VisitStart.LastRow(id, answers);
  }

  static List<String> open(Filling f) {
    return f.points().stream()
        .map(p -> (p.row().isEmpty() ? "" : p.row() + " ") + p.question() + " " + p.kind().id())
        .toList();
  }

  static JsonObject again(JsonObject o) {
    return Json.parse(o.toString()).asObject();
  }

  static JsonObject named(JsonValue list, String member, String value) {
    for (JsonValue v : list.asArray())
      if (v.asObject().getString(member, "").equals(value)) return v.asObject();
    throw new AssertionError("no " + member + " " + value + " in " + list);
  }
}
