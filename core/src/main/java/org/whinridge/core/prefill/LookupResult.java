package org.whinridge.core.prefill;

import java.util.List;
import java.util.Optional;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Alongside;
import org.whinridge.core.said.Said;

/** What a place look-up came to. Each outcome is told on the sheet. */
public sealed interface LookupResult {
  /**
   * One feature found.
   *
   * @param distanceM geodesic metres from the place, 0 when it holds or touches it
   * @param alongside where the place lies along it; present for a look-up along lines
   */
  record Hit(Feature feature, double distanceM, Optional<Alongside> alongside) {}

  /**
   * What was found, best first, at least one.
   *
   * @param all whether all of them answer (a summary, or a list of several), not the first alone
   * @param several whether others would have answered too
   */
  record Found(List<Hit> hits, boolean all, boolean several) implements LookupResult {
    public Found {
      hits = List.copyOf(hits);
    }
  }

  /** No feature fits. */
  record NoMatch() implements LookupResult {}

  /** The visit has no position yet. */
  record NoPosition() implements LookupResult {}

  /** Not all features around the place are at hand, so that it can't be told. */
  record NotAtHand() implements LookupResult {}

  /** The layer did not travel with the pack. */
  record LayerMissing() implements LookupResult {}

  /** The filter can't be read against the layer that travelled. */
  record FilterBroken(Said message) implements LookupResult {}
}
