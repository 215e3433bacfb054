package org.whinridge.core.prefill;

import java.util.Optional;
import org.whinridge.core.text.Word;

/** When the first value of a question is looked for again. */
public enum Refresh implements Word {
  /** Once, at the start of the visit; a look-up by place again when the visit's place is moved. */
  ONCE("once"),
  /** Whenever its inputs change, until a person changes the answer; then the new one is offered. */
  FOLLOW("follow"),
  /** Whenever its inputs change; nobody changes it by hand. */
  ALWAYS("always");
  private final String id;

  Refresh(String id) {
    this.id = id;
  }

  /** The word in data. */
  @Override
  public String id() {
    return id;
  }

  /** The refresh with that word. */
  public static Optional<Refresh> of(String id) {
    return Word.of(values(), id);
  }
}
