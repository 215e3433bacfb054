package org.whinridge.core.visit;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.compile.FormProblem;
import org.whinridge.core.form.edit.FormEdit;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.Value;

/** A small layer of structures, a form on it, and a visit to begin. */
public final class FormFixture {
  public static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              new Field("tag", "Tag", FieldType.TEXT, 8, "", false, true, List.of(), false),
              Field.of("kind", "Kind", FieldType.CODE)
                  .with(List.of(Code.of("flap", "Tide flap"), Code.of("weir", "Weir"))),
              Field.of("silt", "Silt depth", FieldType.WHOLE).in("mm"),
              Field.of("width", "Width", FieldType.WHOLE).in("mm"),
              Field.of("beat", "Beat", FieldType.TEXT),
              Field.of("note", "Note", FieldType.TEXT),
              Field.of("cost", "Cost centre", FieldType.TEXT).inOffice()),
          "tag",
          List.of("tag", "kind"));

  private Form form = Form.fromLayer("Structure visit", "Structures", SCHEMA);

  public FormFixture set(String question, String property, String json) {
    form =
        FormEdit.apply(
            form,
            new JsonObject()
                .add("op", "set")
                .add("question", question)
                .add("property", property)
                .add("value", Json.parse(json)));
    return this;
  }

  public FormFixture setting(String setting, String json) {
    form =
        FormEdit.apply(
            form,
            new JsonObject()
                .add("op", "settings")
                .add("setting", setting)
                .add("value", Json.parse(json)));
    return this;
  }

  public FormFixture add(String json) {
    form =
        FormEdit.apply(
            form,
            new JsonObject().add("op", "add").add("section", 0).add("question", Json.parse(json)));
    return this;
  }

  public Form form() {
    return form;
  }

  public List<FormProblem> problems() {
    return FormCompiler.compile(form, SCHEMA).problems();
  }

  ExecutableForm compiled() {
    var o = FormCompiler.compile(form, SCHEMA);
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
  }

  static Feature feature() {
    return new Feature(
        "f1",
        Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(0.5, 0.5))),
        Map.of(
            "tag",
            Value.text("OS-1"),
            "kind",
            Value.text("flap"),
            "silt",
            Value.of(120),
            "note",
            Value.text("park at the pump house")),
        3);
  }

  public static VisitStart start(Optional<Feature> feature) {
    return new VisitStart(
        feature,
        new VisitStart.Last(
            Map.of("width", Value.of(900)), Optional.of(LocalDate.of(2025, 9, 1)), Map.of()),
        "inspector1",
        "phone",
        Instant.parse("2026-05-04T23:30:00Z"),
        60,
        1,
        new VisitStart.Fix(
            Optional.of(new Coordinate(0.6, 0.6)), OptionalDouble.of(4), OptionalInt.of(9)),
        Map.of("beats", new PlaceIndex(List.of(square("b1", "West", 0), square("b2", "East", 1)))),
        Optional.of(CoordinateSystem.utmNorth(31)),
        VisitStart.NOTHING_TAKEN,
        VisitStart.Turn.OUTDOORS);
  }

  private static Feature square(String id, String name, double x) {
    return new Feature(
        id,
        GeometryJson.parse(
            "{\"type\":\"Polygon\",\"coordinates\":[[["
                + x
                + ",0],["
                + (x + 1)
                + ",0],["
                + (x + 1)
                + ",1],["
                + x
                + ",1],["
                + x
                + ",0]]]}"),
        Map.of("beat", Value.text(name)),
        7);
  }

  Filling open() {
    return Filling.open(compiled(), start(Optional.of(feature())));
  }
}
