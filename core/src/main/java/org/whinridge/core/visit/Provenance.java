package org.whinridge.core.visit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.OptionalDouble;
import org.whinridge.core.text.Numbers;

/**
 * Where an answer came from, and whether a person confirmed it.
 *
 * @param detail what a person may want to know: the layer looked up, the day of the last visit; ""
 *     for nothing
 * @param found the feature that a look-up found; {@link Found#NONE} for none
 */
public record Provenance(Kind kind, String detail, Found found, boolean confirmed) {
  /** The origins. */
  public enum Kind {
    NONE,
    TYPED,
    ASSET,
    LAST_VISIT,
    PLACE,
    DEVICE,
    FIXED,
    /** A start value given by a formula. */
    STARTED,
    WORKED_OUT
  }

  /**
   * The feature that a look-up found.
   *
   * @param layerId its layer; "" for none
   * @param version the feature's version then
   * @param at when it was looked up, ISO 8601 in UTC; "" when that is not known
   * @param distanceM geodesic metres from the visit's place
   */
  public record Found(
      String layerId, String featureId, long version, String at, OptionalDouble distanceM) {
    /** No feature. */
    public static final Found NONE = new Found("", "", 0, "", OptionalDouble.empty());
  }

  /** No answer, no origin. */
  public static final Provenance NONE = new Provenance(Kind.NONE, "", Found.NONE, false);

  /** A person gave the answer. */
  public static final Provenance TYPED = new Provenance(Kind.TYPED, "", Found.NONE, true);

  static Provenance of(Kind kind, String detail) {
    return new Provenance(kind, detail, Found.NONE, false);
  }

  Provenance confirm() {
    return new Provenance(kind, detail, found, true);
  }

  /** The id of the feature that a look-up found; "" for none. */
  public String featureId() {
    return found.featureId;
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
        return "looked up in "
            + detail
            + (found.distanceM.orElse(0) > 0
                ? ", " + Numbers.fixed(found.distanceM.getAsDouble(), 0) + " m away"
                : "");
      case DEVICE:
        return "from this device";
      case FIXED:
        return "set by the form";
      case STARTED:
        return "worked out at the start";
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
    if (found.featureId.isEmpty()) return o;
    o.add("feature", found.featureId).add("version", found.version);
    if (!found.layerId.isEmpty()) o.add("layer", found.layerId);
    if (!found.at.isEmpty()) o.add("at", found.at);
    found.distanceM.ifPresent(d -> o.add("distanceM", Numbers.json(Numbers.round(d, 2))));
    return o;
  }

  static Provenance read(JsonObject o) {
    Kind kind = Kind.NONE;
    for (Kind k : Kind.values())
      if (k.name().toLowerCase(java.util.Locale.ROOT).equals(text(o, "from"))) kind = k;
    JsonValue version = o.get("version");
    JsonValue distance = o.get("distanceM");
    JsonValue confirmed = o.get("confirmed");
    return new Provenance(
        kind,
        text(o, "detail"),
        new Found(
            text(o, "layer"),
            text(o, "feature"),
            version == null || !version.isNumber() ? 0 : (long) version.asDouble(),
            text(o, "at"),
            distance == null || !distance.isNumber()
                ? OptionalDouble.empty()
                : OptionalDouble.of(distance.asDouble())),
        confirmed != null && confirmed.isTrue());
  }

  /** A text member; what a device stored wrongly counts as missing and costs no answer. */
  private static String text(JsonObject o, String member) {
    JsonValue v = o.get(member);
    return v != null && v.isString() ? v.asString() : "";
  }
}
