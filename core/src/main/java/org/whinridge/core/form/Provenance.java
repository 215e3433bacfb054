package org.whinridge.core.form;

import com.eclipsesource.json.JsonObject;

/**
 * Where an answer came from, and whether a person confirmed it.
 *
 * @param detail what a person may want to know: the layer looked up, the day of the last visit; ""
 *     for nothing
 * @param featureId the feature that a look-up found; "" for none
 */
public record Provenance(Kind kind, String detail, String featureId, boolean confirmed) {
  /** The origins. */
  public enum Kind {
    NONE,
    TYPED,
    ASSET,
    LAST_VISIT,
    PLACE,
    DEVICE,
    FIXED,
    WORKED_OUT
  }

  /** No answer, no origin. */
  public static final Provenance NONE = new Provenance(Kind.NONE, "", "", false);

  /** A person gave the answer. */
  public static final Provenance TYPED = new Provenance(Kind.TYPED, "", "", true);

  static Provenance of(Kind kind, String detail) {
    return new Provenance(kind, detail, "", false);
  }

  Provenance confirm() {
    return new Provenance(kind, detail, featureId, true);
  }

  /** The origin in words: "from the asset", "looked up in Beats". */
  public String said() {
    switch (kind) {
      case TYPED:
        return "typed";
      case ASSET:
        return "from the asset";
      case LAST_VISIT:
        return detail.isEmpty() ? "from the last visit" : "from the visit of " + detail;
      case PLACE:
        return "looked up in " + detail;
      case DEVICE:
        return "from this device";
      case FIXED:
        return "set by the form";
      case WORKED_OUT:
        return "worked out";
      default:
        return "";
    }
  }

  JsonObject json() {
    JsonObject o =
        new JsonObject()
            .add("from", kind.name().toLowerCase(java.util.Locale.ROOT))
            .add("confirmed", confirmed);
    if (!detail.isEmpty()) o.add("detail", detail);
    return featureId.isEmpty() ? o : o.add("feature", featureId);
  }

  static Provenance read(JsonObject o) {
    Kind kind = Kind.NONE;
    for (Kind k : Kind.values())
      if (k.name().toLowerCase(java.util.Locale.ROOT).equals(o.getString("from", ""))) kind = k;
    return new Provenance(
        kind,
        o.getString("detail", ""),
        o.getString("feature", ""),
        o.getBoolean("confirmed", false));
  }
}
