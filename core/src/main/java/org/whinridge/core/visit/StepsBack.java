package org.whinridge.core.visit;

import java.util.ArrayDeque;
import java.util.Deque;

/** The last steps of a person, to take them back one by one. */
final class StepsBack {
  /** How many steps can be taken back. */
  static final int MOST = 200;

  private final Deque<Runnable> steps = new ArrayDeque<>();

  void remember(Runnable back) {
    steps.push(back);
    if (steps.size() > MOST) steps.removeLast();
  }

  /** Remembers everything as it is now. */
  void remember(FillingState state, Evaluation evaluation) {
    FillingState.Remembered all = state.remember();
    remember(
        () -> {
          state.restore(all);
          evaluation.everything(false);
        });
  }

  /** Takes the last step back; false when there is none. */
  boolean takeBack() {
    if (steps.isEmpty()) return false;
    steps.pop().run();
    return true;
  }

  int size() {
    return steps.size();
  }
}
