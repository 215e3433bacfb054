package org.whinridge.core.text;

import java.util.Optional;

/** What stands under a word in data: the members of a closed list. */
public interface Word {
  /** The word in data. */
  String id();

  /** The member of that word; empty when the list has none. */
  static <T extends Word> Optional<T> of(T[] all, String id) {
    for (T one : all) if (one.id().equals(id)) return Optional.of(one);
    return Optional.empty();
  }
}
