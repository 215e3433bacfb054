package org.whinridge.core.trial;

import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Word;

/**
 * One thing that is other than a trial expects.
 *
 * @param question the question that it is about, the list section, or the place
 * @param row the row's id; "" outside of lists
 * @param label what the question is called
 * @param said what is other, for people
 */
public record Difference(String question, String row, String label, What what, Said said) {
  /** What can be other. */
  public enum What implements Word {
    /** It is asked and was not to be. */
    ASKED("asked"),
    /** It is not asked and was to be. */
    NOT_ASKED("not asked"),
    /** Another answer. */
    VALUE("value"),
    /** Something is open that was not to be. */
    OPENS("opens"),
    /** Something is not open that was to be. */
    CLOSES("closes"),
    /** What is open says something else. */
    SAYS("says"),
    /** The form does not have the question any more, or the row is not there. */
    GONE("gone");
    private final String id;

    What(String id) {
      this.id = id;
    }

    @Override
    public String id() {
      return id;
    }
  }

  /**
   * What is other than expected, in the order of the sheet; nothing when all is as expected. A
   * question that is new is told by what it holds back alone, since a trial could not expect it.
   */
  static List<Difference> between(Outcome expected, Outcome now) {
    List<Difference> out = new ArrayList<>();
    Set<String> silent = new TreeSet<>();
    for (Outcome.Answer is : now.answers())
      find(expected.answers(), is).flatMap(was -> answer(was, is)).ifPresent(out::add);
    for (Outcome.Answer was : expected.answers())
      if (was.asked() && find(now.answers(), was).isEmpty())
        out.add(
            new Difference(
                was.question(), was.row(), was.label(), What.GONE, Said.of("trial.gone")));
    for (Difference d : out)
      if (d.what == What.GONE || d.what == What.NOT_ASKED) silent.add(d.row + "/" + d.question);
    points(expected, now, silent, out);
    return out;
  }

  private static Optional<Outcome.Answer> find(List<Outcome.Answer> in, Outcome.Answer like) {
    return in.stream().filter(like::isOf).findFirst();
  }

  private static Optional<Difference> answer(Outcome.Answer was, Outcome.Answer is) {
    if (was.asked() && !is.asked())
      return Optional.of(of(is, What.NOT_ASKED, Said.of("trial.notAsked")));
    if (!was.asked() && is.asked())
      return Optional.of(
          of(
              is,
              What.ASKED,
              is.value().isNull()
                  ? Said.of("trial.asked")
                  : Said.of("trial.askedWith", "now", is.shown())));
    if (was.value().equals(is.value())) return Optional.empty();
    return Optional.of(
        of(
            is,
            What.VALUE,
            was.value().isNull()
                ? Said.of("trial.valueNew", "now", is.shown())
                : is.value().isNull()
                    ? Said.of("trial.valueGone", "before", was.shown())
                    : Said.of("trial.value", "before", was.shown(), "now", is.shown())));
  }

  private static Difference of(Outcome.Answer a, What what, Said said) {
    return new Difference(a.question(), a.row(), a.label(), what, said);
  }

  /**
   * What opened and closed. What was open about a question that is not asked any more closes by
   * itself and is not told.
   */
  private static void points(
      Outcome expected, Outcome now, Set<String> silent, List<Difference> out) {
    List<Outcome.Point> closed = new ArrayList<>(expected.points());
    List<Outcome.Point> opened = new ArrayList<>();
    for (Outcome.Point is : now.points()) if (!takeOut(closed, is).isPresent()) opened.add(is);
    for (Outcome.Point is : opened) {
      Optional<Outcome.Point> was = closed.stream().filter(is::isLike).findFirst();
      was.ifPresent(closed::remove);
      out.add(
          was.map(
                  w ->
                      of(
                          is,
                          What.SAYS,
                          Said.of("trial.says", "before", w.message(), "now", is.message())))
              .orElseGet(
                  () -> of(is, What.OPENS, Said.of("trial.opens", "message", is.message()))));
    }
    for (Outcome.Point was : closed)
      if (!silent.contains(was.row() + "/" + was.question()))
        out.add(of(was, What.CLOSES, Said.of("trial.closes", "message", was.message())));
  }

  private static Optional<Outcome.Point> takeOut(List<Outcome.Point> from, Outcome.Point p) {
    Optional<Outcome.Point> same =
        from.stream()
            .filter(x -> x.isLike(p) && x.message().json().equals(p.message().json()))
            .findFirst();
    same.ifPresent(from::remove);
    return same;
  }

  private static Difference of(Outcome.Point p, What what, Said said) {
    return new Difference(p.question(), p.row(), p.label(), what, said);
  }

  /** The JSON form. */
  public JsonObject json() {
    return new JsonObject()
        .add("question", question)
        .add("row", row)
        .add("label", label)
        .add("what", what.id())
        .add("said", said.json());
  }
}
