package org.whinridge.app.people;

import java.util.List;

/** The columns in which names are replaced, for tests of other packages. */
public final class FormerColumns {
  private FormerColumns() {}

  /** All of them. */
  public static List<String> all() {
    return FormerPeople.COLUMNS;
  }
}
