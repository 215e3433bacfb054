package org.whinridge.core.rules;

import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.IsoTime;
import org.whinridge.core.value.Value;

/** DATE('…'), TIMESTAMP('…') and INTERVAL('…', '…'). */
public final class Literals {
  private Literals() {}

  /** DATE or TIMESTAMP with its one text; throws {@link RuleSyntax} for what is neither. */
  public static Node moment(String kind, List<Node> arguments, Span at) {
    boolean date = kind.equals("DATE");
    if (arguments.size() == 1
        && arguments.get(0) instanceof Node.Literal l
        && l.value() instanceof Value.Text t) {
      Optional<Value> value =
          date
              ? IsoTime.date(t.value()).map(Value.Day::new)
              : IsoTime.moment(t.value()).map(Value.Moment::new);
      if (value.isPresent()) return new Node.Literal(value.get(), at);
      throw new RuleSyntax(
          new RuleProblem(
              RuleProblem.Kind.BAD_LITERAL,
              l.at(),
              Said.of(date ? "rule.noDate" : "rule.noMoment", "found", t.value()),
              ""));
    }
    throw new RuleSyntax(
        new RuleProblem(
            RuleProblem.Kind.BAD_LITERAL, at, Said.of("rule.oneText", "function", kind), ""));
  }

  /**
   * An interval: each end is a date or moment written as a bare text, DATE(…) or TIMESTAMP(…), the
   * text '..' for an open end, or an expression that gives a date or a moment.
   */
  public static Node interval(List<Node> arguments, Span at) {
    return new Node.Call("INTERVAL", arguments.stream().map(Literals::end).toList(), at);
  }

  private static Node end(Node n) {
    if (!(n instanceof Node.Literal l)
        || !(l.value() instanceof Value.Text t)
        || t.value().equals("..")) return n;
    return moment(t.value().contains("T") ? "TIMESTAMP" : "DATE", List.of(n), n.at());
  }
}
