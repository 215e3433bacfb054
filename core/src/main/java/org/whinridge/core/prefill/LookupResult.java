package org.whinridge.core.prefill;

import org.whinridge.core.value.Value;

/** What a place look-up came to. Each outcome is said in words on the sheet. */
public sealed interface LookupResult {
  /**
   * One feature answered; {@code several} tells that others held the position too and the smallest
   * area won.
   */
  record Found(Value value, String featureId, long version, boolean several)
      implements LookupResult {}

  /** No feature holds the position. */
  record NoMatch() implements LookupResult {}

  /** The visit has no position yet. */
  record NoPosition() implements LookupResult {}

  /** The layer did not travel with the pack. */
  record LayerMissing() implements LookupResult {}
}
