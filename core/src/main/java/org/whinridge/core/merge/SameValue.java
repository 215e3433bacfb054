package org.whinridge.core.merge;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.SamePlace;
import org.whinridge.core.text.Blanks;
import org.whinridge.core.text.Composed;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * When two values of a field are one: the one notion of visits, merges, updates from files, claims
 * and taking back. Nothing that changed is the same, and nothing that did not is different:
 *
 * <ul>
 *   <li>what stands there as another type is read as the field's: "1" is 1 in a field of numbers;
 *   <li>texts without blanks at their ends, accents composed ({@link Composed});
 *   <li>many codes as a set, ranked ones in their order, both without empty ones;
 *   <li>geometries by {@link SamePlace}.
 * </ul>
 *
 * @param type the kind of value that the field holds; {@link ValueType#EMPTY} when it is not known
 * @param ranked whether the order of a list counts
 * @param decimals the layer's precision in decimals of a degree, for geometries
 */
public record SameValue(ValueType type, boolean ranked, int decimals) {
  /** For each field of a layer, and its geometry, by name. */
  public static Function<String, SameValue> in(Schema schema, int decimals) {
    return name -> of(schema.field(name), decimals);
  }

  /** For a field of a layer; of any kind when the layer does not have it. */
  public static SameValue of(Optional<Field> field, int decimals) {
    return new SameValue(
        field.map(f -> f.type().valueType()).orElse(ValueType.EMPTY), false, decimals);
  }

  /** The same for a field whose list is a ranking. */
  public SameValue ranked(boolean isRanked) {
    return new SameValue(type, isRanked, decimals);
  }

  /** Whether two values are one. */
  public boolean test(Value a, Value b) {
    Value x = plain(a);
    Value y = plain(b);
    if (x instanceof Value.Place p && y instanceof Value.Place q)
      return SamePlace.of(p.geometry(), q.geometry(), decimals);
    if (!ranked && x instanceof Value.Many m && y instanceof Value.Many n)
      return new LinkedHashSet<>(m.values()).equals(new LinkedHashSet<>(n.values()));
    return x.equals(y);
  }

  private Value plain(Value v) {
    if (v instanceof Value.Text t) {
      String s = Composed.of(Blanks.strip(t.value()));
      return ValueJson.readText(s, type);
    }
    if (v instanceof Value.Many m) {
      List<Value> kept = new ArrayList<>();
      for (Value x : m.values()) {
        Value one =
            x instanceof Value.Text t ? Value.text(Composed.of(Blanks.strip(t.value()))) : x;
        if (!one.isEmpty()) kept.add(one);
      }
      return Value.many(kept);
    }
    return type == ValueType.TEXT && v instanceof Value.Num ? Value.text(v.plain()) : v;
  }
}
