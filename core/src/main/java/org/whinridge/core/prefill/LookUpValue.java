package org.whinridge.core.prefill;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.whinridge.core.text.Word;
import org.whinridge.core.value.Decimals;
import org.whinridge.core.value.Value;

/**
 * What a question takes from what a look-up found.
 *
 * @param field the field; "" where the measure needs none
 * @param measure the field's value, a figure over all found, or a measure of the finding itself
 */
public record LookUpValue(String field, Measure measure) {
  /** What is taken. */
  public enum Measure implements Word {
    /** The field's value of the feature found. */
    VALUE("value", true),
    /** How many were found. */
    COUNT("count", false),
    SUM("sum", true),
    MIN("min", true),
    MAX("max", true),
    MEAN("mean", true),
    /** The most frequent value; of equally frequent ones the smallest. */
    MOST_FREQUENT("most frequent", true),
    /** All values, in the order found, each once. */
    LIST("list", true),
    /** Metres to the feature found. */
    DISTANCE("distance", false),
    /** Metres along the line from its start. */
    CHAINAGE("chainage", false),
    /** Metres off the line. */
    OFFSET("offset", false),
    /** left, right or on. */
    SIDE("side", false),
    /** The id of the feature found. */
    FEATURE("feature", false);
    private final String id;
    private final boolean needsField;

    Measure(String id, boolean needsField) {
      this.id = id;
      this.needsField = needsField;
    }

    /** The word in data. */
    @Override
    public String id() {
      return id;
    }

    /** Whether it reads a field. */
    public boolean needsField() {
      return needsField;
    }

    static Optional<Measure> of(String id) {
      return Word.of(values(), id);
    }
  }

  /** The value of a field. */
  public static LookUpValue of(String field) {
    return new LookUpValue(field, Measure.VALUE);
  }

  /** The value that is taken from what was found; empty when that has none. */
  public Value from(LookupResult.Found found) {
    LookupResult.Hit first = found.hits().get(0);
    switch (measure) {
      case VALUE:
        return found.all() ? all(found) : first.feature().value(field);
      case COUNT:
        return Value.of(found.hits().size());
      case LIST:
        return all(found);
      case MOST_FREQUENT:
        return mostFrequent(found);
      case DISTANCE:
        return Value.of(first.distanceM());
      case CHAINAGE:
        return first.alongside().<Value>map(a -> Value.of(a.chainageM())).orElse(Value.EMPTY);
      case OFFSET:
        return first.alongside().<Value>map(a -> Value.of(a.offsetM())).orElse(Value.EMPTY);
      case SIDE:
        return first
            .alongside()
            .map(a -> Value.text(a.side().name().toLowerCase(java.util.Locale.ROOT)))
            .orElse(Value.EMPTY);
      case FEATURE:
        return Value.text(first.feature().id());
      default:
        return figure(found);
    }
  }

  private Value all(LookupResult.Found found) {
    List<Value> out = new ArrayList<>();
    for (LookupResult.Hit h : found.hits()) {
      Value v = h.feature().value(field);
      for (Value one : v instanceof Value.Many m ? m.values() : List.of(v))
        if (!one.isEmpty() && !out.contains(one)) out.add(one);
    }
    return Value.many(out);
  }

  private Value mostFrequent(LookupResult.Found found) {
    Map<String, Integer> counts = new TreeMap<>();
    Map<String, Value> values = new TreeMap<>();
    for (LookupResult.Hit h : found.hits()) {
      Value v = h.feature().value(field);
      if (v.isEmpty()) continue;
      counts.merge(v.plain(), 1, Integer::sum);
      values.put(v.plain(), v);
    }
    Value best = Value.EMPTY;
    int most = 0;
    for (Map.Entry<String, Integer> e : counts.entrySet())
      if (e.getValue() > most) {
        most = e.getValue();
        best = values.get(e.getKey());
      }
    return best;
  }

  private Value figure(LookupResult.Found found) {
    double sum = 0;
    double least = Double.POSITIVE_INFINITY;
    double most = Double.NEGATIVE_INFINITY;
    int n = 0;
    for (LookupResult.Hit h : found.hits())
      if (h.feature().value(field) instanceof Value.Num v) {
        sum = Decimals.add(sum, v.value());
        least = Math.min(least, v.value());
        most = Math.max(most, v.value());
        n++;
      }
    if (n == 0) return Value.EMPTY;
    switch (measure) {
      case SUM:
        return Value.of(sum);
      case MIN:
        return Value.of(least);
      case MAX:
        return Value.of(most);
      default:
        return Value.of(sum / n);
    }
  }
}
