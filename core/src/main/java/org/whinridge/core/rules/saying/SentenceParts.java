package org.whinridge.core.rules.saying;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.whinridge.core.rules.Node;
import org.whinridge.core.rules.Printer;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Span;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;

/**
 * A condition as parts that a screen can edit one by one: question, comparison, values; joined by
 * all or by any. What is richer than that has no parts and is edited as text.
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

    static Optional<Comparison> of(String id) {
      for (Comparison c : values()) if (c.id().equals(id)) return Optional.of(c);
      return Optional.empty();
    }
  }

  /**
   * One part.
   *
   * @param question the name on the left
   * @param values what it is compared with, each in CQL2 Text: a literal, another name, today() or
   *     now()
   */
  public record Part(String question, Comparison comparison, List<String> values) {
    public Part {
      values = List.copyOf(values);
    }

    /** The part as CQL2 Text. */
    String text() {
      String q = Printer.print(new Node.Name(question, new Span(0, 0)));
      String list = "(" + String.join(", ", values) + ")";
      switch (comparison) {
        case IS:
          return q + " = " + values.get(0);
        case IS_NOT:
          return q + " <> " + values.get(0);
        case UNDER:
          return q + " < " + values.get(0);
        case OVER:
          return q + " > " + values.get(0);
        case AT_MOST:
          return q + " <= " + values.get(0);
        case AT_LEAST:
          return q + " >= " + values.get(0);
        case BETWEEN:
          return q + " BETWEEN " + values.get(0) + " AND " + values.get(1);
        case NOT_BETWEEN:
          return q + " NOT BETWEEN " + values.get(0) + " AND " + values.get(1);
        case ONE_OF:
          return q + " IN " + list;
        case NONE_OF:
          return q + " NOT IN " + list;
        case HAS_ANY:
          return "A_OVERLAPS(" + q + ", " + list + ")";
        case HAS_ALL:
          return "A_CONTAINS(" + q + ", " + list + ")";
        case LIKE:
          return q + " LIKE " + values.get(0);
        case NOT_LIKE:
          return q + " NOT LIKE " + values.get(0);
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

  private static Optional<Part> part(Node question, Comparison comparison, List<Node> values) {
    if (!(question instanceof Node.Name name)) return Optional.empty();
    List<String> texts = new ArrayList<>();
    for (Node v : values) {
      boolean clock =
          v instanceof Node.Call c && (c.function().equals("today") || c.function().equals("now"));
      if (!(v instanceof Node.Literal) && !(v instanceof Node.Name) && !clock)
        return Optional.empty();
      texts.add(Printer.print(v));
    }
    return Optional.of(new Part(name.name(), comparison, texts));
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

  /** The JSON form: {join: all | any, parts: [{question, comparison, values}]}. */
  public JsonObject json() {
    JsonArray a = new JsonArray();
    for (Part p : parts) {
      JsonArray values = new JsonArray();
      for (String v : p.values) values.add(v);
      a.add(
          new JsonObject()
              .add("question", p.question)
              .add("comparison", p.comparison.id())
              .add("values", values));
    }
    return new JsonObject().add("join", all ? "all" : "any").add("parts", a);
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when a comparison is not known or
   *     has the wrong number of values
   */
  public static SentenceParts read(JsonObject o) {
    List<Part> parts = new ArrayList<>();
    try {
      for (JsonValue v : o.get("parts").asArray()) {
        JsonObject p = v.asObject();
        String id = p.getString("comparison", "");
        Comparison c =
            Comparison.of(id).orElseThrow(() -> new Unfit("rule.noComparison", "comparison", id));
        List<String> values = new ArrayList<>();
        if (p.get("values") != null)
          for (JsonValue x : p.get("values").asArray()) values.add(x.asString());
        if (c.takes < 0 ? values.isEmpty() : values.size() != c.takes)
          throw new Unfit(
              c.takes < 0 ? "rule.takesSome" : "rule.takes", "comparison", c.said(), "n", c.takes);
        parts.add(new Part(p.getString("question", ""), c, values));
      }
    } catch (UnsupportedOperationException | NullPointerException e) {
      throw new Unfit("rule.noParts").because(e);
    }
    if (parts.isEmpty()) throw new Unfit("rule.noPart");
    return new SentenceParts(o.getString("join", "all").equals("all"), parts);
  }
}
