package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.value.Value;

/** A checked tree to a value, with SQL's three-valued logic: unknown is {@link Value#EMPTY}. */
final class Evaluator {
  private final Situation situation;

  Evaluator(Situation situation) {
    this.situation = situation;
  }

  Value eval(Node n) {
    if (n instanceof Node.Literal l) return l.value();
    if (n instanceof Node.Name name) return situation.value(name.name());
    if (n instanceof Node.Compare c) return compare(c.op(), eval(c.left()), eval(c.right()));
    if (n instanceof Node.Logic l) return logic(l);
    if (n instanceof Node.Not not) return negate(eval(not.operand()));
    if (n instanceof Node.IsNull i) return Value.of(eval(i.value()).isEmpty() != i.not());
    if (n instanceof Node.In in) return in(in);
    if (n instanceof Node.Between b) {
      Value v = eval(b.value());
      Value inside = and(compare(">=", v, eval(b.low())), compare("<=", v, eval(b.high())));
      return b.not() ? negate(inside) : inside;
    }
    if (n instanceof Node.Like l) {
      Value v = eval(l.left());
      Value p = eval(l.pattern());
      if (!(v instanceof Value.Text t) || !(p instanceof Value.Text pt)) return Value.EMPTY;
      return Value.of(LikePattern.matches(pt.value(), t.value()) != l.not());
    }
    if (n instanceof Node.Arithmetic a) return arithmetic(a.op(), eval(a.left()), eval(a.right()));
    if (n instanceof Node.Negate m)
      return eval(m.operand()) instanceof Value.Num v ? new Value.Num(-v.value()) : Value.EMPTY;
    if (n instanceof Node.ListOf l) {
      List<Value> items = new ArrayList<>();
      for (Node item : l.items()) items.add(eval(item));
      return Value.many(items);
    }
    return call((Node.Call) n);
  }

  private Value call(Node.Call c) {
    Functions.Function f = Functions.find(c.function()).orElseThrow();
    List<Value> args = new ArrayList<>(c.arguments().size());
    for (Node a : c.arguments()) args.add(eval(a));
    if (f.name().equals("label"))
      return args.get(0).isEmpty()
          ? Value.EMPTY
          : Value.text(situation.label(((Node.Name) c.arguments().get(0)).name(), args.get(0)));
    if (!f.keepsEmpty())
      for (int i = 0; i < args.size(); i++) {
        Value v = args.get(i);
        // a value kept from older data may not have the type its field says; it counts as unknown
        // here
        if (v.isEmpty() || !v.type().fits(f.argument(i))) return Value.EMPTY;
      }
    return f.body().apply(args, situation);
  }

  private Value logic(Node.Logic l) {
    Value a = eval(l.left());
    if (a.equals(l.and() ? Value.NO : Value.YES)) return a;
    Value b = eval(l.right());
    return l.and() ? and(a, b) : negate(and(negate(a), negate(b)));
  }

  private static Value and(Value a, Value b) {
    if (a.equals(Value.NO) || b.equals(Value.NO)) return Value.NO;
    return a.equals(Value.YES) && b.equals(Value.YES) ? Value.YES : Value.EMPTY;
  }

  private static Value negate(Value v) {
    return v instanceof Value.Bool b ? Value.of(!b.value()) : Value.EMPTY;
  }

  private Value in(Node.In in) {
    Value v = eval(in.value());
    Value any = Value.NO;
    for (Node item : in.items()) {
      Value same = compare("=", v, eval(item));
      if (same.equals(Value.YES)) return Value.of(!in.not());
      if (same.isEmpty()) any = Value.EMPTY;
    }
    return in.not() ? negate(any) : any;
  }

  private static Value compare(String op, Value a, Value b) {
    Optional<Integer> order = order(a, b);
    if (order.isEmpty()) {
      if (a.isEmpty() || b.isEmpty() || a.type() != b.type()) return Value.EMPTY;
      boolean same =
          a instanceof Value.Place p && b instanceof Value.Place q
              ? p.geometry().equalsTopo(q.geometry())
              : a.equals(b);
      return op.equals("=") ? Value.of(same) : op.equals("<>") ? Value.of(!same) : Value.EMPTY;
    }
    int c = order.get();
    switch (op) {
      case "=":
        return Value.of(c == 0);
      case "<>":
        return Value.of(c != 0);
      case "<":
        return Value.of(c < 0);
      case ">":
        return Value.of(c > 0);
      case "<=":
        return Value.of(c <= 0);
      default:
        return Value.of(c >= 0);
    }
  }

  private static Optional<Integer> order(Value a, Value b) {
    if (a instanceof Value.Num x && b instanceof Value.Num y)
      return Optional.of(Double.compare(x.value(), y.value()));
    if (a instanceof Value.Text x && b instanceof Value.Text y)
      return Optional.of(x.value().compareTo(y.value()));
    if (a instanceof Value.Day x && b instanceof Value.Day y)
      return Optional.of(x.value().compareTo(y.value()));
    if (a instanceof Value.Moment x && b instanceof Value.Moment y)
      return Optional.of(x.value().compareTo(y.value()));
    return Optional.empty();
  }

  private static Value arithmetic(String op, Value a, Value b) {
    if (!(a instanceof Value.Num x) || !(b instanceof Value.Num y)) return Value.EMPTY;
    double l = x.value();
    double r = y.value();
    switch (op) {
      case "+":
        return Value.of(l + r);
      case "-":
        return Value.of(l - r);
      case "*":
        return Value.of(l * r);
      case "/":
        return r == 0 ? Value.EMPTY : Value.of(l / r);
      case "%":
        return r == 0 ? Value.EMPTY : Value.of(l % r);
      case "div":
        return r == 0 ? Value.EMPTY : Value.of(l / r < 0 ? Math.ceil(l / r) : Math.floor(l / r));
      default:
        return Value.of(Math.pow(l, r));
    }
  }
}
