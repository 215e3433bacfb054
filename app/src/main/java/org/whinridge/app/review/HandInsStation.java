package org.whinridge.app.review;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.BandStation;
import org.whinridge.core.access.Right;

@Component
class HandInsStation implements BandStation {
  private final ReviewDesk desk;

  HandInsStation(ReviewDesk desk) {
    this.desk = desk;
  }

  @Override
  public int order() {
    return 4;
  }

  @Override
  public String path() {
    return "hand-ins";
  }

  @Override
  public String key() {
    return "h";
  }

  @Override
  public Right needs() {
    return Right.SEE_WORK;
  }

  @Override
  public long count(UUID project) {
    return desk.waiting(project);
  }

  @Override
  public boolean needsSomebody() {
    return true;
  }
}
