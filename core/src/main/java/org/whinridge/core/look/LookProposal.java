package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.read.NumberColumn;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/**
 * Makes the classes of a look from what a layer holds. The symbols are those of the look before, in
 * the colours of a ramp.
 */
public final class LookProposal {
  /** The most codes that get an entry of their own, the most frequent first. */
  public static final int MOST_CODES = 30;

  private static final String INK = "#1f2a30";

  private LookProposal() {}

  /**
   * An entry for each code of the field's list (those not retired, and those in use) or, without a
   * list, for each value in use; the rest is everything else.
   */
  public static Look byCode(Look before, LayerColumns layer, Field field, Ramp ramp) {
    TreeMap<String, Integer> uses = new TreeMap<>();
    layer
        .column(field.name())
        .ifPresent(
            c -> {
              for (int r = 0; r < layer.rows(); r++) if (layer.has(r)) count(c.value(r), uses);
            });
    Set<String> codes = new LinkedHashSet<>();
    for (Code c : field.codes())
      if (!c.retired() || uses.containsKey(c.code())) codes.add(c.code());
    uses.entrySet().stream()
        .sorted((a, b) -> b.getValue() - a.getValue())
        .forEach(e -> codes.add(e.getKey()));
    List<String> kept = codes.stream().limit(MOST_CODES).toList();
    List<Colour> colours = ramp.colours(Math.max(1, kept.size()));
    List<LookClass> out = new ArrayList<>();
    for (int i = 0; i < kept.size(); i++)
      out.add(
          LookClass.ofCode(
              field.labelOf(Value.text(kept.get(i))),
              kept.get(i),
              coloured(stack(before, layer), colours.get(i).hex())));
    return look(before, Look.By.CODE, field, Breaks.Method.EQUAL, ramp, out, layer);
  }

  private static void count(Value v, TreeMap<String, Integer> uses) {
    if (v instanceof Value.Many m)
      m.values().forEach(one -> uses.merge(one.plain(), 1, Integer::sum));
    else if (!v.isEmpty()) uses.merge(v.plain(), 1, Integer::sum);
  }

  /** The finite numbers of a field in rising order; none when it is no number. */
  public static double[] numbers(LayerColumns layer, Field field) {
    if (!(layer.column(field.name()).orElse(null) instanceof NumberColumn c)
        || field.type().valueType() != org.whinridge.core.value.ValueType.NUMBER)
      return new double[0];
    double[] out = new double[layer.rows()];
    int n = 0;
    for (int r = 0; r < layer.rows(); r++) {
      double d = c.number(r);
      if (!Double.isNaN(d) && layer.has(r)) out[n++] = d;
    }
    out = Arrays.copyOf(out, n);
    Arrays.sort(out);
    return out;
  }

  /** Classes of a number. */
  public static Look byClass(
      Look before, LayerColumns layer, Field field, Breaks.Method method, int classes, Ramp ramp) {
    double[] sorted = numbers(layer, field);
    double[] ends = Breaks.by(method, sorted, classes);
    List<Colour> colours = ramp.colours(Math.max(1, ends.length));
    List<LookClass> out = new ArrayList<>();
    for (int i = 0; i < ends.length; i++)
      out.add(
          LookClass.ofClass(
              said(field, sorted, i == 0 ? Double.NaN : ends[i - 1], ends[i]),
              ends[i],
              coloured(stack(before, layer), colours.get(i).hex())));
    return look(before, Look.By.CLASS, field, method, ramp, out, layer);
  }

  /**
   * A class as a legend has it, in signs that every language reads: "3", "0 – 120 mm", "> 120 – 300
   * mm".
   */
  static String said(Field field, double[] sorted, double before, double end) {
    String unit = field.unit().isEmpty() ? "" : " " + field.unit();
    double least = Double.isNaN(before) ? sorted[0] : above(sorted, before);
    if (least == end || Double.isNaN(least)) return number(field, end) + unit;
    return (Double.isNaN(before) ? number(field, least) : "> " + number(field, before))
        + " – "
        + number(field, end)
        + unit;
  }

  private static double above(double[] sorted, double d) {
    int at = Arrays.binarySearch(sorted, Math.nextUp(d));
    int i = at < 0 ? -at - 1 : at;
    return i < sorted.length ? sorted[i] : Double.NaN;
  }

  /** A break rounded for people: to the field's decimals, else to four leading digits. */
  private static String number(Field f, double d) {
    if (f.decimals() >= 0) return Numbers.fixed(d, f.decimals());
    if (d == 0 || d == Math.rint(d) && Math.abs(d) < 1e6) return Numbers.plain(d);
    int digits = (int) Math.floor(Math.log(Math.abs(d)) / Math.log(10));
    return Numbers.plain(Numbers.round(d, Math.max(-12, Math.min(12, 3 - digits))));
  }

  /**
   * The symbols of one entry for all entries, each in the colour that it had: that of its ground,
   * of its mark, or of its topmost line.
   *
   * @param entry the place of the entry in the legend; after the last class stands everything else
   */
  public static Look sameSymbols(Look look, int entry) {
    if (entry < 0 || entry > look.classes().size()) return look;
    List<Symbol> from =
        entry == look.classes().size() ? look.other().stack() : look.classes().get(entry).stack();
    List<LookClass> classes = new ArrayList<>();
    for (int i = 0; i < look.classes().size(); i++)
      classes.add(i == entry ? look.classes().get(i) : drawnAs(look.classes().get(i), from));
    return look.with(classes, entry == classes.size() ? look.other() : drawnAs(look.other(), from));
  }

  private static LookClass drawnAs(LookClass c, List<Symbol> stack) {
    String colour = mainColour(c.stack());
    return new LookClass(
        c.label(),
        c.code(),
        c.upTo(),
        c.rule(),
        colour.isEmpty() ? stack : repainted(stack, colour),
        c.preset());
  }

  private static String mainColour(List<Symbol> stack) {
    String line = "";
    for (Symbol s : stack)
      if (s instanceof Symbol.Area a && !a.colour().isEmpty()) return a.colour();
    for (Symbol s : stack) {
      if (s instanceof Symbol.Mark m) return m.colour();
      if (s instanceof Symbol.Stroke l) line = l.colour();
    }
    return line;
  }

  /** A stack with its main colour changed and nothing else. */
  private static List<Symbol> repainted(List<Symbol> stack, String colour) {
    boolean area = stack.stream().anyMatch(s -> s instanceof Symbol.Area);
    int topLine = -1;
    for (int i = 0; i < stack.size(); i++) if (stack.get(i) instanceof Symbol.Stroke) topLine = i;
    List<Symbol> out = new ArrayList<>();
    for (int i = 0; i < stack.size(); i++) {
      Symbol s = stack.get(i);
      if (s instanceof Symbol.Mark m)
        out.add(
            new Symbol.Mark(
                m.icon(),
                colour,
                m.size(),
                m.outline(),
                m.outlineWidth(),
                m.turnBy(),
                m.opacity()));
      else if (s instanceof Symbol.Area a)
        out.add(new Symbol.Area(colour, a.opacity(), a.hatch(), a.hatchColour(), a.hatchWidth()));
      else {
        Symbol.Stroke l = (Symbol.Stroke) s;
        out.add(
            area || i != topLine
                ? l
                : new Symbol.Stroke(colour, l.width(), l.dash(), l.ticks(), l.opacity()));
      }
    }
    return out;
  }

  /** One look for all, drawn as the first entry was. */
  public static Look one(Look before, LayerColumns layer) {
    return new Look(
        Look.By.ONE,
        "",
        Breaks.Method.EQUAL,
        before.ramp(),
        false,
        List.of(),
        LookClass.plain("", stack(before, layer)),
        before.label(),
        before.nearest(),
        before.farthest(),
        before.icons());
  }

  /** Rules to begin with: one entry that asks for a rule. */
  public static Look byRule(Look before, LayerColumns layer) {
    List<LookClass> rules = new ArrayList<>();
    if (before.by() == Look.By.RULE) rules.addAll(before.classes());
    return new Look(
        Look.By.RULE,
        "",
        Breaks.Method.EQUAL,
        before.ramp(),
        before.all(),
        rules,
        LookClass.plain("", stack(before, layer)),
        before.label(),
        before.nearest(),
        before.farthest(),
        before.icons());
  }

  private static Look look(
      Look before,
      Look.By by,
      Field field,
      Breaks.Method method,
      Ramp ramp,
      List<LookClass> classes,
      LayerColumns layer) {
    return new Look(
        by,
        field.name(),
        method,
        ramp.id(),
        false,
        classes,
        LookClass.plain("", coloured(stack(before, layer), "#8b9499")),
        before.label(),
        before.nearest(),
        before.farthest(),
        before.icons());
  }

  private static List<Symbol> stack(Look before, LayerColumns layer) {
    List<Symbol> first =
        before.by() == Look.By.ONE || before.classes().isEmpty()
            ? before.other().stack()
            : before.classes().get(0).stack();
    return first.isEmpty() ? Look.plainStack(layer.schema().kind(), Symbol.SLATE) : first;
  }

  /**
   * A stack in another colour: its marks, its ground, and its topmost line; marks get an ink
   * outline, so that light colours are seen on any ground.
   */
  public static List<Symbol> coloured(List<Symbol> stack, String colour) {
    List<Symbol> out = new ArrayList<>();
    int line = -1;
    for (int i = 0; i < stack.size(); i++) if (stack.get(i) instanceof Symbol.Stroke) line = i;
    boolean area = stack.stream().anyMatch(s -> s instanceof Symbol.Area);
    for (int i = 0; i < stack.size(); i++) {
      Symbol s = stack.get(i);
      if (s instanceof Symbol.Mark m)
        out.add(
            new Symbol.Mark(
                m.icon(),
                colour,
                m.size(),
                INK,
                Math.max(1, m.outlineWidth()),
                m.turnBy(),
                m.opacity()));
      else if (s instanceof Symbol.Stroke l)
        out.add(
            i != line
                ? l
                : new Symbol.Stroke(
                    area ? INK : colour, l.width(), l.dash(), l.ticks(), l.opacity()));
      else {
        Symbol.Area a = (Symbol.Area) s;
        out.add(
            new Symbol.Area(
                colour, Math.max(0.55, a.opacity()), a.hatch(), a.hatchColour(), a.hatchWidth()));
      }
    }
    return out;
  }
}
