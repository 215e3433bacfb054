package org.whinridge.app.people;

import java.util.Optional;
import org.whinridge.core.said.Said;

/** What other modules have of a person, where accounts end. Offered by whoever has something. */
public interface BuiltOnAccounts {
  /** Why this person can't go yet; empty when nothing holds them. */
  default Optional<Said> mustStay(String account) {
    return Optional.empty();
  }

  /** The account is being removed: what it may and has by itself goes, within the transaction. */
  default void removed(String account) {}

  /** Its name is being replaced: so it is within documents, within the transaction. */
  default void renamed(String account, String by) {}
}
