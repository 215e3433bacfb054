package org.whinridge.core.form.edit;

import java.util.Optional;
import org.whinridge.core.text.Word;

/** How a step in the history of a draft stands. */
public enum StepState implements Word {
  /** It is in the draft. */
  DONE("done"),
  /** It was taken back, and can be done again. */
  UNDONE("undone"),
  /** It was taken back, and something else was done instead. */
  LEFT("left");

  private final String id;

  StepState(String id) {
    this.id = id;
  }

  @Override
  public String id() {
    return id;
  }

  /** The state of that word. */
  public static Optional<StepState> of(String id) {
    return Word.of(values(), id);
  }
}
