package org.whinridge.core.visit;

import org.whinridge.core.text.Word;

/** What is known of a row of a list section. */
public enum RowState implements Word {
  /** Found by this visit. */
  NEW("new"),
  /** Found by the last visit; nobody has said yet whether it is still there. */
  TO_CONFIRM("to confirm"),
  /** Found by the last visit and still there. */
  STILL("still there"),
  /** Found by the last visit and mended since. */
  MENDED("mended"),
  /** Found by the last visit and not there any more. */
  GONE("gone");
  private final String id;

  RowState(String id) {
    this.id = id;
  }

  /** The word in data. */
  @Override
  public String id() {
    return id;
  }

  /** Whether the row counts: what is mended or gone is no row for rules any more. */
  boolean isThere() {
    return this != MENDED && this != GONE;
  }

  /** The state of that word; new for any other. */
  static RowState of(String id) {
    return Word.of(values(), id).orElse(NEW);
  }
}
