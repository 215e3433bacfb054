package org.whinridge.app.own;

import java.util.UUID;

/** Whether a round lets devices tell where they are. Offered by whoever has rounds. */
public interface PositionsAllowed {
  /** Whether any round of a person does. */
  boolean anywhere(String account);

  /** Whether a round of a person in a project does. */
  boolean in(UUID project, String account);
}
