package org.whinridge.app.shell;

import java.util.UUID;
import org.whinridge.core.access.Right;

/** One station of the work's path in the band on top. Modules offer one each. */
public interface BandStation {
  /** Where it stands in the path, from 1. */
  int order();

  /** Its address below the project, "layers"; its word stands in the catalogue under the same. */
  String path();

  /** The key after g that goes there. */
  String key();

  /** What it takes to be led there. */
  default Right needs() {
    return Right.SEE_REGISTER;
  }

  /** How many things are in it for a project. */
  long count(UUID project);

  /** Whether the count waits for somebody. */
  default boolean needsSomebody() {
    return false;
  }
}
