package org.whinridge.core.form.line;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.OptionalDouble;
import org.whinridge.core.form.Limits;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Texts;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;

/** Between questions and what a line says of them. */
final class Lines {
  private Lines() {}

  /** What a line can say of a question, its name too. */
  static QuestionLine of(Question q) {
    List<Code> codes = new ArrayList<>();
    for (Code c : q.codes()) codes.add(Code.of(c.code(), c.label()));
    Limits l = q.limits();
    boolean number = isNumber(q.type());
    return new QuestionLine(
        q.label(),
        q.name(),
        q.type(),
        number ? l.unit() : "",
        q.type() == QuestionType.DECIMAL ? l.decimals() : -1,
        number ? l.from() : OptionalDouble.empty(),
        number ? l.to() : OptionalDouble.empty(),
        number ? l.step() : 0,
        counts(q.type()) ? l.least() : 0,
        counts(q.type()) ? l.most() : 0,
        q.need(),
        q.hint(),
        q.type().hasCodes() ? codes : List.of());
  }

  private static boolean isNumber(QuestionType t) {
    return t.isWhole() || t == QuestionType.DECIMAL || t == QuestionType.DURATION;
  }

  private static boolean counts(QuestionType t) {
    return t.isMedia() || t == QuestionType.TEXT || t == QuestionType.LONG_TEXT;
  }

  /** A question that is said by a line alone; a name that it does not give comes of its label. */
  static Question made(QuestionLine line, Collection<String> taken) {
    String name = line.name().isEmpty() ? Field.nameFrom(line.label(), taken) : line.name();
    return onto(Question.of(name, line.label(), line.type()), line);
  }

  /** A question with what a line says of it; what a line can't say stays. */
  static Question onto(Question q, QuestionLine line) {
    QuestionLine was = of(q);
    Limits l = q.limits();
    boolean sameType = q.type() == line.type();
    boolean number = isNumber(line.type());
    boolean counted = counts(line.type());
    Limits limits =
        new Limits(
            number ? line.unit() : sameType ? l.unit() : "",
            line.type() == QuestionType.DECIMAL ? line.decimals() : sameType ? l.decimals() : -1,
            number ? line.from() : sameType ? l.from() : OptionalDouble.empty(),
            number ? line.to() : sameType ? l.to() : OptionalDouble.empty(),
            number ? line.step() : sameType ? l.step() : 0,
            counted ? line.least() : sameType ? l.least() : 0,
            counted ? line.most() : sameType ? l.most() : 0,
            sameType ? l.lines() : 0);
    Texts texts = q.texts();
    if (!line.label().equals(was.label())) texts = texts.with("label", line.label());
    if (!line.hint().equals(was.hint())) texts = texts.with("hint", line.hint());
    return new Question(
        q.name(),
        texts,
        line.type(),
        limits,
        line.need(),
        q.hand(),
        q.wire(),
        line.type().hasCodes() ? codes(line.codes(), q.codes()) : sameType ? q.codes() : List.of(),
        q.logic(),
        q.prefill(),
        q.refresh(),
        q.layout());
  }

  /** Codes that were there keep what a line can't say of them. */
  private static List<Code> codes(List<Code> said, List<Code> before) {
    List<Code> out = new ArrayList<>();
    for (Code c : said) {
      Code was = c;
      for (Code b : before) if (b.code().equals(c.code())) was = b;
      out.add(was.as(c.code(), c.label()));
    }
    return out;
  }

  /** A question's line, with a sign at its end when it does not say all. */
  static String text(Question q) {
    QuestionLine line = of(q);
    String written = line.write();
    Question alone = made(line, List.of());
    Question.Layout inBlock = new Question.Layout("", false, "", q.layout().block());
    boolean all =
        alone.json().toString().equals(q.json().toString())
            || !q.layout().block().isEmpty()
                && new Question(
                        alone.name(),
                        alone.texts(),
                        alone.type(),
                        alone.limits(),
                        alone.need(),
                        alone.hand(),
                        alone.wire(),
                        alone.codes(),
                        alone.logic(),
                        alone.prefill(),
                        alone.refresh(),
                        inBlock)
                    .json()
                    .toString()
                    .equals(q.json().toString());
    return all ? written : written + " " + QuestionLine.MORE;
  }

  static HeadLine of(Section s) {
    return new HeadLine(HeadLine.Kind.SECTION, s.title(), s.name(), s.rows());
  }

  static HeadLine of(Section.Block b) {
    return new HeadLine(
        HeadLine.Kind.BLOCK, b.texts().get("title"), b.name(), java.util.Optional.empty());
  }
}
