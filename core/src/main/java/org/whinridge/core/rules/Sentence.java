package org.whinridge.core.rules;

import java.util.List;
import org.whinridge.core.value.Fold;
import org.whinridge.core.value.Value;

/** A tree as plain English, with labels in place of names and codes. */
final class Sentence {
  private final Scope scope;

  Sentence(Scope scope) {
    this.scope = scope;
  }

  String say(Node n) {
    if (n instanceof Node.Logic l)
      return group(l.left(), l.and()) + (l.and() ? " and " : " or ") + group(l.right(), l.and());
    if (n instanceof Node.Not not) return "it is not so that " + say(not.operand());
    if (n instanceof Node.Compare c) return compare(c);
    if (n instanceof Node.Between b)
      return word(b.value())
          + (b.not() ? " is not between " : " is between ")
          + word(b.low())
          + " and "
          + word(b.high());
    if (n instanceof Node.In in)
      return word(in.value())
          + (!in.not() ? " is " : in.items().size() == 1 ? " is not " : " is neither ")
          + either(in);
    if (n instanceof Node.IsNull i)
      return word(i.value()) + (i.not() ? " is answered" : " is not answered");
    if (n instanceof Node.Like l)
      return word(l.left()) + (l.not() ? " is not like " : " is like ") + word(l.pattern());
    if (n instanceof Node.Name name) return word(name) + " is yes";
    return word(n);
  }

  private String group(Node n, boolean and) {
    return n instanceof Node.Logic l && l.and() != and ? "(" + say(n) + ")" : say(n);
  }

  private String compare(Node.Compare c) {
    boolean time =
        c.right() instanceof Node.Literal l
            && (l.value() instanceof Value.Day || l.value() instanceof Value.Moment);
    String verb;
    switch (c.op()) {
      case "=":
        verb = "is";
        break;
      case "<>":
        verb = "is not";
        break;
      case "<":
        verb = time ? "is before" : "is under";
        break;
      case ">":
        verb = time ? "is after" : "is over";
        break;
      case "<=":
        verb = time ? "is at the latest" : "is at most";
        break;
      default:
        verb = time ? "is at the earliest" : "is at least";
    }
    return word(c.left()) + " " + verb + " " + code(c.left(), c.right());
  }

  private String either(Node.In in) {
    List<String> items = in.items().stream().map(i -> code(in.value(), i)).toList();
    String last = items.get(items.size() - 1);
    return items.size() == 1
        ? last
        : String.join(", ", items.subList(0, items.size() - 1))
            + (in.not() ? " nor " : " or ")
            + last;
  }

  /** A literal beside a question with a code list is said by its label. */
  private String code(Node question, Node n) {
    if (question instanceof Node.Name q && n instanceof Node.Literal l)
      for (Scope.CodeLabel c : scope.find(q.name()).map(Scope.Known::codes).orElse(List.of()))
        if (c.code().equals(l.value().plain())) return Fold.lower(c.label());
    return word(n);
  }

  private String word(Node n) {
    if (n instanceof Node.Name m)
      return scope.find(m.name()).map(k -> lowerFirst(k.label())).orElse(m.name());
    if (n instanceof Node.Literal l)
      return l.value() instanceof Value.Text t ? "“" + t.value() + "”" : l.value().plain();
    if (n instanceof Node.Call c && c.function().equals("today")) return "today";
    if (n instanceof Node.Arithmetic a)
      return word(a.left())
          + " "
          + (a.op().equals("*") ? "×" : a.op().equals("-") ? "−" : a.op())
          + " "
          + word(a.right());
    if (n instanceof Node.Call c)
      return c.function()
          + "("
          + String.join(", ", c.arguments().stream().map(this::word).toList())
          + ")";
    return Printer.print(n);
  }

  private static String lowerFirst(String s) {
    boolean acronym = s.length() > 1 && Character.isUpperCase(s.charAt(1));
    return s.isEmpty() || acronym ? s : Fold.lower(s.substring(0, 1)) + s.substring(1);
  }
}
