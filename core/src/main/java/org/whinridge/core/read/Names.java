package org.whinridge.core.read;

import java.util.Collection;
import java.util.Set;
import org.whinridge.core.rules.Node;

/** The names that a part of a tree reads. */
final class Names {
  private Names() {}

  static void collect(Node n, Set<String> into) {
    if (n instanceof Node.Name x) into.add(x.name());
    else if (n instanceof Node.Compare x) each(into, x.left(), x.right());
    else if (n instanceof Node.Like x) each(into, x.left(), x.pattern());
    else if (n instanceof Node.Between x) each(into, x.value(), x.low(), x.high());
    else if (n instanceof Node.In x) {
      collect(x.value(), into);
      all(into, x.items());
    } else if (n instanceof Node.IsNull x) collect(x.value(), into);
    else if (n instanceof Node.Logic x) each(into, x.left(), x.right());
    else if (n instanceof Node.Not x) collect(x.operand(), into);
    else if (n instanceof Node.Arithmetic x) each(into, x.left(), x.right());
    else if (n instanceof Node.Negate x) collect(x.operand(), into);
    else if (n instanceof Node.Call x) all(into, x.arguments());
    else if (n instanceof Node.ListOf x) all(into, x.items());
  }

  private static void each(Set<String> into, Node... nodes) {
    for (Node n : nodes) collect(n, into);
  }

  private static void all(Set<String> into, Collection<Node> nodes) {
    for (Node n : nodes) collect(n, into);
  }
}
