package org.whinridge.core.rules;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.value.Value;

/** The tree of a rule. Every node keeps its place in the text. */
public sealed interface Node {
  /** The characters that this node was read from. */
  Span at();

  /** The nodes right below this one, in the order of the text. */
  default List<Node> parts() {
    if (this instanceof Compare x) return List.of(x.left, x.right);
    if (this instanceof Like x) return List.of(x.left, x.pattern);
    if (this instanceof Between x) return List.of(x.value, x.low, x.high);
    if (this instanceof In x) {
      List<Node> out = new ArrayList<>(x.items.size() + 1);
      out.add(x.value);
      out.addAll(x.items);
      return out;
    }
    if (this instanceof IsNull x) return List.of(x.value);
    if (this instanceof Logic x) return List.of(x.left, x.right);
    if (this instanceof Not x) return List.of(x.operand);
    if (this instanceof Arithmetic x) return List.of(x.left, x.right);
    if (this instanceof Negate x) return List.of(x.operand);
    if (this instanceof Call x) return x.arguments;
    if (this instanceof ListOf x) return x.items;
    return List.of();
  }

  /** A value written out. */
  record Literal(Value value, Span at) implements Node {}

  /** A question, a field, or one of the names that every visit has. */
  record Name(String name, Span at) implements Node {}

  /** {@code = <> < > <= >=}. */
  record Compare(String op, Node left, Node right, Span at) implements Node {
    /** The operator that says the same with the sides swapped: under is over. */
    public static String turned(String op) {
      switch (op) {
        case "<":
          return ">";
        case ">":
          return "<";
        case "<=":
          return ">=";
        case ">=":
          return "<=";
        default:
          return op;
      }
    }

    /** The operator that is no where this one is yes, for values that are not empty. */
    public static String opposite(String op) {
      switch (op) {
        case "=":
          return "<>";
        case "<>":
          return "=";
        case "<":
          return ">=";
        case ">":
          return "<=";
        case "<=":
          return ">";
        default:
          return "<";
      }
    }
  }

  /** LIKE with {@code %}, {@code _} and {@code \} as escape. */
  record Like(Node left, Node pattern, boolean not, Span at) implements Node {}

  /** BETWEEN, both ends included. */
  record Between(Node value, Node low, Node high, boolean not, Span at) implements Node {}

  /** IN a list. */
  record In(Node value, List<Node> items, boolean not, Span at) implements Node {}

  /** IS NULL. */
  record IsNull(Node value, boolean not, Span at) implements Node {}

  /** AND or OR. */
  record Logic(boolean and, Node left, Node right, Span at) implements Node {}

  /** NOT. */
  record Not(Node operand, Span at) implements Node {}

  /** {@code + - * / % div ^}. */
  record Arithmetic(String op, Node left, Node right, Span at) implements Node {}

  /** Minus. */
  record Negate(Node operand, Span at) implements Node {}

  /**
   * A function, in lower case; the spatial, temporal and array operators and INTERVAL in upper
   * case.
   */
  record Call(String function, List<Node> arguments, Span at) implements Node {}

  /** An array {@code ('a','b')}. */
  record ListOf(List<Node> items, Span at) implements Node {}
}
