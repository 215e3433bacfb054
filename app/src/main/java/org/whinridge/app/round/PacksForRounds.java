package org.whinridge.app.round;

/** What rounds ask of packs. Offered by whoever makes them. */
public interface PacksForRounds {
  /** How large the pack of a round is. It is ready from then on. */
  PackSize size(Round round);

  /** How large that of a round would be which is not made; nothing of it is kept. */
  PackSize foreseen(Round round);
}
