package org.whinridge.engine;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormPart;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;
import org.whinridge.core.visit.DryRun;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.OpenPoint;
import org.whinridge.core.visit.VisitStart;

/** The golden vectors of forms: what compiles, what a filling gives, what a dry run tells. */
final class GoldenForms {
  private GoldenForms() {}

  /** {form, schema} to problems and notes, one after another. */
  static String form(JsonObject o) {
    FormCompiler.Outcome c = compile(o);
    StringBuilder b = new StringBuilder();
    for (FormProblem p : c.problems()) add(b, "problem ", p);
    for (FormProblem p : c.notes()) add(b, "note ", p);
    return b.length() == 0 ? "sound" : b.toString();
  }

  private static void add(StringBuilder b, String kind, FormProblem p) {
    b.append(b.length() == 0 ? "" : " | ")
        .append(kind)
        .append(p.question())
        .append(", ")
        .append(p.part().said())
        .append(": ")
        .append(p.message());
  }

  private static FormCompiler.Outcome compile(JsonObject o) {
    try {
      return FormCompiler.compile(
          Form.read(o.get("form").toString()), Schema.read(o.get("schema").asObject()));
    } catch (IllegalArgumentException e) {
      return new FormCompiler.Outcome(
          Optional.empty(),
          List.of(
              FormProblem.of("", FormPart.Kind.FORM, FormProblem.Reason.NOT_A_FORM, Unfit.said(e))),
          List.of());
    }
  }

  static List<Feature> features(JsonObject layer) {
    Schema schema = Schema.read(layer.get("schema").asObject());
    List<Feature> out = new ArrayList<>();
    for (JsonValue v : layer.get("features").asArray()) out.add(Feature.read(v.asObject(), schema));
    return out;
  }

  static PlaceIndex index(JsonObject layer) {
    return new PlaceIndex(Schema.read(layer.get("schema").asObject()), features(layer));
  }

  /** The same of a part of a layer, [west, south, east, north]; the whole when it is null. */
  static PlaceIndex index(JsonObject layer, JsonValue complete) {
    return complete == null
        ? index(layer)
        : new PlaceIndex(
            Schema.read(layer.get("schema").asObject()),
            features(layer),
            FieldEngine.box(complete.toString()));
  }

  /**
   * {form, schema, feature?, layers?, start, do: […]} to answers, rows, open points and what is
   * written.
   */
  static String fill(JsonObject o) {
    FormCompiler.Outcome compiled = compile(o);
    if (compiled.form().isEmpty()) return form(o);
    ExecutableForm form = compiled.form().get();
    Map<String, PlaceIndex> layers = new LinkedHashMap<>();
    if (o.get("layers") != null)
      for (JsonObject.Member m : o.get("layers").asObject())
        layers.put(m.getName(), index(m.getValue().asObject()));
    Filling f = Filling.open(form, start(o, form, layers));
    for (JsonValue step : o.get("do").asArray()) step(f, form, step.asArray());
    Filling again = Filling.resume(form, start(o, form, Map.of()), f.saved());
    if (!again.saved().toString().equals(f.saved().toString())) return "not the same when resumed";
    if (!again.result().get("set").equals(f.result().get("set")))
      return "another result when resumed";
    return o.get("onto") == null ? said(f, form) : again(o, f, layers);
  }

  /** What was done, done again with another form: "onto". */
  private static String again(JsonObject o, Filling f, Map<String, PlaceIndex> layers) {
    JsonObject other = new JsonObject().add("form", o.get("onto")).add("schema", o.get("schema"));
    FormCompiler.Outcome compiled = compile(other);
    if (compiled.form().isEmpty()) return form(other);
    ExecutableForm form = compiled.form().get();
    return said(Filling.again(form, start(o, form, layers), f.saved()), form);
  }

  private static VisitStart start(
      JsonObject o, ExecutableForm form, Map<String, PlaceIndex> layers) {
    Optional<Feature> feature =
        o.get("feature") == null
            ? Optional.empty()
            : Optional.of(Feature.read(o.get("feature").asObject(), form.schema()));
    return VisitStart.read(
        o.get("start").asObject(),
        feature,
        layers,
        Optional.of(CoordinateSystem.utmNorth(29)),
        form);
  }

  private static void step(Filling f, ExecutableForm form, JsonArray a) {
    String name = a.size() > 1 && a.get(1).isString() ? a.get(1).asString() : "";
    String row = a.size() > 3 ? a.get(3).asString() : "";
    switch (a.get(0).asString()) {
      case "set":
        ValueType type =
            form.form().question(name).map(q -> q.valueType(form.schema())).orElse(ValueType.TEXT);
        f.set(name, row, ValueJson.read(a.get(2), type));
        break;
      case "tap":
        f.tap(name, row, a.get(2).asString());
        break;
      case "confirm":
        f.confirm(name);
        break;
      case "soft":
        f.points().stream()
            .filter(p -> p.question().equals(name))
            .findFirst()
            .ifPresent(p -> f.confirmSoft(p.key()));
        break;
      case "section":
        f.confirmSection(a.get(1).asInt());
        break;
      case "row":
        f.addRow(name, a.get(2).asString());
        break;
      case "drop":
        f.removeRow(name);
        break;
      case "mark":
        f.markRow(name, a.get(2).asString());
        break;
      case "offer":
        f.takeOffer(name, "");
        break;
      case "move":
        f.moveTo(new Coordinate(a.get(1).asDouble(), a.get(2).asDouble()));
        break;
      case "draw":
        GeometryJson.parse(a.get(1).toString()).ifPresent(f::reshape);
        break;
      case "undo":
        f.undo();
        break;
      default:
        throw new IllegalArgumentException("no such step: " + a);
    }
  }

  private static String said(Filling f, ExecutableForm form) {
    StringBuilder b = new StringBuilder();
    for (Section s : form.form().sections()) {
      if (!s.isList()) answers(f, s, "", b);
      else
        for (String row : f.rows(s.name())) {
          b.append(s.name()).append('/').append(row).append(": ");
          answers(f, s, row, b);
        }
    }
    for (OpenPoint p : f.points())
      b.append("| ")
          .append(p.row().isEmpty() ? "" : p.row() + "/")
          .append(p.question())
          .append(' ')
          .append(p.kind().id())
          .append(' ')
          .append(p.message())
          .append(' ');
    return b.append("| set ").append(f.result().get("set")).toString();
  }

  private static void answers(Filling f, Section s, String row, StringBuilder b) {
    for (Question q : s.questions())
      b.append(q.name())
          .append('=')
          .append(f.isAsked(q.name(), row) ? f.value(q.name(), row).plain() : "-")
          .append(' ');
  }

  /** {form, schema, features} to the report of a dry run. */
  static String dry(JsonObject o) {
    FormCompiler.Outcome compiled = compile(o);
    if (compiled.form().isEmpty()) return form(o);
    ExecutableForm form = compiled.form().get();
    DryRun run =
        new DryRun(
            form,
            VisitStart.read(new JsonObject(), Optional.empty(), Map.of(), Optional.empty(), form));
    for (JsonValue v : o.get("features").asArray())
      run.add(Feature.read(v.asObject(), form.schema()));
    return run.report().json().toString();
  }
}
