package org.whinridge.app.form;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.BandStation;

@Component
class FormsStation implements BandStation {
  private final Forms forms;

  FormsStation(Forms forms) {
    this.forms = forms;
  }

  @Override
  public int order() {
    return 2;
  }

  @Override
  public String path() {
    return "forms";
  }

  @Override
  public String key() {
    return "f";
  }

  @Override
  public long count(UUID project) {
    return forms.count(project);
  }
}
