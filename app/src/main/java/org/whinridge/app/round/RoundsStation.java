package org.whinridge.app.round;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.BandStation;
import org.whinridge.core.access.Right;

@Component
class RoundsStation implements BandStation {
  private final Rounds rounds;

  RoundsStation(Rounds rounds) {
    this.rounds = rounds;
  }

  @Override
  public int order() {
    return 3;
  }

  @Override
  public String path() {
    return "rounds";
  }

  @Override
  public String key() {
    return "r";
  }

  @Override
  public Right needs() {
    return Right.SEE_WORK;
  }

  @Override
  public long count(UUID project) {
    return rounds.count(project);
  }
}
