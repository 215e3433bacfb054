package org.whinridge.app.round;

/** What rounds ask of packs. Offered by whoever makes them. */
public interface PacksForRounds {
  /** How large the pack of a round is; also of one that is not made yet. */
  PackSize size(Round round);
}
