package org.whinridge.app.shell;

import java.time.Instant;
import java.util.Optional;

/**
 * The copies of the store that are kept beside it. What a device handed in may leave the device
 * once a copy holds it, so that going back to a copy loses nothing that was called safe.
 */
public interface StoreCopies {
  /** Everything committed up to this moment is in a sound copy; empty while there is none. */
  Optional<Instant> heldUpTo();
}
