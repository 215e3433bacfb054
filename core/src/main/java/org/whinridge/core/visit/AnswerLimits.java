package org.whinridge.core.visit;

import java.util.List;
import org.whinridge.core.form.Limits;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.compile.Compiled;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** Whether an answer is of its question's kind and within its limits. */
final class AnswerLimits {
  private final Schema schema;
  private final Compiled compiled;
  private final Question q;

  AnswerLimits(Schema schema, Compiled compiled) {
    this.schema = schema;
    this.compiled = compiled;
    q = compiled.question();
  }

  void check(Value v, List<Code> unfit, PointFinder.Found found) {
    ValueType wanted = compiled.type();
    if (v.type() != wanted) {
      found.firm(new PointReason.WrongType(v, wanted.said()));
      return;
    }
    if (v instanceof Value.Num n) number(n.value(), found);
    if (v instanceof Value.Text t && !q.type().hasCodes()) text(t.value(), found);
    if (v instanceof Value.Place p) shape(p, found);
    if (q.type() == QuestionType.TIME && !isTime(v.plain()))
      found.firm(new PointReason.NoTime(v.plain()));
    if (q.type().hasCodes()) codes(v, unfit, found);
    if (v instanceof Value.Many m) many(m, found);
  }

  private void number(double d, PointFinder.Found found) {
    if (q.type().isWhole() && d != Math.floor(d))
      found.firm(new PointReason.NotWhole(Numbers.plain(d)));
    Limits l = q.limits();
    boolean under = l.from().isPresent() && d < l.from().getAsDouble();
    boolean over = l.to().isPresent() && d > l.to().getAsDouble();
    if (under || over) found.firm(new PointReason.OutOfRange(range(l), Numbers.plain(d)));
    if (l.step() > 0) {
      double steps = (d - l.from().orElse(0)) / l.step();
      if (Math.abs(steps - Math.rint(steps)) > 1e-9 * Math.max(1, Math.abs(steps)))
        found.firm(new PointReason.OffStep(measured(l.step()), d));
    }
    if ((q.type() == QuestionType.COUNTER || q.type() == QuestionType.DURATION) && d < 0)
      found.firm(new PointReason.Negative(Numbers.plain(d)));
  }

  private Said range(Limits l) {
    if (l.from().isEmpty()) return Said.of("point.atMost", "what", measured(l.to().getAsDouble()));
    Said from = Said.number(l.from().getAsDouble());
    if (l.to().isEmpty()) return Said.of("point.atLeast", "what", measured(l.from().getAsDouble()));
    return Said.of("point.fromTo", "from", from, "to", measured(l.to().getAsDouble()));
  }

  /** A number with the question's unit. */
  private Said measured(double d) {
    Said n = Said.number(d);
    return q.unit().isEmpty() ? n : Said.of("phrase.withUnit", "n", n, "unit", q.unit());
  }

  private void text(String s, PointFinder.Found found) {
    Limits l = q.limits();
    int most = l.most();
    int field = schema.field(q.writesTo()).map(f -> f.length()).orElse(0);
    if (field > 0 && (most == 0 || field < most)) most = field;
    if (s.length() < l.least()) found.firm(new PointReason.TooShort(l.least(), s.length()));
    if (most > 0 && s.length() > most) found.firm(new PointReason.TooLong(most, s.length()));
  }

  private void shape(Value.Place p, PointFinder.Found found) {
    int dimension = p.geometry().getDimension();
    int wanted = q.type() == QuestionType.POINT ? 0 : q.type() == QuestionType.LINE ? 1 : 2;
    if (dimension != wanted)
      found.firm(
          new PointReason.OtherShape(
              Said.of(
                  wanted == 0 ? "point.aPoint" : wanted == 1 ? "point.aLine" : "point.anArea")));
    else if (!p.geometry().isValid()) found.soft(new PointReason.CrossesItself(), List.of(p));
  }

  private static boolean isTime(String s) {
    return s.matches("([01][0-9]|2[0-3]):[0-5][0-9](:[0-5][0-9])?");
  }

  private void codes(Value v, List<Code> unfit, PointFinder.Found found) {
    List<Value> chosen = v instanceof Value.Many m ? m.values() : List.of(v);
    for (Value one : chosen) {
      String code = one.plain();
      Code known = null;
      for (Code c : q.codes()) if (c.code().equals(code)) known = c;
      if (known == null) found.soft(new PointReason.NotInList(code), List.of(one));
      else if (unfit.contains(known))
        found.firm(new PointReason.DoesNotFit(code, known.label(), offeredWhen(known)));
      else if (known.alone() && chosen.size() > 1)
        found.firm(new PointReason.NotAlone(code, known.label()));
    }
  }

  private Said offeredWhen(Code code) {
    Said when = Said.NONE;
    for (Compiled.Fit f : compiled.fits())
      if (f.code().equals(code)) when = Sentence.of(f.rule(), compiled.scope());
    return when;
  }

  private void many(Value.Many m, PointFinder.Found found) {
    int n = m.values().size();
    Limits l = q.limits();
    if (n < l.least()) found.needed(new PointReason.TooFew(counted(l.least(), q.type())));
    if (l.most() > 0 && n > l.most())
      found.firm(new PointReason.TooMany(counted(l.most(), q.type())));
  }

  /** A number of what a question collects: "2 photos". */
  static Said counted(int n, QuestionType type) {
    String what =
        type == QuestionType.PHOTO
            ? "amount.PHOTO"
            : type == QuestionType.SOUND
                ? "amount.SOUND"
                : type.isMedia() ? "amount.FILE" : "amount.ANSWER";
    return Said.of(what, "n", n);
  }
}
