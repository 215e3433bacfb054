package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;

/**
 * A rule that several questions share: other rules use its name like a yes / no question's.
 *
 * @param name unique among questions and rules of the form
 * @param label how sentences call it: "silt is deep"
 * @param rule a condition, CQL2 Text
 */
public record NamedRule(String name, String label, String rule) {
  static JsonArray write(List<NamedRule> rules) {
    JsonArray a = new JsonArray();
    for (NamedRule r : rules)
      a.add(new JsonObject().add("name", r.name).add("label", r.label).add("rule", r.rule));
    return a;
  }

  static List<NamedRule> read(JsonValue json) {
    List<NamedRule> out = new ArrayList<>();
    if (json == null) return out;
    for (JsonValue v : json.asArray()) {
      JsonObject o = v.asObject();
      String name = o.getString("name", "");
      out.add(new NamedRule(name, o.getString("label", name), o.getString("rule", "")));
    }
    return out;
  }
}
