package org.whinridge.core.rules;

import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToIntFunction;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A checked tree to steps that give its value, with SQL's three-valued logic: unknown is {@link
 * Value#EMPTY}. Made once for each rule, since rules run far more often than they are read.
 */
final class Evaluator {
  /** One step: the value of a node in a situation. */
  interface Step {
    Value in(Situation s);
  }

  private final ToIntFunction<String> slots;

  private Evaluator(ToIntFunction<String> slots) {
    this.slots = slots;
  }

  /** The steps of a tree; {@code slots} gives a name's slot, or less than 0 to ask by name. */
  static Step of(Node n, ToIntFunction<String> slots) {
    return new Evaluator(slots).step(n);
  }

  private Step step(Node n) {
    if (n instanceof Node.Literal l) {
      Value v = l.value();
      return s -> v;
    }
    if (n instanceof Node.Name name) {
      int slot = slots.applyAsInt(name.name());
      return slot >= 0 ? s -> s.slot(slot) : s -> s.value(name.name());
    }
    if (n instanceof Node.Compare c) return compare(c);
    if (n instanceof Node.Logic l) return logic(l);
    if (n instanceof Node.Not not) {
      Step of = step(not.operand());
      return s -> negate(of.in(s));
    }
    if (n instanceof Node.IsNull i) {
      Step of = step(i.value());
      return s -> Value.of(of.in(s).isEmpty() != i.not());
    }
    if (n instanceof Node.In in) return in(in);
    if (n instanceof Node.Between b) {
      Step of = step(b.value());
      Step low = step(b.low());
      Step high = step(b.high());
      return s -> {
        Value v = of.in(s);
        Value inside =
            and(
                Comparison.of(Comparison.AT_LEAST, v, low.in(s)),
                Comparison.of(Comparison.AT_MOST, v, high.in(s)));
        return b.not() ? negate(inside) : inside;
      };
    }
    if (n instanceof Node.Like l) {
      Step of = step(l.left());
      if (l.pattern() instanceof Node.Literal p && p.value() instanceof Value.Text t) {
        int[] like = t.value().codePoints().toArray();
        return s ->
            of.in(s) instanceof Value.Text v
                ? Value.of(LikePattern.matches(like, v.value()) != l.not())
                : Value.EMPTY;
      }
      Step pattern = step(l.pattern());
      return s ->
          of.in(s) instanceof Value.Text t && pattern.in(s) instanceof Value.Text p
              ? Value.of(LikePattern.matches(p.value(), t.value()) != l.not())
              : Value.EMPTY;
    }
    if (n instanceof Node.Arithmetic a)
      return Arithmetic.step(a.op(), step(a.left()), step(a.right()));
    if (n instanceof Node.Negate m) {
      Step of = step(m.operand());
      return s -> of.in(s) instanceof Value.Num v ? new Value.Num(-v.value()) : Value.EMPTY;
    }
    if (n instanceof Node.ListOf l) {
      Step[] items = all(l.items());
      return s -> {
        Value[] values = new Value[items.length];
        for (int i = 0; i < items.length; i++) values[i] = items[i].in(s);
        // an empty list that is written out is known to be empty
        return new Value.Many(Arrays.asList(values));
      };
    }
    return call((Node.Call) n);
  }

  private Step[] all(List<Node> nodes) {
    Step[] out = new Step[nodes.size()];
    for (int i = 0; i < out.length; i++) out[i] = step(nodes.get(i));
    return out;
  }

  private Step compare(Node.Compare c) {
    int op = Comparison.code(c.op());
    Step left = step(c.left());
    if (c.right() instanceof Node.Literal l
        && l.value() instanceof Value.Text t
        && (op == Comparison.SAME || op == Comparison.OTHER)) {
      // by far the most frequent comparison: a question with a code
      String code = t.value();
      return s ->
          left.in(s) instanceof Value.Text v
              ? Value.of(v.value().equals(code) == (op == Comparison.SAME))
              : Value.EMPTY;
    }
    Step right = step(c.right());
    return s -> Comparison.of(op, left.in(s), right.in(s));
  }

  private Step logic(Node.Logic l) {
    // a chain a AND b AND … leans to the left; it is walked in a loop, not by recursion
    List<Node> parts = new ArrayList<>();
    Node n = l;
    while (n instanceof Node.Logic x && x.and() == l.and()) {
      parts.add(0, x.right());
      n = x.left();
    }
    parts.add(0, n);
    Step[] steps = all(parts);
    Value decides = l.and() ? Value.NO : Value.YES;
    Value other = l.and() ? Value.YES : Value.NO;
    return s -> {
      Value out = other;
      for (Step step : steps) {
        Value v = step.in(s);
        if (v == decides || v.equals(decides)) return decides;
        if (!v.equals(other)) out = Value.EMPTY;
      }
      return out;
    };
  }

  private static Value and(Value a, Value b) {
    if (a.equals(Value.NO) || b.equals(Value.NO)) return Value.NO;
    return a.equals(Value.YES) && b.equals(Value.YES) ? Value.YES : Value.EMPTY;
  }

  private static Value negate(Value v) {
    return v instanceof Value.Bool b ? Value.of(!b.value()) : Value.EMPTY;
  }

  private Step in(Node.In in) {
    Step of = step(in.value());
    Step[] items = all(in.items());
    return s -> {
      Value v = of.in(s);
      Value any = Value.NO;
      for (Step item : items) {
        Value same = Comparison.of(Comparison.SAME, v, item.in(s));
        if (same.equals(Value.YES)) return Value.of(!in.not());
        if (same.isEmpty()) any = Value.EMPTY;
      }
      return in.not() ? negate(any) : any;
    };
  }

  private Step call(Node.Call c) {
    Functions.Function f = Functions.find(c.function()).orElseThrow();
    Step[] args = all(c.arguments());
    switch (f.name()) {
      case "if":
        return s -> args[0].in(s).equals(Value.YES) ? args[1].in(s) : args[2].in(s);
      case "coalesce":
        return s -> {
          for (Step a : args) {
            Value v = a.in(s);
            if (!v.isEmpty()) return v;
          }
          return Value.EMPTY;
        };
      case "label":
        {
          String name = ((Node.Name) c.arguments().get(0)).name();
          return s -> {
            Value v = args[0].in(s);
            return v.isEmpty() ? Value.EMPTY : Value.text(s.label(name, v));
          };
        }
      case "matches":
        if (c.arguments().get(1) instanceof Node.Literal l && l.value() instanceof Value.Text p) {
          Pattern pattern = Pattern.compile(p.value());
          return s ->
              args[0].in(s) instanceof Value.Text t
                  ? Value.of(pattern.matches(t.value()))
                  : Value.EMPTY;
        }
        return s -> apply(f, args, s);
      default:
        return s -> apply(f, args, s);
    }
  }

  private static Value apply(Functions.Function f, Step[] args, Situation s) {
    Value[] values = new Value[args.length];
    boolean missing = false;
    for (int i = 0; i < args.length; i++) {
      values[i] = args[i].in(s);
      // a value kept from older data may not have the type its field says; it counts as unknown
      missing |=
          values[i].isEmpty()
              || !values[i].type().fits(f.argument(i))
              || (values[i] instanceof Value.Place p && p.geometry().isEmpty());
    }
    if (missing && !f.keepsEmpty()) return Value.EMPTY;
    Value out = f.body().apply(Arrays.asList(values), s);
    boolean told =
        f.result() == ValueType.NUMBER
            || f.result() == ValueType.DATE
            || f.result() == ValueType.YES_NO;
    if (out.isEmpty() && !missing && !f.keepsEmpty() && told) s.notFinite();
    return out;
  }
}
