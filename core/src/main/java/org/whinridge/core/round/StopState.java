package org.whinridge.core.round;

import java.util.Optional;
import org.whinridge.core.text.Word;

/** What is known of a stop of a round. */
public enum StopState implements Word {
  TO_DO("to do"),
  /** A visit was begun. */
  STARTED("started"),
  /** A complete visit exists. */
  DONE("done"),
  SENT_BACK("sent back"),
  /** It could not be reached, for a reason. */
  NO_ACCESS("no access"),
  /** The asset is not there any more. */
  GONE("gone");
  private final String id;

  StopState(String id) {
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
  public static Optional<StopState> of(String id) {
    return Word.of(values(), id);
  }
}
