package org.whinridge.app.shell;

import java.util.concurrent.Callable;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;

/** What {@link Writing} does, for acts that hold their transaction by hand. */
public final class Attempts {
  private Attempts() {}

  /** Carries out an act that is one transaction; once more when somebody else was in the way. */
  public static <T> T twice(Callable<T> act) throws Exception {
    try {
      return act.call();
    } catch (ConcurrencyFailureException | DataIntegrityViolationException e) {
      return act.call();
    }
  }
}
