package org.whinridge.core.access;

import org.whinridge.core.text.Word;

/** What has become of an account. */
public enum AccountState implements Word {
  /** Whose it is may sign in. */
  ACTIVE("active"),
  /** Nobody signs in with it until somebody makes it active again; all that it did stays. */
  DEACTIVATED("deactivated"),
  /** It is over. Its name stays taken, so that nobody takes what it did for another's. */
  REMOVED("removed");

  private final String id;

  AccountState(String id) {
    this.id = id;
  }

  @Override
  public String id() {
    return id;
  }
}
