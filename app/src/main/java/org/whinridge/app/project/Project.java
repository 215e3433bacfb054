package org.whinridge.app.project;

import java.util.UUID;
import org.whinridge.core.access.ProjectState;

/**
 * A body of work: its address key, its name, and the coordinate system in which it types and shows
 * coordinates.
 */
public record Project(
    UUID id,
    String key,
    String name,
    String systemCode,
    String systemDefinition,
    ProjectState state) {
  /** Whether it is read only. */
  public boolean closed() {
    return state == ProjectState.CLOSED;
  }
}
