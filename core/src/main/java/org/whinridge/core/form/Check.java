package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;

/**
 * A condition that must hold.
 *
 * @param rule CQL2 Text; unknown holds
 * @param message what the person reads when it does not hold; {name} stands for the answer; ""
 *     takes the rule's sentence
 * @param weight whether it holds the visit back or only asks to be confirmed
 */
public record Check(String rule, String message, Weight weight) {
  /** Firm holds the visit back; soft asks to be confirmed. */
  public enum Weight {
    FIRM,
    SOFT
  }

  static JsonArray write(List<Check> checks) {
    JsonArray a = new JsonArray();
    for (Check c : checks)
      a.add(
          new JsonObject()
              .add("rule", c.rule)
              .add("message", c.message)
              .add("weight", c.weight == Weight.FIRM ? "firm" : "soft"));
    return a;
  }

  static List<Check> read(JsonValue json) {
    List<Check> out = new ArrayList<>();
    if (json == null) return out;
    for (JsonValue v : json.asArray()) {
      JsonObject o = v.asObject();
      out.add(
          new Check(
              o.getString("rule", ""),
              o.getString("message", ""),
              o.getString("weight", "firm").equals("soft") ? Weight.SOFT : Weight.FIRM));
    }
    return List.copyOf(out);
  }
}
