package org.whinridge.core.access;

import org.whinridge.core.text.Word;

/** How a project stands. */
public enum ProjectState implements Word {
  /** Work goes on. */
  OPEN("open"),
  /** It is read only, and devices don't see it; its coordinators can open it again. */
  CLOSED("closed"),
  /** It is not there for anybody, and kept for a while. */
  REMOVED("removed");

  private final String id;

  ProjectState(String id) {
    this.id = id;
  }

  @Override
  public String id() {
    return id;
  }
}
