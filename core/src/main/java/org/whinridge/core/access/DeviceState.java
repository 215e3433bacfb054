package org.whinridge.core.access;

import org.whinridge.core.text.Word;

/** Whether a device is let in. */
public enum DeviceState implements Word {
  /** It is. */
  PAIRED("paired"),
  /** Its person signed out everywhere; it is let in again by signing in or pairing. */
  SIGNED_OUT("signedOut"),
  /** Somebody revoked it; at its next contact it clears away what it took out. */
  REVOKED("revoked");

  private final String id;

  DeviceState(String id) {
    this.id = id;
  }

  @Override
  public String id() {
    return id;
  }
}
