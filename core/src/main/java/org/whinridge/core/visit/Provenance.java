package org.whinridge.core.visit;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.OptionalDouble;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/**
 * Where an answer came from, and whether a person confirmed it.
 *
 * @param detail what a person may want to know: the layer looked up, the day of the last visit; ""
 *     for nothing
 * @param found the feature that a look-up found; {@link Found#NONE} for none
 * @param features how many features of a look-up answered together; 1 for one alone
 * @param smallest whether a look-up took the smallest of several features
 */
public record Provenance(
    Kind kind, String detail, Found found, int features, boolean smallest, boolean confirmed) {
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
    WORKED_OUT;

    /** The word in data. */
    public String id() {
      return name().toLowerCase(java.util.Locale.ROOT);
    }
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
  public static final Provenance NONE = origin(Kind.NONE, "", false);

  /** A person gave the answer. */
  public static final Provenance TYPED = origin(Kind.TYPED, "", true);

  static Provenance of(Kind kind, String detail) {
    return origin(kind, detail, false);
  }

  private static Provenance origin(Kind kind, String detail, boolean confirmed) {
    return new Provenance(kind, detail, Found.NONE, 1, false, confirmed);
  }

  Provenance confirm() {
    return new Provenance(kind, detail, found, features, smallest, true);
  }

  /** The id of the feature that a look-up found; "" for none. */
  public String featureId() {
    return found.featureId;
  }

  /** The origin: "from the asset", "looked up in Beats". */
  public Said said() {
    switch (kind) {
      case TYPED:
        return Said.of("from.typed");
      case ASSET:
        return Said.of("from.asset");
      case LAST_VISIT:
        return detail.isEmpty()
            ? Said.of("from.lastVisit")
            : Said.of("from.visitOf", "day", detail);
      case PLACE:
        return away(place());
      case DEVICE:
        return Said.of("from.device");
      case FIXED:
        return Said.of("from.form");
      case STARTED:
        return Said.of("from.started");
      case WORKED_OUT:
        return Said.of("from.workedOut");
      default:
        return Said.NONE;
    }
  }

  private Said place() {
    if (features != 1) return Said.of("from.several", "layer", detail, "n", features);
    return Said.of(smallest ? "from.smallest" : "from.layer", "layer", detail);
  }

  private Said away(Said from) {
    double m = Numbers.round(found.distanceM.orElse(0), 0);
    return found.distanceM.orElse(0) > 0 ? Said.of("from.away", "from", from, "m", m) : from;
  }

  JsonObject json() {
    JsonObject o = new JsonObject().add("from", kind.id()).add("confirmed", confirmed);
    if (!detail.isEmpty()) o.add("detail", detail);
    if (features != 1) o.add("features", features);
    if (smallest) o.add("smallest", true);
    if (found.featureId.isEmpty()) return o;
    o.add("feature", found.featureId).add("version", found.version);
    if (!found.layerId.isEmpty()) o.add("layer", found.layerId);
    if (!found.at.isEmpty()) o.add("at", found.at);
    found.distanceM.ifPresent(d -> o.add("distanceM", Numbers.json(Numbers.round(d, 2))));
    return o;
  }

  static Provenance read(JsonObject o) {
    Kind kind = Kind.NONE;
    for (Kind k : Kind.values()) if (k.id().equals(text(o, "from"))) kind = k;
    JsonValue version = o.get("version");
    JsonValue distance = o.get("distanceM");
    JsonValue confirmed = o.get("confirmed");
    JsonValue features = o.get("features");
    JsonValue smallest = o.get("smallest");
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
        features == null || !features.isNumber() ? 1 : (int) features.asDouble(),
        smallest != null && smallest.isTrue(),
        confirmed != null && confirmed.isTrue());
  }

  /** A text member; what a device stored wrongly counts as missing and costs no answer. */
  private static String text(JsonObject o, String member) {
    JsonValue v = o.get(member);
    return v != null && v.isString() ? v.asString() : "";
  }
}
