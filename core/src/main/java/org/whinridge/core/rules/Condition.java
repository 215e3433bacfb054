package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A condition made of names and values. Values go into it as values: whoever needs a rule about one
 * asks here and never writes its text by hand, so that a date is compared as a date and a quote in
 * a text ends nothing. Lengths are not limited as they are for what people write.
 */
public final class Condition {
  private static final Span MADE = new Span(0, 0);
  private final Node tree;

  private Condition(Node tree) {
    this.tree = tree;
  }

  private static Node name(String name) {
    return new Node.Name(name, MADE);
  }

  private static Node literal(Value v) {
    return new Node.Literal(v, MADE);
  }

  /**
   * A name has this value: an empty one by IS NULL, a list by A_EQUALS, a geometry by S_EQUALS,
   * everything else by {@code =}.
   */
  public static Condition is(String name, Value value) {
    if (value.isEmpty()) return new Condition(new Node.IsNull(name(name), false, MADE));
    if (value instanceof Value.Many m)
      return new Condition(
          new Node.Call(
              "A_EQUALS",
              List.of(
                  name(name),
                  new Node.ListOf(m.values().stream().map(Condition::literal).toList(), MADE)),
              MADE));
    if (value instanceof Value.Place)
      return new Condition(new Node.Call("S_EQUALS", List.of(name(name), literal(value)), MADE));
    return new Condition(new Node.Compare("=", name(name), literal(value), MADE));
  }

  /**
   * A name has one of these values.
   *
   * @throws IllegalArgumentException when there is none
   */
  public static Condition isAnyOf(String name, List<Value> values) {
    if (values.isEmpty()) throw new Unfit("rule.noValue");
    List<Value> plain = new ArrayList<>();
    List<Condition> others = new ArrayList<>();
    for (Value v : values) {
      boolean listable =
          !v.isEmpty()
              && !(v instanceof Value.Many)
              && !(v instanceof Value.Place)
              && (plain.isEmpty() || plain.get(0).type() == v.type());
      if (listable) plain.add(v);
      else others.add(is(name, v));
    }
    if (plain.size() == 1) others.add(0, is(name, plain.get(0)));
    else if (!plain.isEmpty())
      others.add(
          0,
          new Condition(
              new Node.In(
                  name(name), plain.stream().map(Condition::literal).toList(), false, MADE)));
    Node tree = others.get(0).tree;
    for (Condition c : others.subList(1, others.size()))
      tree = new Node.Logic(false, tree, c.tree, MADE);
    return new Condition(tree);
  }

  /** A name has a number below {@code low} or above {@code high}. */
  public static Condition isOutside(String name, double low, double high) {
    return new Condition(
        new Node.Logic(
            false,
            new Node.Compare("<", name(name), literal(Value.of(low)), MADE),
            new Node.Compare(">", name(name), literal(Value.of(high)), MADE),
            MADE));
  }

  /** A name's geometry does not lie within an area. */
  public static Condition isNotWithin(String name, Geometry area) {
    return new Condition(
        new Node.Not(
            new Node.Call("S_WITHIN", List.of(name(name), literal(new Value.Place(area))), MADE),
            MADE));
  }

  /** The condition as CQL2 Text, for people and addresses. */
  public String text() {
    return Printer.print(tree);
  }

  /**
   * The condition as a rule over these names; a problem when a name is not there or its type can't
   * be compared with the value.
   */
  public Rules.Outcome in(Scope scope) {
    return Rules.checked(text(), tree, scope, ValueType.YES_NO);
  }
}
