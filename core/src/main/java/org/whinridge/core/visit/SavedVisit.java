package org.whinridge.core.visit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/**
 * A visit as it is kept on the device between two sittings. What can't be read costs itself only.
 */
final class SavedVisit {
  private SavedVisit() {}

  static JsonObject write(ExecutableForm form, FillingState state) {
    JsonObject answers = new JsonObject();
    JsonObject rows = new JsonObject();
    int l = 0;
    for (int s = 0; s < form.form().sections().size(); s++) {
      if (!form.form().sections().get(s).isList()) {
        answers(form, form.sheet(s), state.top, answers);
        continue;
      }
      JsonArray list = new JsonArray();
      for (Row r : state.rows.get(l)) {
        JsonObject stored = new JsonObject();
        answers(form, form.sheet(s), r.answers, stored);
        list.add(
            new JsonObject().add("id", r.id).add("state", r.state.id()).add("answers", stored));
      }
      if (!list.isEmpty()) rows.add(form.lists().get(l).name(), list);
      l++;
    }
    JsonArray confirmed = new JsonArray();
    for (String k : state.confirmedSoft) confirmed.add(k);
    JsonObject o = new JsonObject().add("answers", answers).add("confirmed", confirmed);
    if (!rows.isEmpty()) o.add("rows", rows);
    state.geometry.ifPresent(g -> o.add("place", place(g, state.moved)));
    return o;
  }

  private static JsonObject place(Geometry g, boolean moved) {
    Coordinate at = Geodesy.anchor(g);
    JsonObject o =
        new JsonObject()
            .add("lon", Numbers.json(at.x))
            .add("lat", Numbers.json(at.y))
            .add("moved", moved);
    return g instanceof Point || !moved ? o : o.add("geometry", GeometryJson.write(g));
  }

  private static void answers(ExecutableForm form, int[] questions, Answers a, JsonObject into) {
    for (int i : questions) {
      int k = form.local(i);
      boolean answered = !a.values[k].isEmpty() || a.provenance[k].kind() == Provenance.Kind.TYPED;
      if (!answered && a.notes[k].isEmpty() && a.offers[k] == null) continue;
      JsonObject one = a.provenance[k].json().add("value", ValueJson.write(a.values[k]));
      if (!a.notes[k].isEmpty()) one.add("note", a.notes[k].json());
      if (a.offers[k] != null)
        one.add(
            "offer",
            a.offers[k].provenance().json().add("value", ValueJson.write(a.offers[k].value())));
      into.add(form.at(i).name(), one);
    }
  }

  static void read(JsonObject saved, ExecutableForm form, FillingState state) {
    place(object(saved.get("place")), state);
    for (JsonObject.Member m : object(saved.get("answers"))) answer(m, form, -1, state.top);
    JsonObject rows = object(saved.get("rows"));
    for (int l = 0; l < form.lists().size(); l++) {
      ExecutableForm.ListPart list = form.lists().get(l);
      for (JsonValue v : array(rows.get(list.name()))) row(object(v), form, l, state.rows.get(l));
    }
    for (JsonValue v : array(saved.get("confirmed")))
      if (v.isString()) state.confirmedSoft.add(v.asString());
  }

  private static void row(JsonObject o, ExecutableForm form, int l, List<Row> into) {
    JsonValue id = o.get("id");
    JsonValue known = o.get("state");
    Row row =
        new Row(
            id != null && id.isString() ? id.asString() : "row" + into.size(),
            RowState.of(known != null && known.isString() ? known.asString() : ""),
            new Answers(form.lists().get(l).questions().length));
    for (JsonObject.Member m : object(o.get("answers"))) answer(m, form, l, row.answers);
    into.add(row);
  }

  private static void answer(JsonObject.Member m, ExecutableForm form, int list, Answers into) {
    int i = form.indexOf(m.getName());
    if (i < 0 || form.at(i).isHidden() || form.at(i).list() != list || !m.getValue().isObject())
      return;
    JsonObject a = m.getValue().asObject();
    int k = form.local(i);
    into.put(k, ValueJson.read(a.get("value"), form.at(i).type()), Provenance.read(a));
    into.notes[k] = Said.read(a.get("note"));
    JsonObject offer = object(a.get("offer"));
    Value offered = ValueJson.read(offer.get("value"), form.at(i).type());
    if (!offered.isEmpty())
      into.offers[k] = new Prefill.First(offered, Provenance.read(offer), Said.NONE);
  }

  private static void place(JsonObject o, FillingState state) {
    JsonValue lon = o.get("lon");
    JsonValue lat = o.get("lat");
    JsonValue moved = o.get("moved");
    if (lon == null || lat == null || !lon.isNumber() || !lat.isNumber()) return;
    state.moved = moved != null && moved.isTrue();
    Optional<Geometry> drawn =
        o.get("geometry") != null && o.get("geometry").isObject()
            ? GeometryJson.read(o.get("geometry").asObject())
            : Optional.empty();
    if (state.moved)
      state.geometry =
          Optional.of(
              drawn.orElseGet(
                  () ->
                      GeometryJson.WGS84.createPoint(
                          new Coordinate(lon.asDouble(), lat.asDouble()))));
    else if (state.geometry.isEmpty())
      state.geometry =
          Optional.of(
              GeometryJson.WGS84.createPoint(new Coordinate(lon.asDouble(), lat.asDouble())));
  }

  private static JsonObject object(JsonValue v) {
    return v != null && v.isObject() ? v.asObject() : new JsonObject();
  }

  private static JsonArray array(JsonValue v) {
    return v != null && v.isArray() ? v.asArray() : new JsonArray();
  }
}
