package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.value.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** Finds what is open about one question. */
final class PointFinder {
  private final ExecutableForm form;
  private final Situation situation;

  PointFinder(ExecutableForm form, Situation situation) {
    this.form = form;
    this.situation = situation;
  }

  List<OpenPoint> points(ExecutableForm.Compiled c, boolean asked, Value value) {
    Question q = c.question();
    if (!asked || q.type() == QuestionType.READ) return List.of();
    List<OpenPoint> out = new ArrayList<>();
    if (value.isEmpty()) empty(q, out);
    else fits(q, value, out);
    for (int k = 0; k < c.checks().size(); k++)
      if (!c.checks().get(k).isNotBroken(situation)) {
        Check check = q.checks().get(k);
        String message =
            check.message().isBlank()
                ? "it should hold that " + c.checks().get(k).sentence(form.scope())
                : filledIn(check.message());
        out.add(
            new OpenPoint(
                q.name(),
                check.weight() == Check.Weight.FIRM ? OpenPoint.Kind.FIRM : OpenPoint.Kind.SOFT,
                key(q, k, c.checks().get(k)),
                message));
      }
    return out;
  }

  /**
   * A soft check is confirmed for the answers it was seen with: its key holds them, so that other
   * answers ask again.
   */
  private String key(Question q, int k, org.whinridge.core.rules.Rule rule) {
    StringBuilder b = new StringBuilder(q.name()).append(":check").append(k);
    for (String n : rule.names()) b.append(':').append(situation.value(n).plain());
    return b.toString();
  }

  private static void empty(Question q, List<OpenPoint> out) {
    boolean photos = q.type() == QuestionType.PHOTO && q.least() > 0;
    if (q.need() == Question.Need.NEEDED || photos)
      out.add(
          new OpenPoint(
              q.name(),
              OpenPoint.Kind.NEEDED,
              q.name() + ":needed",
              photos
                  ? "at least " + q.least() + (q.least() == 1 ? " photo" : " photos")
                  : "needs an answer"));
    else if (q.need() == Question.Need.WANTED)
      out.add(
          new OpenPoint(
              q.name(),
              OpenPoint.Kind.WANTED,
              q.name() + ":wanted",
              "an answer is wanted, if you can"));
  }

  private void fits(Question q, Value v, List<OpenPoint> out) {
    ValueType wanted = q.valueType(form.schema());
    if (v.type() != wanted) {
      out.add(
          new OpenPoint(
              q.name(),
              OpenPoint.Kind.FIRM,
              q.name() + ":type",
              "‘" + v.plain() + "’ is not " + wanted.said()));
      return;
    }
    if (q.type() == QuestionType.WHOLE
        && v instanceof Value.Num n
        && n.value() != Math.floor(n.value()))
      out.add(
          new OpenPoint(
              q.name(),
              OpenPoint.Kind.FIRM,
              q.name() + ":whole",
              Numbers.plain(n.value()) + " is not a whole number"));
    form.schema()
        .field(q.writesTo())
        .filter(f -> f.length() > 0 && v.plain().length() > f.length())
        .ifPresent(
            f ->
                out.add(
                    new OpenPoint(
                        q.name(),
                        OpenPoint.Kind.FIRM,
                        q.name() + ":length",
                        "at most " + f.length() + " characters; this has " + v.plain().length())));
    if (q.type() == QuestionType.CHOICE || q.type() == QuestionType.CHOICES) codes(q, v, out);
    if (v instanceof Value.Many m) {
      String what = q.type() == QuestionType.PHOTO ? " photos" : " answers";
      if (q.least() > m.values().size())
        out.add(
            new OpenPoint(
                q.name(),
                OpenPoint.Kind.NEEDED,
                q.name() + ":least",
                "at least " + q.least() + what));
      if (q.most() > 0 && q.most() < m.values().size())
        out.add(
            new OpenPoint(
                q.name(), OpenPoint.Kind.FIRM, q.name() + ":most", "at most " + q.most() + what));
    }
  }

  private static void codes(Question q, Value v, List<OpenPoint> out) {
    for (Value one : v instanceof Value.Many m ? m.values() : List.of(v))
      if (q.codes().stream().noneMatch(c -> c.code().equals(one.plain())))
        out.add(
            new OpenPoint(
                q.name(),
                OpenPoint.Kind.SOFT,
                q.name() + ":code:" + one.plain(),
                "‘" + one.plain() + "’ is not in the list; choose one, or confirm that it stays"));
  }

  /** The message with {name} replaced by the answer's label. */
  private String filledIn(String message) {
    StringBuilder b = new StringBuilder();
    int i = 0;
    while (i < message.length()) {
      int close = message.charAt(i) == '{' ? message.indexOf('}', i) : -1;
      String name = close < 0 ? "" : message.substring(i + 1, close);
      if (close > 0 && form.scope().find(name).isPresent()) {
        Value v = situation.value(name);
        b.append(v.isEmpty() ? "nothing" : situation.label(name, v));
        i = close + 1;
      } else b.append(message.charAt(i++));
    }
    return b.toString();
  }
}
