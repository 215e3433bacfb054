package org.whinridge.app.project;

import java.util.Set;
import org.whinridge.core.access.Right;
import org.whinridge.core.access.Role;

/** What somebody may do in a project, which may be closed. */
public record Rights(Set<Role> roles, boolean closed) {
  /** Whether they may do it. */
  public boolean may(Right right) {
    return has(right) && (!closed || right.whenClosed());
  }

  /** Whether it is theirs, if only the project were not closed. */
  boolean has(Right right) {
    return right.isOf(roles);
  }

  /** Whether they may do what has this name; for pages. */
  public boolean may(String right) {
    return may(Right.valueOf(right));
  }

  /** Whether they have anything to do with the project. */
  public boolean any() {
    return !roles.isEmpty();
  }
}
