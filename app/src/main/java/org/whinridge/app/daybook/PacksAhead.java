package org.whinridge.app.daybook;

import java.util.List;
import java.util.UUID;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.whinridge.app.people.BuiltOnAccounts;
import org.whinridge.app.round.Rounds;

/** Packs of open rounds are made before devices ask for them, and again when they are others. */
@Component
class PacksAhead implements BuiltOnAccounts {
  /** So many rounds are made ready, the newest first; what others hold is made when asked for. */
  private static final int MOST_ROUNDS = 100;

  private final Rounds rounds;
  private final Packs packs;
  private final PackFiles files;

  PacksAhead(Rounds rounds, Packs packs, PackFiles files) {
    this.rounds = rounds;
    this.packs = packs;
    this.files = files;
  }

  @Scheduled(initialDelay = 60_000, fixedDelay = 600_000)
  void all() {
    List<UUID> open = rounds.open();
    files.keepRounds(open);
    packs.ahead(open.subList(0, Math.min(MOST_ROUNDS, open.size())));
  }

  /** What was made may name who is gone then. */
  @Override
  public void removed(String account) {
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            packs.forget();
          }
        });
  }
}
