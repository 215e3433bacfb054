package org.whinridge.app.overview;

import java.io.IOException;
import java.util.List;
import org.springframework.boot.test.context.TestComponent;

/** What tests of other packages ask of this one. */
@TestComponent
public class OverviewAccess {
  private final ProjectEnding ending;

  OverviewAccess(ProjectEnding ending) {
    this.ending = ending;
  }

  /** Takes away what was removed long ago. */
  public void end() throws IOException {
    ending.end();
  }

  /** The tables whose rows belong to projects. */
  public List<String> tables() {
    return ProjectRows.ALL.stream().map(ProjectRows.Rows::table).toList();
  }
}
