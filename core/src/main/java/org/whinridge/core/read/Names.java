package org.whinridge.core.read;

import java.util.Set;
import org.whinridge.core.rules.Node;

/** The names that a part of a tree reads. */
final class Names {
  private Names() {}

  static void collect(Node n, Set<String> into) {
    if (n instanceof Node.Name x) into.add(x.name());
    for (Node part : n.parts()) collect(part, into);
  }
}
