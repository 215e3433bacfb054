package org.whinridge.core.layer;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;

/** What a field of a new feature begins with. */
public sealed interface Start {
  /** Nothing. */
  record Nothing() implements Start {}

  /** The same value each time, as people type it. */
  record Fixed(String text) implements Start {}

  /** A formula of the rules language, worked out when the feature is made. */
  record Formula(String text) implements Start {}

  /** The one start that is none. */
  Start NOTHING = new Nothing();

  /** The JSON form; null for none. */
  default JsonObject json() {
    if (this instanceof Fixed f) return new JsonObject().add("fixed", f.text());
    if (this instanceof Formula f) return new JsonObject().add("formula", f.text());
    return null;
  }

  /** Reads the JSON form; what is neither fixed nor formula is none. */
  static Start read(JsonValue v) {
    if (v == null || !v.isObject()) return NOTHING;
    String fixed = v.asObject().getString("fixed", "");
    if (!fixed.isEmpty()) return new Fixed(fixed);
    String formula = v.asObject().getString("formula", "");
    return formula.isEmpty() ? NOTHING : new Formula(formula);
  }
}
