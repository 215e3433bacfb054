package org.whinridge.app.output;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.BandStation;

@Component
class OutputsStation implements BandStation {
  @Override
  public int order() {
    return 6;
  }

  @Override
  public String path() {
    return "outputs";
  }

  @Override
  public String key() {
    return "o";
  }

  @Override
  public long count(UUID project) {
    return 0;
  }
}
