package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.form.Check;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.compile.Compiled;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.layer.Code;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/** Finds what is open about one question, and which of its codes do not fit the other answers. */
final class PointFinder {
  private final ExecutableForm form;
  private final VisitStart start;
  private final VisitSituation situation;

  PointFinder(ExecutableForm form, VisitStart start, VisitSituation situation) {
    this.form = form;
    this.start = start;
    this.situation = situation;
  }

  /** The codes that are not offered now. */
  List<Code> unfit(Compiled c) {
    if (c.fits().isEmpty()) return List.of();
    List<Code> out = new ArrayList<>();
    for (Compiled.Fit f : c.fits()) if (!f.rule().holds(situation)) out.add(f.code());
    return out;
  }

  List<OpenPoint> points(Compiled c, Answers a, int k, Row row) {
    Question q = c.question();
    if (!a.asked[k] || !q.type().hasAnswer()) return List.of();
    Value value = a.values[k];
    if (value.isEmpty()
        && c.checks().isEmpty()
        && q.need() == Question.Need.FREE
        && !a.notFinite[k]
        && q.limits().least() == 0) return List.of();
    Found found = new Found(q, row);
    if (value.isEmpty()) empty(q, found);
    else {
      new AnswerLimits(form.schema(), c).check(value, a.unfit.get(k), found);
      taken(q, value, found);
    }
    if (a.notFinite[k]) found.soft(new PointReason.NotFinite(), inputs(c.workOut().orElseThrow()));
    for (int n = 0; n < c.checks().size(); n++) check(c, n, found);
    return found.points == null ? List.of() : found.points;
  }

  private void check(Compiled c, int n, Found found) {
    Rule rule = c.checks().get(n);
    if (rule.isNotBroken(situation)) return;
    Check check = c.question().logic().checks().get(n);
    Said said = check.message().isBlank() ? Said.NONE : Said.text(filledIn(check.message(), c));
    PointReason broken =
        new PointReason.Broken(n, said, said.isEmpty() ? Sentence.of(rule, c.scope()) : Said.NONE);
    if (check.weight() == Check.Weight.SOFT) found.soft(broken, inputs(rule));
    else found.firm(broken);
  }

  private List<Value> inputs(Rule rule) {
    List<Value> out = new ArrayList<>();
    for (String n : rule.names()) out.add(situation.value(n));
    return out;
  }

  private static void empty(Question q, Found found) {
    boolean media = q.type().isMedia() && q.limits().least() > 0;
    if (q.need() == Question.Need.NEEDED || media)
      found.needed(
          new PointReason.Needed(
              media ? AnswerLimits.counted(q.limits().least(), q.type()) : Said.NONE));
    else if (q.need() == Question.Need.WANTED) found.wanted(new PointReason.Wanted());
  }

  private void taken(Question q, Value v, Found found) {
    if (!q.wire().unique() || q.writesTo().isEmpty()) return;
    // what the layer held already is not this visit's to mend
    Value was = start.feature().map(f -> f.value(q.writesTo())).orElse(Value.EMPTY);
    if (v.equals(was)) return;
    String self = start.feature().map(f -> f.id()).orElse("");
    if (start.taken().by(q.writesTo(), v, self)) found.firm(new PointReason.Taken(v, q.shown(v)));
  }

  /** The message with {name} replaced by the answer as people read it. */
  private String filledIn(String message, Compiled c) {
    StringBuilder b = new StringBuilder();
    int i = 0;
    while (i < message.length()) {
      int close = message.charAt(i) == '{' ? message.indexOf('}', i) : -1;
      String name = close < 0 ? "" : message.substring(i + 1, close);
      if (close > 0 && c.scope().find(name).isPresent()) {
        b.append(said(name));
        i = close + 1;
      } else b.append(message.charAt(i++));
    }
    return b.toString();
  }

  private String said(String name) {
    Value v = situation.value(name);
    if (v.isEmpty()) return "–";
    int i = form.indexOf(name);
    if (v instanceof Value.Num n && i >= 0 && form.at(i).question().decimals() >= 0)
      return Numbers.fixed(n.value(), form.at(i).question().decimals());
    return situation.label(name, v);
  }

  /** Collects the points of one question; makes no list while there are none. */
  static final class Found {
    private final Question question;
    private final String row;
    private List<OpenPoint> points;

    Found(Question question, Row row) {
      this.question = question;
      this.row = row == null ? "" : row.id;
    }

    void firm(PointReason reason) {
      put(OpenPoint.of(question.name(), row, OpenPoint.Kind.FIRM, reason));
    }

    void needed(PointReason reason) {
      put(OpenPoint.of(question.name(), row, OpenPoint.Kind.NEEDED, reason));
    }

    void wanted(PointReason reason) {
      put(OpenPoint.of(question.name(), row, OpenPoint.Kind.WANTED, reason));
    }

    /** A point that a person can confirm for the values it was seen with. */
    void soft(PointReason reason, List<Value> seenWith) {
      put(OpenPoint.of(question.name(), row, OpenPoint.Kind.SOFT, reason, seenWith));
    }

    private void put(OpenPoint point) {
      if (points == null) points = new ArrayList<>(2);
      points.add(point);
    }
  }
}
