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
 * @param texts its message: what the person reads when it does not hold, {name} standing for the
 *     answer; none takes the rule's sentence
 * @param weight whether it holds the visit back or only asks to be confirmed
 * @param writtenFor the rule for which the message was written; "" when that is not known
 */
public record Check(String rule, Texts texts, Weight weight, String writtenFor) {
  /** Firm holds the visit back; soft asks to be confirmed. */
  public enum Weight {
    FIRM,
    SOFT
  }

  /** What the person reads; "" for the rule's sentence. */
  public String message() {
    return texts.get("message");
  }

  /**
   * The names of answers that a message puts in as {name}, in order. What stands in brackets and is
   * no name is part of the text.
   */
  public static List<String> namesIn(String message) {
    List<String> out = new ArrayList<>();
    for (int open = message.indexOf('{'); open >= 0; open = message.indexOf('{', open + 1)) {
      int close = message.indexOf('}', open);
      if (close < 0) break;
      String name = message.substring(open + 1, close);
      if (isName(name)) out.add(name);
    }
    return out;
  }

  /** Letters, digits, underscores and dots, with a letter or an underscore first. */
  private static boolean isName(String s) {
    for (int i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      boolean letter = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_';
      boolean within = (c >= '0' && c <= '9') || c == '.';
      if (!letter && (i == 0 || !within)) return false;
    }
    return !s.isEmpty();
  }

  /** The check in another language, as far as it has a message in it. */
  Check in(String language) {
    return new Check(rule, texts.in(language), weight, writtenFor);
  }

  /** The check under another rule; its message is then one for an earlier rule. */
  public Check under(String newRule) {
    String then = writtenFor.isEmpty() ? rule : writtenFor;
    return new Check(newRule, texts, weight, then.equals(newRule) ? "" : then);
  }

  /** The JSON form of a list. */
  public static JsonArray write(List<Check> checks) {
    JsonArray a = new JsonArray();
    for (Check c : checks) {
      JsonObject o =
          new JsonObject()
              .add("rule", c.rule)
              .add("message", c.message())
              .add("weight", c.weight == Weight.FIRM ? "firm" : "soft");
      if (!c.writtenFor.isEmpty()) o.add("writtenFor", c.writtenFor);
      c.texts.writeOthers(o);
      a.add(o);
    }
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
              Texts.read(o, "message"),
              o.getString("weight", "firm").equals("soft") ? Weight.SOFT : Weight.FIRM,
              o.getString("writtenFor", "")));
    }
    return List.copyOf(out);
  }
}
