package org.whinridge.core.visit;

import java.util.Optional;
import org.whinridge.core.text.Word;

/**
 * How far a visit is: on the device from begun to handed in, at the office from waiting on. That it
 * clashes is a property of a waiting visit, not a state.
 */
public enum VisitState implements Word {
  BEGUN("begun"),
  COMPLETE("complete"),
  HANDED_IN("handed in"),
  WAITING("waiting"),
  ACCEPTED("accepted"),
  SENT_BACK("sent back"),
  SET_ASIDE("set aside");
  private final String id;

  VisitState(String id) {
    this.id = id;
  }

  /** The word in data and for people. */
  @Override
  public String id() {
    return id;
  }

  /** The word for people, so that templates and messages say it. */
  @Override
  public String toString() {
    return id;
  }

  /** The state of that word. */
  public static Optional<VisitState> of(String id) {
    return Word.of(values(), id);
  }
}
