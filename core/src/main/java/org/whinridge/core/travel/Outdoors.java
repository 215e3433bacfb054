package org.whinridge.core.travel;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.Section;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookClass;
import org.whinridge.core.look.Symbol;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.value.Value;

/**
 * What of a layer, a form or a past visit may leave for outdoors. Fields that are office only stay,
 * and so does all that would show their values: captions, tags, legends, labels, answers to office
 * only questions, and answers to questions that write to such fields.
 */
public final class Outdoors {
  private Outdoors() {}

  /** The schema without the fields that belong to the office, as caption or tag neither. */
  public static Schema schema(Schema s) {
    List<Field> fields = s.fields().stream().filter(f -> !f.officeOnly()).toList();
    Set<String> names = new LinkedHashSet<>();
    fields.forEach(f -> names.add(f.name()));
    return new Schema(
        s.kind(),
        fields,
        names.contains(s.tagField()) ? s.tagField() : "",
        s.captionFields().stream().filter(names::contains).toList());
  }

  /** {@link #schema} as a pack has it. */
  public static JsonObject schemaJson(Schema s) {
    return schema(s).json();
  }

  /**
   * The feature without what {@link #schema} does not have, values that no field names included.
   */
  public static Feature feature(Feature f, Schema s) {
    Schema out = schema(s);
    Map<String, Value> values = new LinkedHashMap<>(f.values());
    values.keySet().removeIf(name -> out.field(name).isEmpty());
    return new Feature(f.id(), f.geometry(), values, f.version());
  }

  /** The feature as a pack has it: a GeoJSON Feature with its version. */
  public static JsonObject json(Feature f, Schema s) {
    return feature(f, s).json(schema(s));
  }

  /**
   * What names the feature outdoors; when all that names it belongs to the office, the beginning of
   * its id does.
   */
  public static String caption(Feature f, Schema s) {
    String said = schema(s).caption(feature(f, s).values());
    return said.isEmpty() ? "feature " + f.id().substring(0, Math.min(8, f.id().length())) : said;
  }

  /**
   * The form without questions that belong to the office, by themselves or by the field that they
   * write to.
   *
   * @param s the schema that the form was published with
   */
  public static Form form(Form f, Schema s) {
    List<Section> sections = new ArrayList<>();
    for (Section x : f.sections())
      sections.add(x.with(x.questions().stream().filter(q -> travels(q, s)).toList()));
    return f.with(sections);
  }

  /** {@link #form} as a pack has it. */
  public static JsonObject formJson(Form f, Schema s) {
    return form(f, s).json();
  }

  /** {@link #look} as a pack has it. */
  public static JsonObject lookJson(Look look, Schema s) {
    return look(look, s).json();
  }

  /** Whether a question is asked outdoors. */
  public static boolean travels(Question q, Schema s) {
    return !q.officeOnly() && s.field(q.writesTo()).filter(Field::officeOnly).isEmpty();
  }

  /**
   * What a device learns of a past visit: the answers, and the rows of lists, to questions that are
   * asked outdoors now. Whatever else the visit has stays in the office.
   *
   * @param answers the visit's answers by question: {name: {value, …}}
   * @param kept what the visit keeps by question or list: {name: value or rows}
   * @param f the form that the device takes along, whole
   * @param now the layer's schema now; a field that is office only since then stays too
   * @return values by question, rows by list section
   */
  public static JsonObject pastAnswers(
      JsonObject answers, JsonObject kept, Form f, Schema published, Schema now) {
    JsonObject out = new JsonObject();
    for (Section s : f.sections()) {
      List<Question> asked =
          s.questions().stream().filter(q -> travels(q, published) && travels(q, now)).toList();
      if (s.isList()) {
        JsonValue rows = kept.get(s.name());
        if (rows != null && rows.isArray()) out.add(s.name(), rows(rows.asArray(), asked));
        continue;
      }
      for (Question q : asked) {
        JsonValue a = answers.get(q.name());
        if (a != null && a.isObject() && a.asObject().get("value") != null)
          out.add(q.name(), a.asObject().get("value"));
      }
    }
    return out;
  }

  private static JsonArray rows(JsonArray rows, List<Question> asked) {
    JsonArray out = new JsonArray();
    for (JsonValue v : rows) {
      if (!v.isObject()) continue;
      JsonObject row = new JsonObject();
      for (JsonObject.Member m : v.asObject())
        if (!m.getName().equals("answers")) row.add(m.getName(), m.getValue());
      JsonObject kept = new JsonObject();
      JsonValue all = v.asObject().get("answers");
      if (all != null && all.isObject())
        for (Question q : asked)
          if (all.asObject().get(q.name()) != null)
            kept.add(q.name(), all.asObject().get(q.name()));
      out.add(row.add("answers", kept));
    }
    return out;
  }

  /**
   * How a layer is drawn outdoors: a look that sorts, turns, sizes or labels features by what stays
   * in the office would show it, so that the layer is drawn plainly instead.
   */
  public static Look look(Look look, Schema s) {
    Set<String> read = new LinkedHashSet<>();
    read.add(look.field());
    List<LookClass> all = new ArrayList<>(look.classes());
    all.add(look.other());
    for (LookClass c : all) {
      read.addAll(Rules.namesIn(c.rule()));
      read.addAll(c.preset().names());
      for (Symbol x : c.stack()) read.addAll(x.fields());
    }
    String label = look.label().template();
    for (Field f : s.fields()) {
      boolean labelled = label.replace(" ", "").contains("{" + f.name() + "}");
      if (f.officeOnly() && (read.contains(f.name()) || labelled)) return Look.plain(s.kind());
    }
    return look;
  }
}
