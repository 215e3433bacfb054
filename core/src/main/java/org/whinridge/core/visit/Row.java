package org.whinridge.core.visit;

/** One row of a list section: its own id, its answers, and whether the thing is still there. */
final class Row {
  final String id;
  final Answers answers;
  RowState state;

  Row(String id, RowState state, Answers answers) {
    this.id = id;
    this.state = state;
    this.answers = answers;
  }
}
