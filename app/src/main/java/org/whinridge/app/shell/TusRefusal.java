package org.whinridge.app.shell;

import org.whinridge.core.said.Said;

/** Why an upload is not wanted. */
public final class TusRefusal extends Exception {
  private static final long serialVersionUID = 1;
  final int status;
  final transient Said said;

  /** A refusal with an HTTP status that tus knows, and what is to be told. */
  public TusRefusal(int status, Said said) {
    super(said.toString());
    this.status = status;
    this.said = said;
  }
}
