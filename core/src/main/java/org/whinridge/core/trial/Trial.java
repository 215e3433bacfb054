package org.whinridge.core.trial;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.visit.Filling;
import org.whinridge.core.visit.VisitStart;

/**
 * A filled example, with what is expected of it. It keeps what it began with and what a person did;
 * all else comes anew with the form as it is, so that it shows what a change of the form does.
 *
 * @param feature the feature visited as it was then, a GeoJSON feature by the layer's fields; null
 *     for a new one
 * @param start with what the visit was begun, see {@link VisitStart#read}
 * @param saved what a person did, see {@link Filling#saved}
 * @param expected what is to come of it
 */
public record Trial(JsonValue feature, JsonObject start, JsonObject saved, Outcome expected) {
  /**
   * What lies around a trial and is not kept with it.
   *
   * @param lookups layers for place look-ups, by layer id
   * @param taken which values other features have
   */
  public record Around(
      Map<String, PlaceIndex> lookups, Optional<CoordinateSystem> system, VisitStart.Taken taken) {}

  /** A trial of which is expected what comes of it now. */
  public static Trial kept(
      JsonValue feature, JsonObject start, JsonObject saved, ExecutableForm form, Around around) {
    return new Trial(feature, start, saved, new Outcome(List.of(), List.of()))
        .expectingNow(form, around);
  }

  /** What comes of it with a form. */
  public Outcome run(ExecutableForm form, Around around) {
    Optional<Feature> of =
        feature.isObject()
            ? Optional.of(Feature.read(feature.asObject(), form.schema()))
            : Optional.empty();
    VisitStart begin =
        VisitStart.read(start, of, around.lookups, around.system, form).with(around.taken);
    return Outcome.of(form, Filling.again(form, begin, saved));
  }

  /** What is other than expected, with a form; nothing when all is as expected. */
  public List<Difference> differences(ExecutableForm form, Around around) {
    return Difference.between(expected, run(form, around));
  }

  /** The same, with what comes of it now as what is expected. */
  public Trial expectingNow(ExecutableForm form, Around around) {
    return new Trial(feature, start, saved, run(form, around));
  }

  /** The same after questions and lists of the form got other names: the new by the old ones. */
  public Trial renamed(Map<String, String> names) {
    UnaryOperator<String> name = n -> names.getOrDefault(n, n);
    JsonObject begin = copy(start);
    if (isObject(start, "last")) begin.set("last", answers(start.get("last").asObject(), name));
    JsonObject did = copy(saved);
    if (isObject(saved, "answers"))
      did.set("answers", members(saved.get("answers").asObject(), name));
    if (isObject(saved, "rows")) did.set("rows", answers(saved.get("rows").asObject(), name));
    if (saved.get("confirmed") != null && saved.get("confirmed").isArray()) {
      JsonArray keys = new JsonArray();
      for (JsonValue k : saved.get("confirmed").asArray())
        keys.add(k.isString() ? Json.value(key(k.asString(), name)) : k);
      did.set("confirmed", keys);
    }
    return new Trial(feature, begin, did, expected.renamed(name));
  }

  private static boolean isObject(JsonObject o, String member) {
    return o.get(member) != null && o.get(member).isObject();
  }

  private static JsonObject copy(JsonObject o) {
    return new JsonObject(o);
  }

  private static JsonObject members(JsonObject o, UnaryOperator<String> name) {
    JsonObject out = new JsonObject();
    for (JsonObject.Member m : o) out.add(name.apply(m.getName()), m.getValue());
    return out;
  }

  /** Answers by question, rows by list. */
  private static JsonObject answers(JsonObject o, UnaryOperator<String> name) {
    JsonObject out = new JsonObject();
    for (JsonObject.Member m : o) {
      JsonValue v = m.getValue();
      if (v.isArray()) {
        JsonArray rows = new JsonArray();
        for (JsonValue r : v.asArray())
          rows.add(
              r.isObject() && isObject(r.asObject(), "answers")
                  ? copy(r.asObject())
                      .set("answers", members(r.asObject().get("answers").asObject(), name))
                  : r);
        v = rows;
      }
      out.add(name.apply(m.getName()), v);
    }
    return out;
  }

  /** The key of a soft point begins with its question, behind the row's id. */
  private static String key(String key, UnaryOperator<String> name) {
    int colon = key.indexOf(':');
    int slash = key.lastIndexOf('/', colon);
    return colon < 0
        ? key
        : key.substring(0, slash + 1)
            + name.apply(key.substring(slash + 1, colon))
            + key.substring(colon);
  }

  /** It as text, to be kept. */
  public String text() {
    return new JsonObject()
        .add("feature", feature)
        .add("start", start)
        .add("saved", saved)
        .add("expected", expected.json())
        .toString();
  }

  /** It out of that text. */
  public static Trial read(String text) {
    JsonObject o = Json.parse(text).asObject();
    return new Trial(
        o.get("feature"),
        o.get("start").asObject(),
        o.get("saved").asObject(),
        Outcome.read(o.get("expected").asObject()));
  }
}
