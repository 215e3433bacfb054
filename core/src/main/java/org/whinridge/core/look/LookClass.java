package org.whinridge.core.look;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/**
 * One entry of a legend.
 *
 * @param label what people read
 * @param code by code: the stored value, as plain text
 * @param upTo by class: the greatest number it holds; it begins above the class before
 * @param rule by rule: a condition in CQL2 Text
 * @param stack what is drawn, the first below; empty draws nothing
 * @param preset values that a feature made from this entry begins with, as JSON by field
 */
public record LookClass(
    String label,
    String code,
    OptionalDouble upTo,
    String rule,
    List<Symbol> stack,
    JsonObject preset) {
  /** The most symbols of a stack. */
  public static final int MOST_SYMBOLS = 12;

  public LookClass {
    stack = List.copyOf(stack.size() > MOST_SYMBOLS ? stack.subList(0, MOST_SYMBOLS) : stack);
    preset = new JsonObject(preset);
  }

  /** An entry without a condition: for one look, and for all that fits nowhere. */
  public static LookClass plain(String label, List<Symbol> stack) {
    return new LookClass(label, "", OptionalDouble.empty(), "", stack, new JsonObject());
  }

  /** By code. */
  public static LookClass ofCode(String label, String code, List<Symbol> stack) {
    return new LookClass(label, code, OptionalDouble.empty(), "", stack, new JsonObject());
  }

  /** By class. */
  public static LookClass ofClass(String label, double upTo, List<Symbol> stack) {
    return new LookClass(label, "", OptionalDouble.of(upTo), "", stack, new JsonObject());
  }

  /** By rule. */
  public static LookClass ofRule(String label, String rule, List<Symbol> stack) {
    return new LookClass(label, "", OptionalDouble.empty(), rule, stack, new JsonObject());
  }

  /** The same entry with values for new features. */
  public LookClass with(JsonObject newPreset) {
    return new LookClass(label, code, upTo, rule, stack, newPreset);
  }

  /**
   * The values that a feature made from this entry begins with: the preset, and by code the code
   * itself. Values of fields that are gone are left out.
   */
  public Map<String, Value> presetValues(Schema schema, String codeField) {
    Map<String, Value> out = new LinkedHashMap<>();
    if (!code.isEmpty())
      schema.field(codeField).ifPresent(f -> out.put(f.name(), f.fit(Value.text(code))));
    schema
        .readValues(preset)
        .forEach((name, v) -> schema.field(name).ifPresent(f -> out.put(name, f.fit(v))));
    out.values().removeIf(Value::isEmpty);
    return out;
  }

  JsonObject json() {
    JsonArray symbols = new JsonArray();
    for (Symbol s : stack) symbols.add(s.json());
    JsonObject o = new JsonObject().add("label", label);
    if (!code.isEmpty()) o.add("code", code);
    upTo.ifPresent(d -> o.add("upTo", d));
    if (!rule.isEmpty()) o.add("rule", rule);
    o.add("stack", symbols);
    if (!preset.isEmpty()) o.add("preset", new JsonObject(preset));
    return o;
  }

  static LookClass read(JsonObject o) {
    List<Symbol> stack = new ArrayList<>();
    JsonValue symbols = o.get("stack");
    if (symbols != null && symbols.isArray())
      for (JsonValue s : symbols.asArray()) Symbol.read(s).ifPresent(stack::add);
    double upTo = Members.number(o, "upTo", Double.NaN);
    JsonValue preset = o.get("preset");
    return new LookClass(
        cut(Members.text(o, "label", "")),
        cut(Members.text(o, "code", "")),
        Double.isNaN(upTo) ? OptionalDouble.empty() : OptionalDouble.of(upTo),
        Members.text(o, "rule", ""),
        stack,
        preset != null && preset.isObject() ? preset.asObject() : Json.object());
  }

  private static String cut(String s) {
    return s.substring(0, Math.min(200, s.length()));
  }
}
