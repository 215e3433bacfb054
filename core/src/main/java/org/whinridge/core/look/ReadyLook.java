package org.whinridge.core.look;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.OneFeature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.read.Clock;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleProblem;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A look made ready for a schema: rules read, fields found, what can't be drawn as meant told.
 * Draws any feature; immutable.
 */
public final class ReadyLook {
  private final Look look;
  private final Schema schema;
  private final List<LookClass> entries = new ArrayList<>();
  private final List<Optional<Rule>> rules = new ArrayList<>();
  private final Map<String, Integer> codes = new LinkedHashMap<>();
  private final List<LookProblem> problems = new ArrayList<>();
  private final List<String> turns = new ArrayList<>();
  private final List<Size> sizes = new ArrayList<>();
  private final Optional<Field> field;
  private final LabelText label;

  private ReadyLook(Look look, Schema schema) {
    this.look = look;
    this.schema = schema;
    this.field = schema.field(look.field());
    this.label = new LabelText(look.label().template(), schema);
    List<Symbol> usual = Look.plainStack(schema.kind(), Symbol.SLATE);
    boolean sorted = look.by() != Look.By.ONE;
    if (sorted) look.classes().forEach(entries::add);
    boolean fieldGone =
        (look.by() == Look.By.CODE || look.by() == Look.By.CLASS) && field.isEmpty();
    LookClass other = look.other();
    // what must not vanish from the map is drawn by the usual symbols
    boolean needed = !sorted || fieldGone;
    entries.add(other.stack().isEmpty() && needed ? LookClass.plain(other.label(), usual) : other);
    if (fieldGone)
      problem(
          -1,
          look.field().isEmpty()
              ? Said.of("lookProblem.noField")
              : Said.of("lookProblem.fieldGone", "field", look.field()));
    sort();
    entries.forEach(this::collect);
    check();
  }

  /** Makes a look ready. Nothing in it stops this: what is wrong is in {@link #problems}. */
  public static ReadyLook of(Look look, Schema schema) {
    return new ReadyLook(look, schema);
  }

  private void problem(int entry, Said message) {
    problems.add(LookProblem.about(entry, message));
  }

  private void sort() {
    for (int i = 0; i < other(); i++) {
      LookClass c = entries.get(i);
      switch (look.by()) {
        case CODE -> code(i, c);
        case CLASS -> upTo(i, c);
        default -> rules.add(rule(i, c));
      }
    }
    if (look.by() == Look.By.CLASS && field.isPresent() && !isNumber())
      problem(-1, Said.of("lookProblem.noNumber", "field", field.get().label()));
  }

  private void code(int i, LookClass c) {
    if (codes.putIfAbsent(c.code(), i) != null)
      problem(i, Said.of("lookProblem.codeTwice", "code", c.code()));
    if (field.isPresent()
        && !field.get().codes().isEmpty()
        && field.get().codes().stream().noneMatch(k -> k.code().equals(c.code())))
      problem(i, Said.of("lookProblem.codeGone", "code", c.code(), "field", field.get().label()));
  }

  private void upTo(int i, LookClass c) {
    double before =
        i == 0 ? Double.NEGATIVE_INFINITY : entries.get(i - 1).upTo().orElse(Double.NaN);
    if (c.upTo().isEmpty()) problem(i, Said.of("lookProblem.noEnd"));
    else if (!(c.upTo().getAsDouble() > before) && i > 0)
      problem(i, Said.of("lookProblem.endTurned"));
  }

  private Optional<Rule> rule(int i, LookClass c) {
    Rules.Outcome out = Rules.condition(c.rule(), new LayerScope(schema));
    for (RuleProblem p : out.problems())
      problems.add(
          new LookProblem(
              i, Said.of("lookProblem.rule", "why", p.message()), p.at().from(), p.at().to()));
    return out.rule();
  }

  private boolean isNumber() {
    return field.isPresent() && field.get().type().valueType() == ValueType.NUMBER;
  }

  private void collect(LookClass c) {
    for (Symbol s : c.stack()) {
      Size size =
          s instanceof Symbol.Mark m
              ? m.size()
              : s instanceof Symbol.Stroke l ? l.width() : Size.of(0);
      if (size.varies() && !sizes.contains(size)) sizes.add(size);
      if (s instanceof Symbol.Mark m && !m.turnBy().isEmpty() && !turns.contains(m.turnBy()))
        turns.add(m.turnBy());
    }
  }

  private void check() {
    for (String t : turns) wantNumber(t, "lookProblem.turnNoField", "lookProblem.turnNoNumber");
    for (Size s : sizes)
      wantNumber(s.field(), "lookProblem.sizeNoField", "lookProblem.sizeNoNumber");
    for (String name : label.unknown()) problem(-1, Said.of("lookProblem.label", "name", name));
    for (int i = 0; i < entries.size(); i++)
      for (Symbol s : entries.get(i).stack())
        if (s instanceof Symbol.Mark m && look.icon(m.icon()).isEmpty())
          problem(i, Said.of("lookProblem.icon", "icon", m.icon()));
    for (int i = 0; i < entries.size(); i++)
      for (JsonObject.Member m : entries.get(i).preset())
        if (schema.field(m.getName()).isEmpty())
          problem(i, Said.of("lookProblem.preset", "name", m.getName()));
  }

  private void wantNumber(String name, String noField, String noNumber) {
    Optional<Field> f = schema.field(name);
    if (f.isEmpty()) problem(-1, Said.of(noField, "name", name));
    else if (f.get().type().valueType() != ValueType.NUMBER)
      problem(-1, Said.of(noNumber, "field", f.get().label()));
  }

  /** The look. */
  public Look look() {
    return look;
  }

  /** The schema it was made ready for. */
  public Schema schema() {
    return schema;
  }

  /** What can't be drawn as it is meant, with what is drawn instead. */
  public List<LookProblem> problems() {
    return List.copyOf(problems);
  }

  /** The legend's entries; the last one is what fits nowhere, or the one look. */
  public List<LookClass> entries() {
    return List.copyOf(entries);
  }

  /** The place of the entry for what fits nowhere. */
  public int other() {
    return entries.size() - 1;
  }

  /** The fields of bearings that turn symbols, in the order of {@link Drawn#turns}. */
  public List<String> turns() {
    return List.copyOf(turns);
  }

  /** The sizes by number, in the order of {@link Drawn#sizes}. */
  public List<Size> sizes() {
    return List.copyOf(sizes);
  }

  boolean hasLabel() {
    return !label.isEmpty();
  }

  List<Optional<Rule>> rules() {
    return rules;
  }

  /** How a feature is drawn. */
  public Drawn draw(Feature f, Clock clock) {
    Situation s = new OneFeature(f, schema, clock.today(), clock.now());
    return new Drawn(entriesOf(s), turnsOf(s), sizesOf(s), label.of(f::value));
  }

  private int[] entriesOf(Situation s) {
    return switch (look.by()) {
      case ONE -> new int[] {0};
      case CODE -> new int[] {byCode(s.value(look.field()))};
      case CLASS -> new int[] {byClass(s.value(look.field()))};
      case RULE -> byRule(s);
    };
  }

  /** The entry of a code; of several values the first that has one. */
  int byCode(Value v) {
    if (field.isEmpty()) return other();
    if (v instanceof Value.Many many) {
      for (Value one : many.values()) {
        Integer i = codes.get(one.plain());
        if (i != null) return i;
      }
      return other();
    }
    return codes.getOrDefault(v.plain(), other());
  }

  int byClass(Value v) {
    return field.isPresent() && v instanceof Value.Num n ? byClass(n.value()) : other();
  }

  /** The entry of a number; NaN fits nowhere. */
  int byClass(double d) {
    double before = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < other(); i++) {
      double end = entries.get(i).upTo().orElse(Double.NaN);
      if (!(end > before)) continue;
      if (d <= end) return i;
      before = end;
    }
    return other();
  }

  private int[] byRule(Situation s) {
    int[] out = new int[other() + 1];
    int n = 0;
    for (int i = 0; i < rules.size(); i++)
      if (rules.get(i).isPresent() && rules.get(i).get().holds(s)) {
        out[n++] = i;
        if (!look.all()) break;
      }
    if (n == 0) out[n++] = other();
    return java.util.Arrays.copyOf(out, n);
  }

  double[] turnsOf(Situation s) {
    double[] out = new double[turns.size()];
    for (int i = 0; i < out.length; i++) out[i] = Bearing.of(s.value(turns.get(i))).orElse(0);
    return out;
  }

  double[] sizesOf(Situation s) {
    double[] out = new double[sizes.size()];
    for (int i = 0; i < out.length; i++) out[i] = sizes.get(i).at(s.value(sizes.get(i).field()));
    return out;
  }

  Said labelOf(java.util.function.Function<String, Value> values) {
    return label.of(values);
  }
}
