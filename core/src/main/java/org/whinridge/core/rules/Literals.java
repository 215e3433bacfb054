package org.whinridge.core.rules;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.whinridge.core.value.Value;

/** DATE('…') and TIMESTAMP('…'). */
final class Literals {
  private Literals() {}

  static Node moment(String kind, List<Node> arguments, Span at) {
    boolean date = kind.equals("DATE");
    if (arguments.size() == 1
        && arguments.get(0) instanceof Node.Literal l
        && l.value() instanceof Value.Text t) {
      try {
        return new Node.Literal(
            date
                ? new Value.Day(LocalDate.parse(t.value()))
                : new Value.Moment(Instant.parse(t.value())),
            at);
      } catch (DateTimeException e) {
        throw new RuleSyntax(
            new RuleProblem(
                RuleProblem.Kind.BAD_LITERAL,
                l.at(),
                "‘"
                    + t.value()
                    + "’ is not a "
                    + (date
                        ? "date in the calendar, written as 2026-05-04"
                        : "moment in UTC, written as 2026-05-04T09:30:00Z"),
                ""));
      }
    }
    throw new RuleSyntax(
        new RuleProblem(RuleProblem.Kind.BAD_LITERAL, at, kind + " takes one text in quotes", ""));
  }
}
