package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * What people read of one thing, in the form's own language and in others.
 *
 * @param own the texts by what they are ("label", "hint", …) in the form's own language; a missing
 *     one is ""
 * @param others the same by language tag (BCP 47); what a language does not have falls back to own
 */
public record Texts(Map<String, String> own, Map<String, Map<String, String>> others) {
  public Texts {
    own = filled(own);
    Map<String, Map<String, String>> copy = new LinkedHashMap<>();
    others.forEach((language, texts) -> copy.put(language, filled(texts)));
    copy.values().removeIf(Map::isEmpty);
    others = Collections.unmodifiableMap(copy);
  }

  private static Map<String, String> filled(Map<String, String> texts) {
    Map<String, String> copy = new LinkedHashMap<>(texts);
    copy.values().removeIf(String::isEmpty);
    return Collections.unmodifiableMap(copy);
  }

  /** Texts in one language only, as pairs of what and text. */
  public static Texts of(String... pairs) {
    Map<String, String> own = new LinkedHashMap<>();
    for (int i = 0; i < pairs.length; i += 2) own.put(pairs[i], pairs[i + 1]);
    return new Texts(own, Map.of());
  }

  /** A text in the form's own language; "" when it has none. */
  public String get(String what) {
    return own.getOrDefault(what, "");
  }

  /** A text in a language, else in the form's own. */
  public String get(String what, String language) {
    return others.getOrDefault(language, Map.of()).getOrDefault(what, get(what));
  }

  /** The texts with another language as their own; what it does not have stays. */
  public Texts in(String language) {
    if (!others.containsKey(language)) return this;
    Map<String, String> now = new LinkedHashMap<>(own);
    now.putAll(others.get(language));
    return new Texts(now, others);
  }

  /** The texts with one text of the form's own language replaced. */
  public Texts with(String what, String text) {
    Map<String, String> now = new LinkedHashMap<>(own);
    now.put(what, text);
    return new Texts(now, others);
  }

  /** The texts with one text of another language replaced. */
  public Texts with(String what, String language, String text) {
    Map<String, Map<String, String>> now = new LinkedHashMap<>();
    others.forEach((l, texts) -> now.put(l, new LinkedHashMap<>(texts)));
    now.computeIfAbsent(language, l -> new LinkedHashMap<>()).put(what, text);
    return new Texts(own, now);
  }

  /** Adds the member "in", when there are other languages. */
  void writeOthers(JsonObject to) {
    othersJson().ifPresent(in -> to.add("in", in));
  }

  /** The other languages as language to texts; empty when there are none. */
  Optional<JsonObject> othersJson() {
    if (others.isEmpty()) return Optional.empty();
    JsonObject in = new JsonObject();
    others.forEach(
        (language, texts) -> {
          JsonObject one = new JsonObject();
          texts.forEach(one::add);
          in.add(language, one);
        });
    return Optional.of(in);
  }

  /** The texts of an object: its own members of these names, and its member "in". */
  static Texts read(JsonObject o, String... whats) {
    Map<String, String> own = new LinkedHashMap<>();
    for (String what : whats) own.put(what, o.getString(what, ""));
    JsonValue in = o.get("in");
    Texts texts = new Texts(own, Map.of());
    return in == null ? texts : texts.withOthers(in, whats);
  }

  /** The same texts with these in other languages: language to texts of these names. */
  Texts withOthers(JsonValue in, String... whats) {
    Map<String, Map<String, String>> all = new LinkedHashMap<>();
    for (JsonObject.Member language : in.asObject()) {
      Map<String, String> texts = new LinkedHashMap<>();
      for (String what : whats) texts.put(what, language.getValue().asObject().getString(what, ""));
      all.put(language.getName(), texts);
    }
    return new Texts(own, all);
  }
}
