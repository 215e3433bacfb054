package org.whinridge.core.rules.saying;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/**
 * A condition as parts that a screen can edit one by one: what is compared, how, with which values;
 * joined by all or by any. What is richer than that has no parts and is edited as text.
 *
 * @param all whether all parts must hold (AND), or one is enough (OR)
 */
public record SentenceParts(boolean all, List<Part> parts) {
  /** The comparisons of a part, with the words for people. */
  public enum Comparison {
    IS(1),
    IS_NOT(1),
    UNDER(1),
    OVER(1),
    AT_MOST(1),
    AT_LEAST(1),
    BETWEEN(2),
    NOT_BETWEEN(2),
    ONE_OF(-1),
    NONE_OF(-1),
    HAS_ANY(-1),
    HAS_ALL(-1),
    LIKE(1),
    NOT_LIKE(1),
    YES(0),
    NO(0),
    ANSWERED(0),
    NOT_ANSWERED(0);
    private final int takes;

    Comparison(int takes) {
      this.takes = takes;
    }

    /** The word in data: "at_most". */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }

    /** The words for people. */
    public Said said() {
      return Said.of("comparison." + name());
    }

    /** How many values it takes; -1 for one or more. */
    public int takes() {
      return takes;
    }

    /**
     * Whether it can be asked of a value.
     *
     * @param coded whether the value is one of a list of codes
     */
    public boolean fits(ValueType type, boolean coded) {
      return switch (this) {
        case ANSWERED, NOT_ANSWERED -> true;
        case YES, NO -> type == ValueType.YES_NO;
        case HAS_ANY, HAS_ALL -> type == ValueType.LIST;
        case LIKE, NOT_LIKE -> type == ValueType.TEXT && !coded;
        case ONE_OF, NONE_OF -> type == ValueType.TEXT || type == ValueType.NUMBER;
        case IS, IS_NOT -> isOrdered(type) || type == ValueType.TEXT;
        default -> isOrdered(type);
      };
    }

    private static boolean isOrdered(ValueType type) {
      return type == ValueType.NUMBER || type == ValueType.DATE || type == ValueType.DATE_TIME;
    }

    static Optional<Comparison> of(String id) {
      for (Comparison c : values()) if (c.id().equals(id)) return Optional.of(c);
      return Optional.empty();
    }
  }

  /**
   * One part.
   *
   * @param left what is compared; it reads at least one name
   * @param values what it is compared with
   */
  public record Part(Operand left, Comparison comparison, List<Operand> values) {
    public Part {
      values = List.copyOf(values);
    }

    /** The part as CQL2 Text. */
    String text() {
      String q = left.text();
      List<String> v = values.stream().map(Operand::text).toList();
      String list = "(" + String.join(", ", v) + ")";
      switch (comparison) {
        case IS:
          return q + " = " + v.get(0);
        case IS_NOT:
          return q + " <> " + v.get(0);
        case UNDER:
          return q + " < " + v.get(0);
        case OVER:
          return q + " > " + v.get(0);
        case AT_MOST:
          return q + " <= " + v.get(0);
        case AT_LEAST:
          return q + " >= " + v.get(0);
        case BETWEEN:
          return q + " BETWEEN " + v.get(0) + " AND " + v.get(1);
        case NOT_BETWEEN:
          return q + " NOT BETWEEN " + v.get(0) + " AND " + v.get(1);
        case ONE_OF:
          return q + " IN " + list;
        case NONE_OF:
          return q + " NOT IN " + list;
        case HAS_ANY:
          return "A_OVERLAPS(" + q + ", " + list + ")";
        case HAS_ALL:
          return "A_CONTAINS(" + q + ", " + list + ")";
        case LIKE:
          return q + " LIKE " + v.get(0);
        case NOT_LIKE:
          return q + " NOT LIKE " + v.get(0);
        case YES:
          return q;
        case NO:
          return "NOT " + q;
        case ANSWERED:
          return q + " IS NOT NULL";
        default:
          return q + " IS NULL";
      }
    }
  }

  public SentenceParts {
    parts = List.copyOf(parts);
  }

  /** The parts of a condition; empty when it is too rich for them. */
  public static Optional<SentenceParts> of(Rule rule) {
    List<Node> nodes = new ArrayList<>();
    Node n = rule.tree();
    boolean all = !(n instanceof Node.Logic l) || l.and();
    while (n instanceof Node.Logic x && x.and() == all) {
      nodes.add(0, x.right());
      n = x.left();
    }
    nodes.add(0, n);
    List<Part> parts = new ArrayList<>();
    for (Node node : nodes) {
      Optional<Part> p = part(node);
      if (p.isEmpty()) return Optional.empty();
      parts.add(p.get());
    }
    return Optional.of(new SentenceParts(all, parts));
  }

  private static Optional<Part> part(Node n) {
    if (n instanceof Node.Compare c) {
      boolean yesNo = c.right() instanceof Node.Literal l && l.value() instanceof Value.Bool;
      return yesNo ? Optional.empty() : part(c.left(), comparison(c.op()), List.of(c.right()));
    }
    if (n instanceof Node.Between b)
      return part(
          b.value(),
          b.not() ? Comparison.NOT_BETWEEN : Comparison.BETWEEN,
          List.of(b.low(), b.high()));
    if (n instanceof Node.In in)
      return part(in.value(), in.not() ? Comparison.NONE_OF : Comparison.ONE_OF, in.items());
    if (n instanceof Node.Like l)
      return part(l.left(), l.not() ? Comparison.NOT_LIKE : Comparison.LIKE, List.of(l.pattern()));
    if (n instanceof Node.IsNull i)
      return part(i.value(), i.not() ? Comparison.ANSWERED : Comparison.NOT_ANSWERED, List.of());
    if (n instanceof Node.Name) return part(n, Comparison.YES, List.of());
    if (n instanceof Node.Not not && not.operand() instanceof Node.Name)
      return part(not.operand(), Comparison.NO, List.of());
    if (n instanceof Node.Call c
        && (c.function().equals("A_OVERLAPS") || c.function().equals("A_CONTAINS")))
      return part(
          c.arguments().get(0),
          c.function().equals("A_OVERLAPS") ? Comparison.HAS_ANY : Comparison.HAS_ALL,
          c.arguments().get(1) instanceof Node.ListOf l
              ? l.items()
              : List.of(c.arguments().get(1)));
    return Optional.empty();
  }

  private static Optional<Part> part(Node left, Comparison comparison, List<Node> values) {
    Optional<Operand> of = Operand.of(left).filter(Operand::reads);
    if (of.isEmpty()) return Optional.empty();
    List<Operand> with = new ArrayList<>();
    for (Node v : values) {
      Optional<Operand> o = Operand.of(v);
      if (o.isEmpty()) return Optional.empty();
      with.add(o.get());
    }
    return Optional.of(new Part(of.get(), comparison, with));
  }

  private static Comparison comparison(String op) {
    switch (op) {
      case "=":
        return Comparison.IS;
      case "<>":
        return Comparison.IS_NOT;
      case "<":
        return Comparison.UNDER;
      case ">":
        return Comparison.OVER;
      case "<=":
        return Comparison.AT_MOST;
      default:
        return Comparison.AT_LEAST;
    }
  }

  /** The condition as CQL2 Text. */
  public String text() {
    return String.join(all ? " AND " : " OR ", parts.stream().map(Part::text).toList());
  }

  /** The JSON form: {join: all | any, parts: [{left, comparison, values}]}, see {@link Operand}. */
  public JsonObject json() {
    JsonArray a = new JsonArray();
    for (Part p : parts) {
      JsonArray values = new JsonArray();
      for (Operand v : p.values) values.add(v.json());
      a.add(
          new JsonObject()
              .add("left", p.left.json())
              .add("comparison", p.comparison.id())
              .add("values", values));
    }
    return new JsonObject().add("join", all ? "all" : "any").add("parts", a);
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when a comparison is not known or
   *     has the wrong number of values, or an operand is none
   */
  public static SentenceParts read(JsonObject o) {
    List<Part> parts = new ArrayList<>();
    try {
      for (JsonValue v : o.get("parts").asArray()) {
        JsonObject p = v.asObject();
        String id = p.getString("comparison", "");
        Comparison c =
            Comparison.of(id).orElseThrow(() -> new Unfit("rule.noComparison", "comparison", id));
        List<Operand> values = new ArrayList<>();
        if (p.get("values") != null)
          for (JsonValue x : p.get("values").asArray()) values.add(Operand.read(x));
        if (c.takes < 0 ? values.isEmpty() : values.size() != c.takes)
          throw new Unfit(
              c.takes < 0 ? "rule.takesSome" : "rule.takes", "comparison", c.said(), "n", c.takes);
        Operand left = Operand.read(p.get("left"));
        if (!left.reads()) throw new Unfit("rule.noName");
        parts.add(new Part(left, c, values));
      }
    } catch (UnsupportedOperationException | NullPointerException e) {
      throw new Unfit("rule.noParts").because(e);
    }
    if (parts.isEmpty()) throw new Unfit("rule.noPart");
    return new SentenceParts(o.getString("join", "all").equals("all"), parts);
  }
}
