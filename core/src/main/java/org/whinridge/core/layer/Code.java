package org.whinridge.core.layer;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * One allowed value.
 *
 * @param code what is stored
 * @param label what people read
 * @param retired kept where it is, not offered any more
 * @param fitsWhen a rule: offered only where it holds; "" for always
 * @param alone whether it excludes the others in a many choice
 * @param labels what people read in other languages, by language tag (BCP 47)
 * @param picture the id of its reference picture; "" for none
 */
public record Code(
    String code,
    String label,
    boolean retired,
    String fitsWhen,
    boolean alone,
    Map<String, String> labels,
    String picture) {
  public Code {
    labels = Collections.unmodifiableMap(new LinkedHashMap<>(labels));
  }

  /** A code in one language. */
  public Code(String code, String label, boolean retired, String fitsWhen, boolean alone) {
    this(code, label, retired, fitsWhen, alone, Map.of(), "");
  }

  /** The code with the label of another language, if it has one. */
  public Code in(String language) {
    return new Code(
        code, labels.getOrDefault(language, label), retired, fitsWhen, alone, labels, picture);
  }

  /** The code with another label in another language; "" takes it away. */
  public Code saying(String language, String text) {
    Map<String, String> now = new LinkedHashMap<>(labels);
    if (text.isEmpty()) now.remove(language);
    else now.put(language, text);
    return new Code(code, label, retired, fitsWhen, alone, now, picture);
  }

  /** The code with another condition; "" for always. */
  public Code fitting(String rule) {
    return new Code(code, label, retired, rule, alone, labels, picture);
  }

  /** The code with another code and label, and all else as it is here. */
  public Code as(String newCode, String newLabel) {
    return new Code(newCode, newLabel, retired, fitsWhen, alone, labels, picture);
  }

  /** A code without conditions. */
  public Code(String code, String label, boolean retired) {
    this(code, label, retired, "", false);
  }

  /** A code in use. */
  public static Code of(String code, String label) {
    return new Code(code, label, false);
  }

  /** The JSON form of a code list, in order. */
  public static JsonArray write(List<Code> codes) {
    JsonArray a = new JsonArray();
    for (Code c : codes) {
      JsonObject o = new JsonObject().add("code", c.code).add("label", c.label);
      if (c.retired) o.add("retired", true);
      if (!c.fitsWhen.isEmpty()) o.add("fitsWhen", c.fitsWhen);
      if (c.alone) o.add("alone", true);
      if (!c.labels.isEmpty()) {
        JsonObject in = new JsonObject();
        c.labels.forEach(in::add);
        o.add("in", in);
      }
      if (!c.picture.isEmpty()) o.add("picture", c.picture);
      a.add(o);
    }
    return a;
  }

  /** Reads a code list; null is an empty list, anything but an array is an error. */
  public static List<Code> read(JsonValue json) {
    List<Code> out = new ArrayList<>();
    if (json == null) return out;
    for (JsonValue v : json.asArray()) {
      JsonObject o = v.asObject();
      Map<String, String> labels = new LinkedHashMap<>();
      if (o.get("in") != null)
        for (JsonObject.Member m : o.get("in").asObject())
          labels.put(m.getName(), m.getValue().asString());
      out.add(
          new Code(
              o.getString("code", ""),
              o.getString("label", o.getString("code", "")),
              o.getBoolean("retired", false),
              o.getString("fitsWhen", ""),
              o.getBoolean("alone", false),
              labels,
              o.getString("picture", "")));
    }
    return List.copyOf(out);
  }
}
