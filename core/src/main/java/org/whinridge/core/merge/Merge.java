package org.whinridge.core.merge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.whinridge.core.value.Value;

/**
 * Three ways, field by field: base B (what the device took out), layer now L, mine M (what the
 * visit wants). Geometry counts as one field under the name {@link #GEOMETRY}.
 *
 * <pre>
 * L = B            → M
 * L ≠ B, M = B     → L
 * L ≠ B, M = L     → L (agreed)
 * L ≠ B, M ≠ L, B  → clash
 * </pre>
 */
public final class Merge {
  /** The name under which the geometry takes part. */
  public static final String GEOMETRY = "geometry";

  private Merge() {}

  /** How one field came out. */
  public enum Outcome {
    UNCHANGED,
    WRITTEN,
    LAYER_KEPT,
    AGREED,
    CLASH
  }

  /**
   * One field: the three values, how it came out, and the value that stands (L for a clash, until a
   * person decides).
   */
  public record FieldMerge(
      String field, Value base, Value layer, Value mine, Outcome outcome, Value result) {}

  /** The whole: every field that the visit or the layer changed, in the order given. */
  public record Result(List<FieldMerge> fields) {
    public Result {
      fields = List.copyOf(fields);
    }

    /** The fields on which a person must decide. */
    public List<FieldMerge> clashes() {
      return fields.stream().filter(f -> f.outcome() == Outcome.CLASH).toList();
    }

    /** What would be written to the layer now, without the clashes. */
    public Map<String, Value> writes() {
      Map<String, Value> out = new LinkedHashMap<>();
      for (FieldMerge f : fields)
        if (f.outcome() == Outcome.WRITTEN) out.put(f.field(), f.result());
      return out;
    }
  }

  /**
   * Merges one visit.
   *
   * @param base values that the device took out, for the fields it knew
   * @param layer values on the layer now
   * @param set what the visit sets; a field that is not in it is unchanged by the visit
   * @param same when two values of a field are one
   */
  public static Result threeWay(
      Map<String, Value> base,
      Map<String, Value> layer,
      Map<String, Value> set,
      Function<String, SameValue> same) {
    LinkedHashSet<String> names = new LinkedHashSet<>(set.keySet());
    names.addAll(base.keySet());
    List<FieldMerge> out = new ArrayList<>();
    for (String f : names) {
      Value b = base.getOrDefault(f, Value.EMPTY);
      Value l = layer.getOrDefault(f, Value.EMPTY);
      Value m = set.getOrDefault(f, b);
      FieldMerge merged = one(f, b, l, m, same.apply(f));
      if (merged.outcome() != Outcome.UNCHANGED) out.add(merged);
    }
    return new Result(out);
  }

  private static FieldMerge one(String f, Value b, Value l, Value m, SameValue same) {
    if (same.test(l, b))
      return same.test(m, b)
          ? new FieldMerge(f, b, l, m, Outcome.UNCHANGED, l)
          : new FieldMerge(f, b, l, m, Outcome.WRITTEN, m);
    if (same.test(m, b)) return new FieldMerge(f, b, l, m, Outcome.LAYER_KEPT, l);
    if (same.test(m, l)) return new FieldMerge(f, b, l, m, Outcome.AGREED, l);
    return new FieldMerge(f, b, l, m, Outcome.CLASH, l);
  }

  /**
   * What taking back a change can restore: the fields whose value still comes from it and is the
   * one that was written.
   *
   * @param standing the fields that still come from the change, see {@link Standing}
   * @param same when two values of a field are one
   */
  public static Map<String, Value> takeBack(
      Map<String, Value> before,
      Map<String, Value> written,
      Map<String, Value> now,
      Set<String> standing,
      Function<String, SameValue> same) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (Map.Entry<String, Value> w : written.entrySet())
      if (standing.contains(w.getKey())
          && same.apply(w.getKey()).test(now.getOrDefault(w.getKey(), Value.EMPTY), w.getValue()))
        out.put(w.getKey(), Optional.ofNullable(before.get(w.getKey())).orElse(Value.EMPTY));
    return out;
  }
}
