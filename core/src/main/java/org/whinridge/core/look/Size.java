package org.whinridge.core.look;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import org.whinridge.core.value.Value;

/**
 * A size or width in pixels of 1/96 inch: always the same, or by a number of the feature.
 *
 * @param px used where there is no field, or the feature has no number in it
 * @param field the field whose number decides; "" for none
 * @param from the number that gets {@code small}; below it nothing gets smaller
 * @param to the number that gets {@code large}; above it nothing gets larger
 */
public record Size(double px, String field, double from, double to, double small, double large) {
  /** The largest size in pixels. */
  public static final double MOST = 96;

  public Size {
    px = inside(px);
    small = inside(small);
    large = inside(large);
  }

  private static double inside(double px) {
    return px >= 0 ? Math.min(MOST, px) : 0; // NaN is 0 too
  }

  /** Always the same. */
  public static Size of(double px) {
    return new Size(px, "", 0, 0, px, px);
  }

  /** Whether features differ. */
  public boolean varies() {
    return !field.isEmpty();
  }

  /** The size for a value: in proportion between the two ends, {@code px} for what is no number. */
  public double at(Value v) {
    if (!(v instanceof Value.Num n)) return px;
    double t = to == from ? (n.value() >= to ? 1 : 0) : (n.value() - from) / (to - from);
    return small + (large - small) * Math.max(0, Math.min(1, t));
  }

  JsonValue json() {
    if (!varies()) return Json.value(px);
    return new JsonObject()
        .add("px", px)
        .add("field", field)
        .add("from", from)
        .add("to", to)
        .add("small", small)
        .add("large", large);
  }

  static Size read(JsonValue v, double otherwise) {
    if (v != null && v.isNumber()) return of(v.asDouble());
    if (v == null || !v.isObject()) return of(otherwise);
    JsonObject o = v.asObject();
    double px = Members.number(o, "px", otherwise);
    return new Size(
        px,
        Members.text(o, "field", ""),
        Members.number(o, "from", 0),
        Members.number(o, "to", 0),
        Members.number(o, "small", px),
        Members.number(o, "large", px));
  }
}
