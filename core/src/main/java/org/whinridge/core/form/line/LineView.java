package org.whinridge.core.form.line;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.form.Question;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/** What is understood of lines while they are typed. */
public final class LineView {
  private static final int MOST_CODES_SAID = 6;

  private LineView() {}

  /**
   * Lines as they are understood: a JSON array with, for each line that is not empty, its "number"
   * from 1 and "understood", words about it one after the other, or "problem".
   *
   * @param taken names that are there
   */
  public static JsonArray of(String text, List<String> taken) {
    JsonArray out = new JsonArray();
    List<String> names = new ArrayList<>(taken);
    Set<String> said = new TreeSet<>();
    String[] lines = FormText.lines(text);
    // a name that a line gives is not made for another; each key asks, so that one line is read
    // once
    if (lines.length > 1) for (String l : lines) FormText.given(l).ifPresent(names::add);
    for (int i = 0; i < lines.length; i++) {
      if (lines[i].isBlank()) continue;
      JsonObject one = new JsonObject().add("number", i + 1);
      try {
        int before = names.size();
        one.add("understood", said(lines[i].strip(), names, said));
        if (names.size() > before) one.add("name", names.get(before));
      } catch (IllegalArgumentException e) {
        one.add("problem", Unfit.said(e).json());
      }
      out.add(one);
    }
    return out;
  }

  private static JsonArray said(String line, List<String> names, Set<String> said) {
    JsonArray out = new JsonArray();
    Optional<HeadLine> head = HeadLine.read(line);
    List<Said> all = head.isPresent() ? head(head.get()) : question(line, names, said);
    for (Said s : all) out.add(s.json());
    return out;
  }

  private static List<Said> head(HeadLine h) {
    if (h.kind() == HeadLine.Kind.PAGE) return List.of(Said.of("line.page"));
    boolean section = h.kind() == HeadLine.Kind.SECTION;
    if (h.isEnd()) return List.of(Said.of(section ? "line.endOfSection" : "line.endOfBlock"));
    List<Said> out = new ArrayList<>();
    out.add(Said.of(section ? "line.section" : "line.block", "title", h.title()));
    h.rows()
        .ifPresent(
            r -> {
              out.add(Said.of("line.rows", "least", r.least(), "most", r.most()));
              if (r.fromLastVisit()) out.add(Said.of("line.again"));
            });
    return out;
  }

  private static List<Said> question(String line, List<String> names, Set<String> said) {
    QuestionLine q = QuestionLine.read(line);
    Question made = Lines.made(q, names);
    names.add(made.name());
    if (!said.add(made.name())) throw new Unfit("form.questionTwice", "name", made.name());
    List<Said> out = new ArrayList<>();
    out.add(
        Said.of(
            "line.question", "label", q.label(), "kind", Said.of("questionType." + q.type().id())));
    if (!q.unit().isEmpty()) out.add(Said.of("line.unit", "unit", q.unit()));
    if (q.decimals() >= 0) out.add(Said.of("line.decimals", "n", q.decimals()));
    if (q.from().isPresent() && q.to().isPresent())
      out.add(
          Said.of(
              "line.fromTo",
              "from",
              Said.number(q.from().getAsDouble()),
              "to",
              Said.number(q.to().getAsDouble())));
    else if (q.from().isPresent())
      out.add(Said.of("line.from", "from", Said.number(q.from().getAsDouble())));
    else if (q.to().isPresent())
      out.add(Said.of("line.to", "to", Said.number(q.to().getAsDouble())));
    if (q.step() > 0) out.add(Said.of("line.step", "step", Said.number(q.step())));
    if (q.least() > 0 || q.most() > 0)
      out.add(
          q.type().isMedia()
              ? counts(q.least(), q.most())
              : Said.of("line.characters", "n", counts(q.least(), q.most())));
    if (!q.codes().isEmpty()) out.add(codes(q.codes()));
    if (q.need() == Question.Need.NEEDED) out.add(Said.of("line.needed"));
    if (q.need() == Question.Need.WANTED) out.add(Said.of("line.wanted"));
    if (!q.hint().isEmpty()) out.add(Said.of("line.hint", "hint", q.hint()));
    out.add(Said.of("line.named", "name", made.name()));
    return out;
  }

  private static Said counts(int least, int most) {
    if (least == most) return Said.of("line.exactly", "n", most);
    if (least == 0) return Said.of("line.atMost", "n", most);
    if (most == 0) return Said.of("line.atLeast", "n", least);
    return Said.of("line.fromTo", "from", Said.number(least), "to", Said.number(most));
  }

  private static Said codes(List<Code> codes) {
    List<Said> some = new ArrayList<>();
    for (Code c : codes.subList(0, Math.min(MOST_CODES_SAID, codes.size())))
      some.add(
          c.code().equals(c.label())
              ? Said.text(c.label())
              : Said.of("line.code", "code", c.code(), "label", c.label()));
    return Said.of(
        "line.codes",
        "n",
        codes.size(),
        "codes",
        Said.inARow(some, "list.then"),
        "more",
        codes.size() - some.size());
  }
}
