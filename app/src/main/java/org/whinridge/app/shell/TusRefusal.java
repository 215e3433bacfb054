package org.whinridge.app.shell;

/** Why a request on an upload can't go on, as a tus status. */
public final class TusRefusal extends Exception {
  private static final long serialVersionUID = 1;
  final int status;

  /** A refusal with an HTTP status that tus knows, and words. */
  public TusRefusal(int status, String message) {
    super(message);
    this.status = status;
  }
}
