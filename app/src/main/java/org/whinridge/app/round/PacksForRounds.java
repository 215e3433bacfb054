package org.whinridge.app.round;

import java.util.List;
import java.util.UUID;

/** What rounds ask of packs. Offered by whoever makes them. */
public interface PacksForRounds {
  /** How large the pack of a round is. It is ready from then on. */
  PackSize size(Round round);

  /** Makes the packs of rounds ready, a little later, so that they are there when devices ask. */
  void ahead(List<UUID> rounds);

  /** How large that of a round would be which is not made; nothing of it is kept. */
  PackSize foreseen(Round round);
}
