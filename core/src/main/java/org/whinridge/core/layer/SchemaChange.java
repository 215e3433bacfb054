package org.whinridge.core.layer;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;

/**
 * What a change of a layer's schema does to the features that are there: seen over all features
 * before anything is written, then applied to each. No value is lost: one that the new type can't
 * hold stays as it is and is told; the values of a field that is taken away go into the ledger.
 */
public final class SchemaChange {
  /** The most features told per effect. */
  public static final int MOST_TOLD = 100;

  /** The longest text that a field can be limited to, in characters. */
  private static final int MOST_LENGTH = 1_000_000;

  private final Schema before;
  private final Schema after;
  private final Map<String, Effect> effects = new LinkedHashMap<>();
  private final Map<String, Map<String, Integer>> seen = new TreeMap<>();

  /** A feature and the value it has. */
  public record Told(String feature, String caption, String value) {}

  /** What happens, of one kind, to one field. */
  public static final class Effect {
    private final String field;
    private final Kind kind;
    private int count;
    private final List<Told> told = new ArrayList<>();

    private Effect(String field, Kind kind) {
      this.field = field;
      this.kind = kind;
    }

    /** The field's label. */
    public String field() {
      return field;
    }

    /** What happens. */
    public Kind kind() {
      return kind;
    }

    /** To how many features. */
    public int count() {
      return count;
    }

    /** The first of them. */
    public List<Told> told() {
      return List.copyOf(told);
    }
  }

  /** The kinds of effect. */
  public enum Kind {
    /** The field is new. */
    ADDED,
    /** The field goes; these features have a value, which is kept in the ledger. */
    REMOVED,
    /** The value takes the form of the new type. */
    CONVERTED,
    /** The value can't be of the new type and stays as it is. */
    MISFIT,
    /** The value is not in the code list. */
    NOT_LISTED,
    /** The value's code is retired; it stays, and is not offered any more. */
    RETIRED,
    /** The value is empty though the field may not be. */
    EMPTY,
    /** The value is shared though the field is unique. */
    REPEATED;

    /** The words for people. */
    public Said said() {
      return Said.of("schemaEffect." + name());
    }
  }

  private SchemaChange(Schema before, Schema after) {
    this.before = before;
    this.after = after;
    for (Field f : after.fields())
      if (before.field(f.name()).isEmpty()) effect(f.label(), Kind.ADDED);
    for (Field f : before.fields())
      if (after.field(f.name()).isEmpty()) effect(f.label(), Kind.REMOVED);
  }

  /**
   * A change from one schema to another. Fields are the same when their storage names are.
   *
   * @throws IllegalArgumentException when the kind of geometry differs, two fields have one name,
   *     or the tag or a caption is no field of the new schema
   */
  public static SchemaChange between(Schema before, Schema after) {
    if (before.kind() != after.kind()) throw new Unfit("schema.kind");
    check(after);
    return new SchemaChange(before, after);
  }

  /**
   * Checks that a schema is sound in itself.
   *
   * @throws IllegalArgumentException that says what is wrong ({@link
   *     org.whinridge.core.said.Unfit})
   */
  public static void check(Schema s) {
    Map<String, Field> names = new TreeMap<>();
    for (Field f : s.fields()) {
      if (f.name().equals(LayerScope.PLACE)) throw new Unfit("schema.place");
      if (names.put(f.name(), f) != null) throw new Unfit("schema.twice", "name", f.name());
      if (f.label().isBlank()) throw new Unfit("schema.noLabel", "name", f.name());
      checkLimits(f);
      checkCodes(f);
    }
    LayerScope scope = new LayerScope(s);
    for (Field f : s.fields()) checkRules(f, scope);
    if (!s.tagField().isEmpty() && !names.containsKey(s.tagField()))
      throw new Unfit("schema.noTag", "name", s.tagField());
    for (String c : s.captionFields())
      if (!names.containsKey(c)) throw new Unfit("schema.noCaption", "name", c);
  }

  /** Limits that no value could keep, or that the field's own default breaks. */
  private static void checkLimits(Field f) {
    if (f.length() < 0 || f.length() > MOST_LENGTH)
      throw new Unfit("schema.length", "label", f.label(), "n", f.length(), "most", MOST_LENGTH);
    if (f.decimals() < -1)
      throw new Unfit("schema.decimals", "label", f.label(), "n", f.decimals());
    if (f.unique() && f.start() instanceof Start.Fixed x)
      throw new Unfit("schema.uniqueDefault", "label", f.label(), "value", x.text());
    if (f.readOnly() && f.start() == Start.NOTHING)
      throw new Unfit("schema.readOnly", "label", f.label());
  }

  private static void checkCodes(Field f) {
    Map<String, Code> codes = new TreeMap<>();
    for (Code c : f.codes())
      if (codes.put(c.code(), c) != null)
        throw new Unfit("schema.codeTwice", "label", f.label(), "code", c.code());
  }

  private static void checkRules(Field f, LayerScope scope) {
    if (f.start() instanceof Start.Formula formula) {
      var out = Rules.formula(formula.text(), scope, f.type().valueType());
      if (out.rule().isEmpty())
        throw new Unfit(
            "schema.badFormula", "label", f.label(), "why", out.problems().get(0).message());
    }
    if (f.start() instanceof Start.Fixed fixed)
      FieldCheck.of(f, FieldCheck.typed(f, fixed.text()), Value.EMPTY)
          .ifPresent(
              fault -> {
                throw new Unfit("schema.badDefault", "label", f.label(), "why", fault.message());
              });
    for (Code c : f.codes()) {
      if (c.fitsWhen().isBlank()) continue;
      var out = Rules.condition(c.fitsWhen(), scope);
      if (out.rule().isEmpty())
        throw new Unfit(
            "schema.badFits",
            "code",
            c.code(),
            "label",
            f.label(),
            "why",
            out.problems().get(0).message());
    }
  }

  private Effect effect(String label, Kind kind) {
    return effects.computeIfAbsent(label + " " + kind, k -> new Effect(label, kind));
  }

  /** Looks at one feature; nothing is changed. */
  public void see(Feature f) {
    for (Field old : before.fields()) {
      Value v = f.value(old.name());
      Optional<Field> now = after.field(old.name());
      if (now.isEmpty()) {
        if (!v.isEmpty()) tell(old.label(), Kind.REMOVED, f, v);
      } else if (!now.get().equals(old)) changed(old, now.get(), f, v);
    }
  }

  private void changed(Field old, Field now, Feature f, Value v) {
    Value to = convert(now, v);
    if (!to.equals(v)) tell(now.label(), Kind.CONVERTED, f, v);
    if (!now.holds(to) && (old.holds(v) || now.type() != old.type()))
      tell(now.label(), Kind.MISFIT, f, v);
    else if (!now.codes().isEmpty() && !now.codes().equals(old.codes()) && !listed(now, to))
      tell(now.label(), Kind.NOT_LISTED, f, v);
    else if (retires(old, now, to)) tell(now.label(), Kind.RETIRED, f, v);
    if (to.isEmpty() && !now.nullable() && old.nullable()) tell(now.label(), Kind.EMPTY, f, v);
    if (now.unique() && !old.unique() && !to.isEmpty()) {
      int n =
          seen.computeIfAbsent(now.name(), k -> new TreeMap<>()).merge(to.plain(), 1, Integer::sum);
      if (n > 1) tell(now.label(), Kind.REPEATED, f, v);
    }
  }

  private static boolean listed(Field f, Value v) {
    if (v.isEmpty()) return true;
    for (Value one : v instanceof Value.Many m ? m.values() : List.of(v))
      if (f.codes().stream().noneMatch(c -> c.code().equals(one.plain()))) return false;
    return true;
  }

  /** Whether a value has a code that is retired now and was not before. */
  private static boolean retires(Field old, Field now, Value v) {
    for (Value one : v instanceof Value.Many m ? m.values() : List.of(v))
      if (isRetired(now, one) && !isRetired(old, one)) return true;
    return false;
  }

  private static boolean isRetired(Field f, Value v) {
    return f.codes().stream().anyMatch(c -> c.retired() && c.code().equals(v.plain()));
  }

  private void tell(String label, Kind kind, Feature f, Value v) {
    Effect e = effect(label, kind);
    e.count++;
    if (e.told.size() < MOST_TOLD)
      e.told.add(new Told(f.id(), before.caption(f.values()), v.plain()));
  }

  private static Value convert(Field to, Value v) {
    Value c = Reading.PLAIN.read(v, to.type());
    return to.holds(c) || c.type() == to.type().valueType() ? c : v;
  }

  /**
   * What to set on a feature: fields that go become empty, values take their new form. Empty when
   * nothing of it changes.
   */
  public Map<String, Value> rewrite(Feature f) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (Field old : before.fields()) {
      Value v = f.value(old.name());
      if (v.isEmpty()) continue;
      Optional<Field> now = after.field(old.name());
      Value to = now.isEmpty() ? Value.EMPTY : convert(now.get(), v);
      if (!to.equals(v)) out.put(old.name(), to);
    }
    return out;
  }

  /**
   * What was seen, in the order of the fields; an effect on no feature is there for added fields.
   */
  public List<Effect> effects() {
    return effects.values().stream()
        .filter(e -> e.count > 0 || e.kind == Kind.ADDED || e.kind == Kind.REMOVED)
        .toList();
  }
}
