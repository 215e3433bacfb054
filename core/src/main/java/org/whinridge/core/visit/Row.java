package org.whinridge.core.visit;

/** One row of a list section: its own id, its answers, and whether the thing is still there. */
final class Row {
  /** What is known of a row. */
  enum State {
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

    State(String id) {
      this.id = id;
    }

    /** The word in data. */
    String id() {
      return id;
    }

    /** Whether the row counts: what is mended or gone is no row for rules any more. */
    boolean isThere() {
      return this != MENDED && this != GONE;
    }

    static State of(String id) {
      for (State s : values()) if (s.id.equals(id)) return s;
      return NEW;
    }
  }

  final String id;
  final Answers answers;
  State state;

  Row(String id, State state, Answers answers) {
    this.id = id;
    this.state = state;
    this.answers = answers;
  }
}
